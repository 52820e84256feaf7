#include "apsidon/rules/goal.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"
#include "apsidon/rules/move.hpp"
#include "geometry/options.hpp"
#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {
namespace goal {

Goal all_in(std::vector<ZoneId> zones) { return {.kind = GoalKind::all_in, .zones = std::move(zones)}; }
Goal filled(std::vector<ZoneId> zones) { return {.kind = GoalKind::filled, .zones = std::move(zones)}; }
Goal empty(std::vector<ZoneId> zones) { return {.kind = GoalKind::empty, .zones = std::move(zones)}; }
Goal when(Rule rule) { return {.kind = GoalKind::when, .rule = std::move(rule)}; }

}  // namespace goal

void check(const Goal& goal, const Table& table) {
  if (goal.kind == GoalKind::when) rules_detail::check_without_card(goal.rule, table, "goal");
  const bool of_zones = goal.kind != GoalKind::none && goal.kind != GoalKind::when;
  if (of_zones && goal.zones.empty()) throw Error("goal: it names no zones: at least one is expected");
  for (const ZoneId zone : goal.zones) {
    if (!table.zone(zone)) {
      throw Error(fmt::format("goal: it names zone {}: a zone of the table is expected", zone.value));
    }
  }
}

bool reached(const Goal& goal, const Table& table, const Rulebook& rules) {
  const auto holds = [&](ZoneId zone) { return table.zone(zone) && !table.zone(zone)->cards.empty(); };
  switch (goal.kind) {
    case GoalKind::none:
      return false;
    case GoalKind::all_in: {
      std::size_t cards = 0;
      for (const ZoneId zone : goal.zones) cards += holds(zone) ? table.zone(zone)->cards.size() : 0;
      return cards > 0 && cards == table.card_count();
    }
    case GoalKind::filled:
      return std::all_of(goal.zones.begin(), goal.zones.end(), holds);
    case GoalKind::empty:
      return std::none_of(goal.zones.begin(), goal.zones.end(), holds);
    case GoalKind::when:
      return rules_detail::ask<bool>(goal.rule, rules_detail::Asked(table, rules));
  }
  return false;
}

Standing standing_of(const Table& table, const Rulebook& rules) {
  if (rules.won && reached(*rules.won, table, rules)) return Standing::won;
  if (rules.lost && reached(*rules.lost, table, rules)) return Standing::lost;
  return any_legal_move(table, rules) ? Standing::open : Standing::stuck;
}

}  // namespace apsidon
