#pragma once
// Where a table names what is in the game's code. Not installed.
#include <algorithm>
#include <memory>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {

// `each_own(thing, with)` shows `with` all rules and goals in code that the thing names, as pointers that may
// be exchanged, each layout in code, and of consequences and named moves the names with their functions.

inline bool in_code(const Rule& rule) {
  return rule.own() || std::any_of(rule.parts().begin(), rule.parts().end(), in_code);
}

template <class With>
void each_own(Rule& rule, With& with) {
  if (auto* own = std::get_if<std::shared_ptr<const OwnRule>>(&rule.by)) with(*own);
  // Parts without code of the game's stay the list that other zones share.
  if (std::none_of(rule.parts().begin(), rule.parts().end(), in_code)) return;
  std::vector<Rule> parts(rule.parts().begin(), rule.parts().end());
  for (Rule& part : parts) each_own(part, with);
  rule.by = SharedList<Rule>(std::move(parts));
}

template <class With>
void each_own(ZoneBehaviour& behaviour, With& with) {
  rules_detail::each_rule(behaviour.rules, [&](Rule& rule) { each_own(rule, with); });
  if (auto* own = std::get_if<CustomLayout>(&behaviour.layout.kind)) with(*own);
}

/// Most zones name nothing: of those no copy is made.
inline bool in_code(const TableSetup& setup, ZoneId zone) {
  bool any = std::holds_alternative<CustomLayout>(setup.layout_of(zone).kind);
  rules_detail::each_rule(setup.rules_of(zone), [&](const Rule& rule) { any = any || in_code(rule); });
  return any;
}

template <class With>
void each_own(TableSetup& setup, With& with) {
  for (const Zone& zone : setup.table.zones()) {
    if (!in_code(setup, zone.id)) continue;
    ZoneBehaviour behaviour = setup.behaviour_of(zone.id);
    each_own(behaviour, with);
    setup.set_behaviour(zone.id, std::move(behaviour));
  }
  each_own(setup.won.rule, with);
  each_own(setup.lost.rule, with);
  for (Consequence& one : setup.consequences) {
    each_own(one.link, with);
    if (!one.name.empty()) with(one.name, one.follow);
  }
  for (NamedMove& move : setup.named_moves) {
    each_own(move.when, with);
    with(move.name, move.does);
  }
}

}  // namespace apsidon::play_detail
