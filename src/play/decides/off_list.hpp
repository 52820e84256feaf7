#pragma once
// What is switched off, as rules ask for it. Not installed.
#include <algorithm>
#include <cstddef>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/play/switchable.hpp"

namespace apsidon::play_detail {

/// Cards and zones that are switched off, in ascending order, and the first reason of each.
struct OffList {
  std::vector<CardId> cards = {};
  std::vector<std::string> cards_for = {};
  std::vector<ZoneId> zones = {};
  std::vector<std::string> zones_for = {};

  /// A card or zone is off for this reason, or not at all.
  void set(const Switchable& what, std::optional<std::string> reason) {
    if (what.card) set(cards, cards_for, what.card, std::move(reason));
    if (what.zone) set(zones, zones_for, what.zone, std::move(reason));
  }

 private:
  template <class Id>
  static void set(std::vector<Id>& ids, std::vector<std::string>& reasons, Id id,
                  std::optional<std::string> reason) {
    const auto at = std::lower_bound(ids.begin(), ids.end(), id) - ids.begin();
    const bool there = static_cast<std::size_t>(at) < ids.size() && ids[static_cast<std::size_t>(at)] == id;
    if (there && reason) reasons[static_cast<std::size_t>(at)] = *std::move(reason);
    if (there == reason.has_value()) return;
    if (there) {
      ids.erase(ids.begin() + at);
      reasons.erase(reasons.begin() + at);
    } else {
      ids.insert(ids.begin() + at, id);
      reasons.insert(reasons.begin() + at, *std::move(reason));
    }
  }
};

}  // namespace apsidon::play_detail
