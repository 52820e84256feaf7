#include "apsidon/play/setup.hpp"

#include <fmt/format.h>

#include "apsidon/geometry/error.hpp"

namespace apsidon {

ZoneId TableSetup::add(const ZoneSetup& zone) {
  check(zone.layout);
  check(zone.drop, table.deck());
  check(zone.pick.link, table.deck());
  Table with = table;  // so that a card that cannot be made leaves no half-filled zone behind
  const ZoneId id = with.create_zone({.name = zone.name, .key = zone.key});
  for (const CardOptions& card : zone.cards) with.create_card(id, card);
  places.push_back({.layout = zone.layout,
                    .longest = zone.longest,
                    .facing = zone.facing,
                    .factor = zone.factor,
                    .sideways = zone.sideways,
                    .scrolls = zone.scrolls,
                    .gives_up = zone.gives_up});
  rules.push_back({.pick = zone.pick, .drop = zone.drop});
  table = std::move(with);
  return id;
}

PanelId TableSetup::add_panel(const PanelSetup& panel) {
  if (panel.name.empty()) throw Error("panel: the name is empty: a name is expected");
  if (!(panel.fill >= 0 && panel.fill <= 1)) {
    throw Error(fmt::format("panel '{}': fill is {}: 0 to 1 is expected", panel.name, panel.fill));
  }
  for (const PanelSetup& other : panels) {
    if (other.name == panel.name) {
      throw Error(
          fmt::format("panel '{}': the table has one of that name: a new name is expected", panel.name));
    }
  }
  panels.push_back(panel);
  return {static_cast<std::uint32_t>(panels.size())};
}

PlanNode TableSetup::add_formation(const ZoneSetup& zone, const Formation& formation) {
  TableSetup with = *this;
  std::vector<FormationPlace> slots;
  for (std::size_t i = 0; i < formation.at.size(); ++i) {
    ZoneSetup slot = zone;
    slot.name = zone.name + "-" + formation.names[i];
    slots.push_back({.zone = with.add(slot), .at = formation.at[i]});
  }
  for (const auto& [a, b] : formation.links) with.links.push_back({slots[a].zone, slots[b].zone});
  *this = std::move(with);
  return apsidon::formation(std::move(slots));
}

void check(const TableSetup& setup) {
  const std::size_t zones = setup.table.zones().size();
  if (setup.places.size() != zones || setup.rules.size() != zones) {
    throw Error(fmt::format("table: {} zones with {} places and {} rules: one of each a zone is expected",
                            zones, setup.places.size(), setup.rules.size()));
  }
  if (zones == 0) throw Error("table: no zones: at least one is expected");
  if (setup.plans.empty()) throw Error("table: no plans: at least one is expected");
  for (const Plan& plan : setup.plans) check(plan, setup.places, setup.panels.size());
  for (const ZoneRules& rules : setup.rules) {
    check(rules.drop, setup.table.deck());
    check(rules.pick.link, setup.table.deck());
  }
  if (setup.deal_from && !setup.table.zone(setup.deal_from)) {
    throw Error(fmt::format("table: the deal comes from zone {}: a zone of the table is expected",
                            setup.deal_from.value));
  }
}

}  // namespace apsidon
