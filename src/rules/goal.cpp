#include "apsidon/rules/goal.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"
#include "apsidon/rules/move.hpp"
#include "geometry/options.hpp"
#include "rules/inside.hpp"

namespace apsidon {
namespace goal {

Goal all_in(std::vector<ZoneId> zones) { return {.kind = GoalKind::all_in, .zones = std::move(zones)}; }
Goal filled(std::vector<ZoneId> zones) { return {.kind = GoalKind::filled, .zones = std::move(zones)}; }
Goal empty(std::vector<ZoneId> zones) { return {.kind = GoalKind::empty, .zones = std::move(zones)}; }
Goal own(std::string name, RuleFunction reached) {
  Goal g{.kind = GoalKind::own};
  g.own_rules.push_back(std::make_shared<const OwnRule>(OwnRule{std::move(name), std::move(reached)}));
  return g;
}

}  // namespace goal

void check(const Goal& goal, const Table& table) {
  if (goal.kind == GoalKind::own &&
      (goal.own_rules.size() != 1 || !goal.own_rules[0] || goal.own_rules[0]->name.empty())) {
    throw Error("goal: a function of the game's has no name: one is expected");
  }
  if (goal.kind == GoalKind::own) geometry_detail::check_name("goal: name", goal.own_rules[0]->name);
  const bool of_zones = goal.kind != GoalKind::none && goal.kind != GoalKind::own;
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
    case GoalKind::own: {
      const OwnRule& own = *goal.own_rules.front();
      const RuleQuestion question{.table = table};
      if (rules.own) return rules.own->answer(own, question).allowed();
      return own.answer(question).allowed();
    }
  }
  return false;
}

Standing standing_of(const Table& table, const Rulebook& rules) {
  if (rules.won && reached(*rules.won, table, rules)) return Standing::won;
  if (rules.lost && reached(*rules.lost, table, rules)) return Standing::lost;
  return any_legal_move(table, rules) ? Standing::open : Standing::stuck;
}

}  // namespace apsidon
