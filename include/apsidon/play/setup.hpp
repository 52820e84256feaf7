#pragma once
#include <string>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/layout/plan.hpp"
#include "apsidon/rules/rule.hpp"

namespace apsidon {

/// A zone with all that a playfield needs to know of it.
struct ZoneSetup {
  std::string name = {};  ///< not empty, unique in the table
  std::uint64_t key = 0;  ///< the game's own number; 0 for none
  Layout layout = SlotLayout{};
  int longest = 1;                      ///< the most cards for which the plan keeps room, [0, 100000]
  PickRule pick = {};                   ///< gives nothing, unless stated
  Rule drop = rule::nothing();          ///< takes nothing, unless stated
  std::vector<CardOptions> cards = {};  ///< bottom to top
};

/// Everything that a playfield starts from. A table file reads as one; in code, `add` the zones, then set the
/// plans:
///
///     TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
///     const ZoneId hand = setup.add({.name = "hand", .layout = HandLayout{}, .longest = 9});
///     setup.plans = {{.root = down({zone(hand, 1)})}};
struct APSIDON_CORE_EXPORT TableSetup {
  explicit TableSetup(Deck deck) : table(std::move(deck)) {}

  /// Creates the zone and its cards. Throws Error on misuse, before anything is changed.
  ZoneId add(const ZoneSetup& zone);

  std::string name = {};  ///< for people
  Table table;
  std::vector<ZonePlace> places = {};  ///< by ZoneId - 1
  std::vector<ZoneRules> rules = {};   ///< by ZoneId - 1
  std::vector<Plan> plans = {};        ///< at least one; the one that gives the larger card is used
  ZoneId deal_from = {};               ///< where a deal's cards come from; none: from above the window
  std::string data = {};               ///< the client's own JSON object, kept verbatim; empty for none
};

/// Throws Error when the plans do not place every zone once, or any option is out of its range.
APSIDON_CORE_EXPORT void check(const TableSetup& setup);

}  // namespace apsidon
