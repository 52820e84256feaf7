#pragma once
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

enum class GoalKind : std::uint8_t {
  none,    ///< never reached
  all_in,  ///< every card of the table lies in one of `zones`
  filled,  ///< each of `zones` holds a card
  empty,   ///< none of `zones` holds a card
  own,     ///< a function of the game's says so
};

/// How the table lies when a game is won, or lost.
struct Goal {
  GoalKind kind = GoalKind::none;
  std::vector<ZoneId> zones = {};
  std::vector<std::shared_ptr<const OwnRule>> own_rules = {};  ///< of `own`

  friend bool operator==(const Goal&, const Goal&) = default;
};

namespace goal {
[[nodiscard]] APSIDON_CORE_EXPORT Goal all_in(std::vector<ZoneId> zones);
[[nodiscard]] APSIDON_CORE_EXPORT Goal filled(std::vector<ZoneId> zones);
[[nodiscard]] APSIDON_CORE_EXPORT Goal empty(std::vector<ZoneId> zones);
/// The function is asked without a card; allowed means that the goal is reached. It may not call back into
/// the playfield that asks it.
[[nodiscard]] APSIDON_CORE_EXPORT Goal own(std::string name, RuleFunction reached = {});
}  // namespace goal

/// Throws Error when a goal names no zones, one that is not there, or a function without a name.
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
