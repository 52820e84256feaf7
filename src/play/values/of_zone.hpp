#pragma once
// What a layout request asks of one zone, and whether that is as it was laid out before. Not installed.
#include <cstddef>
#include <span>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "play/values/shift.hpp"

namespace apsidon::play_detail {

/// Which of a zone's cards are chosen, by their index.
template <class With>
void each_chosen(const TableSetup& setup, ZoneId zone, const LayoutRequest& request, With with) {
  for (const CardId id : request.chosen) {
    const Card* card = setup.table.card(id);
    if (card && card->zone == zone) with(card->index);
  }
}

inline bool same_chosen(std::span<const std::size_t> laid, const TableSetup& setup, ZoneId zone,
                        const LayoutRequest& request) {
  std::size_t n = 0;
  bool same = true;
  each_chosen(setup, zone, request, [&](std::size_t index) {
    same = same && n < laid.size() && laid[n] == index;
    ++n;
  });
  return same && n == laid.size();
}

inline Room room_of(const TableSetup& setup, ZoneId zone, const LayoutRequest& request) {
  Room room;
  const Card* raised = setup.table.card(request.raised);
  if (raised && raised->zone == zone) room.raised = static_cast<std::ptrdiff_t>(raised->index);
  for (const Insertion& insertion : request.insertions) {
    if (insertion.zone != zone) continue;
    room.insert_at = static_cast<std::ptrdiff_t>(insertion.index);
    room.insert_count = insertion.count;
  }
  return room;
}

/// Calls `with` for each card of a zone that is held, or waits elsewhere, and for which the others close up:
/// it keeps its room unless the zone says so, or sorts its cards by dragging.
template <class With>
void each_away(const TableSetup& setup, ZoneId zone, const LayoutRequest& request, With with) {
  const bool closes = setup.handling_of(zone).closes_gaps;
  const auto lies_here = [&](CardId card) {
    const Card* of_table = setup.table.card(card);
    return of_table && of_table->zone == zone;
  };
  if (closes || setup.rules_of(zone).sorts) {
    for (const CardId card : request.held) {
      if (lies_here(card)) with(card);
    }
  }
  for (const Guest& guest : request.guests) {
    if (closes && guest.zone != zone && lies_here(guest.card)) with(guest.card);
  }
}

/// Whether those that are away from this zone are these.
inline bool same_away(const std::vector<CardId>& these, const TableSetup& setup, ZoneId zone,
                      const LayoutRequest& request) {
  std::size_t n = 0;
  bool same = true;
  each_away(setup, zone, request, [&](CardId card) {
    same = same && n < these.size() && these[n] == card;
    ++n;
  });
  return same && n == these.size();
}

/// Whether those of the guests that are this zone's are these.
inline bool same_guests(const std::vector<Guest>& these, ZoneId zone, std::span<const Guest> all) {
  std::size_t n = 0;
  for (const Guest& guest : all) {
    if (guest.zone != zone) continue;
    if (n >= these.size() || these[n] != guest) return false;
    ++n;
  }
  return n == these.size();
}

}  // namespace apsidon::play_detail
