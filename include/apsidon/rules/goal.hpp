#pragma once
#include <cstdint>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

/// What has to be so for a goal to be reached.
enum class GoalKind : std::uint8_t {
  none,    ///< never reached
  all_in,  ///< every card of the table lies in one of `zones`
  filled,  ///< each of `zones` holds a card
  empty,   ///< none of `zones` holds a card
  when,    ///< a rule that asks about no card allows it: of numbers, of the turn, or in code
};

/// How the table lies when a game is won, or lost.
struct Goal {
  GoalKind kind = GoalKind::none;  ///< what has to be so
  std::vector<ZoneId> zones = {};  ///< of all_in, filled and empty
  Rule rule = {};                  ///< of `when`

  friend bool operator==(const Goal&, const Goal&) = default;
};

namespace goal {
/// Every card of the table lies in one of these zones.
[[nodiscard]] APSIDON_CORE_EXPORT Goal all_in(std::vector<ZoneId> zones);
/// Each of these zones holds a card.
[[nodiscard]] APSIDON_CORE_EXPORT Goal filled(std::vector<ZoneId> zones);
/// None of these zones holds a card.
[[nodiscard]] APSIDON_CORE_EXPORT Goal empty(std::vector<ZoneId> zones);
/// `goal::when(rule::number("sold", Compared::at_least, "wanted"))`. A rule in code is asked without a card.
[[nodiscard]] APSIDON_CORE_EXPORT Goal when(Rule rule);
}  // namespace goal

/// Throws Error when a goal names no zones, one that is not there, or a rule that is wrong or asks about
/// cards.
APSIDON_CORE_EXPORT void check(const Goal& goal, const Table& table);

/// Whether the table lies so. O(zones).
[[nodiscard]] APSIDON_CORE_EXPORT bool reached(const Goal& goal, const Table& table, const Rulebook& rules);

/// How a game stands.
enum class Standing : std::uint8_t {
  open,
  won,
  lost,
  stuck,  ///< neither won nor lost, and no move is legal
};

/// How it stands by the goals of the rulebook and its legal moves. O(zones + the cost of `any_legal_move`).
[[nodiscard]] APSIDON_CORE_EXPORT Standing standing_of(const Table& table, const Rulebook& rules);

}  // namespace apsidon
