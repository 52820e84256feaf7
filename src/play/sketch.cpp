// How a playfield shows itself to a programmer.
#include <fmt/format.h>

#include <algorithm>

#include "apsidon/play/playfield.hpp"
#include "play/impl.hpp"

namespace apsidon {
namespace {

/// Layouts in which cards lie in an order that can be inserted into, and cover one another from one end on.
bool has_strips(const Layout& layout) {
  return std::holds_alternative<ColumnLayout>(layout) || std::holds_alternative<HandLayout>(layout) ||
         std::holds_alternative<SpreadLayout>(layout);
}

/// Cards of a zone that lie apart: the last few of a spread, all of the others.
std::span<const CardId> spread_out(const Zone& zone, const Layout& layout) {
  const auto* spread = std::get_if<SpreadLayout>(&layout);
  const std::size_t n = zone.cards.size();
  const std::size_t last = spread && spread->last > 0 ? static_cast<std::size_t>(spread->last) : n;
  return std::span(zone.cards).last(std::min(last, n));
}

}  // namespace

/// A line along each strip, from the corner of one card to that of the next, and the narrowest as a number.
void Playfield::Impl::sketch_strips(Sketch& sketch, const Zone& zone) const {
  const Layout& layout = setup.places[zone.id.value - 1].layout;
  const std::span<const CardId> apart = spread_out(zone, layout);
  if (!has_strips(layout) || apart.size() < 2) return;
  float narrowest = 1e30f;
  Vec2 where;
  for (std::size_t i = 0; i + 1 < apart.size(); ++i) {
    const Vec2 from = corners(rests[slot(apart[i])].neutral, solved.card).corners[0];
    const Vec2 to = corners(rests[slot(apart[i + 1])].neutral, solved.card).corners[0];
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
void Playfield::Impl::sketch_insertion(Sketch& sketch, const Zone& zone) const {
  const std::span<const CardId> apart = spread_out(zone, setup.places[zone.id.value - 1].layout);
  if (!has_strips(setup.places[zone.id.value - 1].layout) || apart.empty()) return;
  const auto middle = [&](std::size_t i) { return rests[slot(apart[i])].neutral.centre; };
  const std::size_t n = apart.size();
  const Vec2 step = n > 1 ? middle(1) - middle(0) : Vec2{};
  const Vec2 last_step = n > 1 ? middle(n - 1) - middle(n - 2) : Vec2{};
  sketch.point("insertion", middle(0) - step * 0.5f);
  for (std::size_t i = 0; i + 1 < n; ++i) sketch.point("insertion", (middle(i) + middle(i + 1)) * 0.5f);
  sketch.point("insertion", middle(n - 1) + last_step * 0.5f);
}

void Playfield::sketch(Sketch& sketch) const {
  const Impl& field = *impl_;
  for (std::size_t i = 0; i < field.panel_areas.size(); ++i) {
    const Rect& area = field.panel_areas[i];
    if (area.empty()) continue;
    sketch.box("panels", area);
    sketch.label("panels", area.min, field.setup.panels[i].name);
  }
  for (const Zone& zone : table().zones()) {
    const Rect& area = field.areas[zone.id.value - 1];
    sketch.box("areas", area);
    for (const CardId card : zone.cards) {
      const std::size_t s = field.slot(card);
      sketch.quad("hits", corners(field.motion.pose(s), field.solved.card));
      sketch.point("neutral", field.rests[s].neutral.centre);
    }
    field.sketch_strips(sketch, zone);
    field.sketch_insertion(sketch, zone);
  }
  // Words last, so that no line crosses them.
  for (const Zone& zone : table().zones()) {
    for (const CardId card : zone.cards) {
      const auto q = corners(field.rests[field.slot(card)].neutral, field.solved.card).corners;
      sketch.label("ids", q[0] + (q[1] - q[0]) * 0.55f, fmt::format("{}", card.value));
    }
    sketch.label("areas", field.areas[zone.id.value - 1].min, zone.name);
  }
}

}  // namespace apsidon
