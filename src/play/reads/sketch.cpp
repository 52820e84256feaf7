// How a playfield shows itself to a programmer.
#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/sketch.hpp"
#include "apsidon/play/where_group.hpp"
#include "play/order/impl.hpp"

namespace apsidon {
namespace {

/// Cards of a zone that lie apart.
std::span<const CardId> spread_out(const Zone& zone, const LayoutTraits& traits) {
  const std::size_t n = zone.cards.size();
  return std::span(zone.cards).last(traits.apart > 0 ? std::min(traits.apart, n) : n);
}

using play_detail::Impl;

const Pose& neutral(const Impl& field, CardId card) { return field.arrangement.neutral(field.slot(card)); }

/// A line along each strip, from the corner of one card to that of the next, and the narrowest as a number.
void sketch_strips(const Impl& field, Sketch& sketch, const Zone& zone) {
  const LayoutTraits traits = traits_of(field.setup().layout_of(zone.id).kind);
  const Size size = field.arrangement.card();
  const std::span<const CardId> apart = spread_out(zone, traits);
  if (!traits.strips || apart.size() < 2) return;
  float narrowest = 1e30f;
  Vec2 where;
  for (std::size_t i = 0; i + 1 < apart.size(); ++i) {
    const Vec2 from = corners(neutral(field, apart[i]), size).corners[0];
    const Vec2 to = corners(neutral(field, apart[i + 1]), size).corners[0];
    sketch.line("strips", from, to);
    if (length(to - from) < narrowest) {
      narrowest = length(to - from);
      where = to;
    }
  }
  sketch.label("strips", where, fmt::format("{:.1f} px", narrowest));
}

/// The middles between neighbours, where the insertion index changes from one to the next, and half a step
/// before the first and after the last.
void sketch_insertion(const Impl& field, Sketch& sketch, const Zone& zone) {
  const LayoutTraits traits = traits_of(field.setup().layout_of(zone.id).kind);
  const std::span<const CardId> apart = spread_out(zone, traits);
  if (traits.inserts != Inserts::in_line || apart.empty()) return;
  const auto middle = [&](std::size_t i) { return neutral(field, apart[i]).centre; };
  const std::size_t n = apart.size();
  const Vec2 step = n > 1 ? middle(1) - middle(0) : Vec2{};
  const Vec2 last_step = n > 1 ? middle(n - 1) - middle(n - 2) : Vec2{};
  sketch.point("insertion", middle(0) - step * 0.5f);
  for (std::size_t i = 0; i + 1 < n; ++i) sketch.point("insertion", (middle(i) + middle(i + 1)) * 0.5f);
  sketch.point("insertion", middle(n - 1) + last_step * 0.5f);
}

}  // namespace

Sketch WhereGroup::sketch() const {
  Sketch sketch;
  const Impl& field = *this->field();
  const Size size = field.arrangement.card();
  const auto panel_areas = field.arrangement.panel_areas();
  for (std::size_t i = 0; i < panel_areas.size(); ++i) {
    if (panel_areas[i].empty()) continue;
    sketch.box("panels", panel_areas[i]);
    sketch.label("panels", panel_areas[i].min, field.panels.all()[i].name);
  }
  for (const Zone& zone : field.table().zones()) {
    sketch.box("areas", field.arrangement.area(zone.id));
    for (const CardId card : zone.cards) {
      sketch.quad("hits", corners(field.traffic.motion().pose(field.slot(card)), size));
      sketch.point("neutral", neutral(field, card).centre);
    }
    sketch_strips(field, sketch, zone);
    sketch_insertion(field, sketch, zone);
  }
  // Words last, so that no line crosses them.
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards) {
      const auto q = corners(neutral(field, card), size).corners;
      sketch.label("ids", q[0] + (q[1] - q[0]) * 0.55f, fmt::format("{}", card.value));
    }
    sketch.label("areas", field.arrangement.area(zone.id).min, zone.name);
  }
  return sketch;
}

}  // namespace apsidon
