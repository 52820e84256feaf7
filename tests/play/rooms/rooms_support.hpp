#pragma once
// Small tables for the tests of single rooms.
#include <string>

#include "apsidon/play/setup.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/traffic.hpp"
#include "support/property.hpp"

namespace apsidon::test {

inline Deck small_deck() {
  return Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
               .ranks = {"1", "2", "3", "4", "5", "6"},
               .copies = 9});
}

inline std::vector<CardOptions> cards_of(std::initializer_list<std::uint32_t> faces) {
  std::vector<CardOptions> out;
  for (const std::uint32_t face : faces) out.push_back({.face = {face}});
  return out;
}

/// Two hands of which each takes anything from the other, and sorts, inserts, raises and zooms.
inline TableSetup two_hands() {
  TableSetup setup(small_deck());
  const auto add = [&](const char* name, std::initializer_list<std::uint32_t> faces) {
    return setup.add(
        {.name = name,
         .layout = {.kind = HandLayout{}, .longest = 8},
         .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true, .inserts = true},
         .handling = {.hover = HoverKind::raise, .zoom = true},
         .cards = cards_of(faces)});
  };
  const ZoneId upper = add("upper", {1, 2, 3, 4, 5});
  const ZoneId lower = add("lower", {6, 7, 8});
  setup.plans = {{.root = down({zone(upper), zone(lower)}), .largest_width = 90}};
  return setup;
}

/// A few zones of several layouts, with cards.
inline TableSetup keyed_setup(Random& r) {
  TableSetup setup(small_deck());
  const Layout layouts[] = {SlotLayout{},   ColumnLayout{},           HandLayout{},
                            SpreadLayout{}, GridLayout{.columns = 3}, FreeLayout{}};
  std::vector<PlanNode> nodes;
  for (int i = 0; i < 4; ++i) {
    ZoneSetup zone{.name = "zone-" + std::to_string(i),
                   .layout = {.kind = layouts[r.below(6)], .longest = 6}};
    zone.layout.gives_up = r.chance(0.2f);
    for (int c = r.between(0, 4); c > 0; --c) {
      zone.cards.push_back(
          {.face = {static_cast<std::uint32_t>(r.between(1, 12))}, .face_up = r.chance(0.7f)});
    }
    nodes.push_back(apsidon::zone(setup.add(zone), 1));
  }
  setup.plans = {{.root = across(nodes)}};
  return setup;
}

/// One change of the table, or none.
inline void change_somehow(Random& r, Table& table) {
  const auto zone = [&] {
    return ZoneId{static_cast<std::uint32_t>(r.between(1, static_cast<int>(table.zones().size())))};
  };
  const auto top = table.top(zone());
  if (!top) return;
  if (r.chance(0.3f)) {
    (void)table.flip(*top, !table.card(*top)->face_up);
  } else {
    (void)table.move({*top, 1}, zone());
  }
}

/// Lays the cards out and sends them there.
inline void follow(play_detail::Traffic& traffic, play_detail::Arrangement& arrangement,
                   const TableSetup& setup, play_detail::Change change, const Feel& feel = {}) {
  play_detail::Sender by_feel;
  traffic.keep_slots(setup.table.slot_count());
  const auto shifts = arrangement.lay_out(setup, change, {});
  traffic.follow(shifts, arrangement.rests(), change, by_feel, feel);
}

}  // namespace apsidon::test
