#include "layout/solver.hpp"

#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {
namespace {

bool sideways_facing(const ZoneLayout& place) {
  return place.facing == Facing::left || place.facing == Facing::right;
}

LayoutNeed need_of(const ZoneLayout& place) {
  const int cards = place.scrolls ? std::min(place.longest, 1) : place.longest;
  return {.cards = static_cast<std::size_t>(cards),
          .covered = static_cast<std::size_t>(std::min(place.longest_covered, cards)),
          .sideways = place.sideways};
}

Size turned_for(const ZoneLayout& place, Size s) {
  return sideways_facing(place) ? Size{s.height, s.width} : s;
}

Size least_of(const ZoneLayout& place, Size card) {
  return turned_for(place, least_size(place.kind, need_of(place), card * place.factor));
}

Size preferred_of(const ZoneLayout& place, Size card) {
  const LayoutNeed need{.cards = static_cast<std::size_t>(place.longest),
                        .covered = static_cast<std::size_t>(place.longest_covered),
                        .sideways = place.sideways};
  return turned_for(place, layout_detail::preferred_size(place.kind, need, card * place.factor));
}

/// Needs with their growth, unsnapped: what the search for the card works on.
struct Measure {
  std::span<const ZoneLayout> places;
  Size card;
  std::span<const Rect> units;

  Size least(ZoneId zone) const {
    const std::size_t i = zone.value - 1;
    if (units.empty()) return least_of(places[i], card);
    return {units[i].min.x * card.width, units[i].min.y * card.width};
  }

  /// Everything that is in proportion to the card: the slope is the value over the width.
  Grown scaled(float px) const { return {px, card.width > 0 ? px / card.width : 0}; }
  Grown of(const Length& l) const { return {l.cards * card.width + l.px, l.cards}; }
  static Grown sum(Grown a, Grown b) { return {a.px + b.px, a.slope + b.slope}; }
  static Grown larger(Grown a, Grown b) { return a.px > b.px || (a.px == b.px && a.slope > b.slope) ? a : b; }

  Need of(const PlanNode& node) const {
    switch (node.kind) {
      case PlanKind::zone: {
        const Size s = least(node.zone);
        return {scaled(s.width), scaled(s.height)};
      }
      case PlanKind::panel:
        return {of(node.width), of(node.height)};
      case PlanKind::space:
        return {of(node.space), of(node.space)};
      case PlanKind::formation: {
        const Rect e = extent_of(node, places);
        return {scaled(e.width() * card.width), scaled(e.height() * card.height)};
      }
      case PlanKind::layers: {
        Need most;
        for (const PlanNode& part : node.parts) {
          const Need need = of(part);
          most = {larger(most.width, need.width), larger(most.height, need.height)};
        }
        return most;
      }
      case PlanKind::across:
      case PlanKind::down:
        break;
    }
    const bool across = node.kind == PlanKind::across;
    const Grown gap = of(node.gap);
    const float gaps = static_cast<float>(node.parts.size() - 1);
    Grown along{gap.px * gaps, gap.slope * gaps};
    Grown cross;
    for (const PlanNode& part : node.parts) {
      const Need need = of(part);
      along = sum(along, larger(across ? need.width : need.height, of(part.least)));
      if (part.kind != PlanKind::space) cross = larger(cross, across ? need.height : need.width);
    }
    return across ? Need{along, cross} : Need{cross, along};
  }
};

}  // namespace

float factor_of(const PlanNode& formation, std::span<const ZoneLayout> places) {
  float factor = 0;
  for (const FormationSlot& slot : formation.places)
    factor = std::max(factor, places[slot.zone.value - 1].factor);
  return factor;
}

Rect extent_of(const PlanNode& node, std::span<const ZoneLayout> places) {
  const float apart = factor_of(node, places);
  Rect r{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const FormationSlot& slot : node.places) {
    const float half = places[slot.zone.value - 1].factor / 2;
    const Vec2 at = slot.at * apart;
    r.min = {std::min(r.min.x, at.x - half), std::min(r.min.y, at.y - half)};
    r.max = {std::max(r.max.x, at.x + half), std::max(r.max.y, at.y + half)};
  }
  return r;
}

void measure_least(std::span<const ZoneLayout> places, Size card, std::span<Rect> sizes) {
  for (std::size_t i = 0; i < places.size(); ++i) {
    const Size least = least_of(places[i], card);
    sizes[i].min = {least.width, least.height};
  }
}

void measure_zones(std::span<const ZoneLayout> places, Size card, std::span<Rect> sizes) {
  measure_least(places, card, sizes);
  for (std::size_t i = 0; i < places.size(); ++i) {
    const Size preferred = preferred_of(places[i], card);
    sizes[i].max = {preferred.width, preferred.height};
  }
}

Need need_of(const Plan& plan, std::span<const ZoneLayout> places, Size card, std::span<const Rect> units) {
  return Measure{places, card, units}.of(plan.root);
}

}  // namespace apsidon::layout_detail
