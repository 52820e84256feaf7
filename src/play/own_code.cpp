#include "play/own_code.hpp"

#include <utility>

namespace apsidon::play_detail {

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
  adopt(behaviour.layout.layout);
}

void OwnCode::adopt(Rule& rule) {
  for (Rule& part : rule.parts) adopt(part);
  adopt(rule.own_rules);
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
