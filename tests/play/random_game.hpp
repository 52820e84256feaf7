#pragma once
// Random tables for a player's hand, for tests.
#include "support/tables.hpp"

namespace apsidon::test {

/// The usual random table, with much that hands can do.
inline TableSetup random_game(Random& r) {
  TableSetup setup = random_setup(r);
  const std::size_t zones = setup.table.zones().size();
  const auto other = [&](std::size_t i) {
    return ZoneId{static_cast<std::uint32_t>((i + 1 + r.below(zones - 1)) % zones + 1)};
  };
  for (std::size_t i = 0; i < zones; ++i) {
    const ZoneId id = setup.table.zones()[i].id;
    ZoneRules& rules = setup.rules_of(id);
    ZoneHandling& handling = setup.handling_of(id);
    rules.sorts = r.chance(0.3f);
    rules.exchanges = r.chance(0.7f);
    // What takes by itself gives nothing: else it would take back at once what was dragged from it.
    rules.takes_itself = rules.pick.kind == PickKind::nothing && r.chance(0.5f);
    handling.hover = static_cast<HoverKind>(r.below(3));
    handling.zoom = r.chance(0.3f);
    setup.rules_of(id).inserts = r.chance(0.4f);
    setup.rules_of(id).lays_sideways = setup.layout_of(id).sideways && r.chance(0.5f);
    handling.tap = static_cast<TapKind>(r.below(6));
    if (handling.tap == TapKind::draw) {
      rules.stock = StockRule{.to = other(i), .gives = {r.between(1, 3), 1}, .passes = r.between(0, 3)};
    }
    if (handling.tap == TapKind::flip || r.chance(0.1f)) rules.flip = rule::anything();
    if (handling.tap == TapKind::reorient || r.chance(0.1f)) rules.reorient = rule::anything();
    if (handling.tap == TapKind::flip && r.chance(0.5f)) {
      rules.match = MatchRule{.open = r.between(1, 3), .to = other(i), .seconds = 0.4};
    }
    if (handling.tap == TapKind::draw) rules.takes_itself = false;
    // A card that is covered by hand and uncovered by rule at once is no move.
    rules.flips_uncovered = rules.flip.kind == RuleKind::nothing && r.chance(0.4f);
    if (handling.tap != TapKind::pick && r.chance(0.3f)) handling.double_tap = TapKind::send;
    if (r.chance(0.3f)) handling.flick_to = FlickTargets::anywhere(other(i));
  }
  setup.add_panel({.name = "button", .kind = PanelKind::button});
  setup.plans[0].overlays.push_back({.panel = {1}, .width = {.px = 60}, .height = {.px = 20}});
  return setup;
}

}  // namespace apsidon::test
