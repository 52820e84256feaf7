#include "play/decides/own_code.hpp"

#include <algorithm>
#include <utility>
#include <vector>

namespace apsidon::play_detail {
namespace {

bool in_code(const Rule& rule) {
  return !rule.own_rules.empty() || std::any_of(rule.parts.begin(), rule.parts.end(), in_code);
}

}  // namespace

void OwnCode::adopt(TableSetup& setup) {
  for (const Zone& zone : setup.table.zones()) {
    ZoneBehaviour behaviour = setup.behaviour_of(zone.id);
    adopt(behaviour);
    setup.set_behaviour(zone.id, std::move(behaviour));
  }
  adopt(setup.won.own_rules);
  adopt(setup.lost.own_rules);
}

void OwnCode::adopt(ZoneBehaviour& behaviour) {
  adopt(behaviour.rules.drop);
  adopt(behaviour.rules.pick.link);
  adopt(behaviour.rules.pick.when);
  adopt(behaviour.layout.kind);
}

void OwnCode::adopt(Rule& rule) {
  adopt(rule.own_rules);
  // Parts without code of the game's stay the list that other zones share.
  if (std::none_of(rule.parts.begin(), rule.parts.end(), in_code)) return;
  std::vector<Rule> parts(rule.parts.begin(), rule.parts.end());
  for (Rule& part : parts) adopt(part);
  rule.parts = std::move(parts);
}

void OwnCode::adopt(std::vector<std::shared_ptr<const OwnRule>>& rules) {
  for (std::shared_ptr<const OwnRule>& own : rules) {
    if (own->judge) {
      rules_.emplace(own->name, own);
    } else if (const auto known = rules_.find(own->name); known != rules_.end()) {
      own = known->second;
    }
  }
}

void OwnCode::adopt(Layout& layout) {
  auto* own = std::get_if<CustomLayout>(&layout);
  if (!own) return;
  if (own->functions) {
    layouts_.emplace(own->name, *own);
  } else if (const auto known = layouts_.find(own->name); known != layouts_.end()) {
    *own = known->second;
  }
}

}  // namespace apsidon::play_detail
