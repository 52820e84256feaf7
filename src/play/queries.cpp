// What there is to know of places: areas, outlines, where a card would come to lie.
#include <algorithm>
#include <cmath>

#include "apsidon/layout/insertion.hpp"
#include "play/impl.hpp"

namespace apsidon {

std::optional<Rect> Playfield::area(ZoneId zone) const {
  return table().zone(zone) ? std::optional(impl_->areas[zone.value - 1]) : std::nullopt;
}

std::optional<Rect> Playfield::panel_area(PanelId panel) const {
  if (!panel || panel.value > impl_->panel_areas.size()) return std::nullopt;
  const Rect& area = impl_->panel_areas[panel.value - 1];
  return area.empty() ? std::nullopt : std::optional(area);
}

std::optional<Rect> Playfield::drop_area(ZoneId zone) const {
  if (!table().zone(zone)) return std::nullopt;
  return grown(impl_->areas[zone.value - 1], impl_->solved.card.width / 2);
}

std::optional<Pose> Playfield::outline(ZoneId zone) const {
  return table().zone(zone) ? std::optional(impl_->outline_pose(zone)) : std::nullopt;
}

std::optional<Pose> Playfield::next_pose(ZoneId id, bool face_up) const {
  const Zone* zone = table().zone(id);
  if (!zone) return std::nullopt;
  const std::size_t n = zone->cards.size();
  impl_->fill_laid(*zone);
  impl_->laid[n] = {.face_up = face_up};
  LayoutInput in = impl_->layout_input(id);
  in.cards = {impl_->laid.data(), n + 1};
  const ZonePlace& place = impl_->setup.places[id.value - 1];
  apsidon::lay_out(place.layout, in, {impl_->poses.data(), n + 1});
  Pose pose = impl_->poses[n];
  pose.scale *= place.factor;
  return pose;
}

std::optional<std::size_t> Playfield::insertion_index(ZoneId id, Vec2 point,
                                                      std::optional<std::size_t> before) const {
  const Zone* zone = table().zone(id);
  if (!zone || !is_finite(point)) return std::nullopt;
  const std::size_t n = zone->cards.size();
  impl_->fill_laid(*zone);
  LayoutInput in = impl_->layout_input(id);
  in.cards = {impl_->laid.data(), n};
  for (std::size_t i = 0; i < n; ++i) impl_->poses[i] = impl_->cards[impl_->slot(zone->cards[i])].neutral;
  return apsidon::insertion_index(impl_->setup.places[id.value - 1].layout, in, {impl_->poses.data(), n},
                                  point, before);
}

std::optional<Rect> Playfield::run_outline(const Run& run) const {
  const auto cards = table().cards_of(run);
  if (cards.empty()) return std::nullopt;
  Rect box{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const CardId card : cards) {
    const Rect b = bounds(corners(impl_->cards[impl_->slot(card)].resting, impl_->solved.card));
    box = {{std::min(box.min.x, b.min.x), std::min(box.min.y, b.min.y)},
           {std::max(box.max.x, b.max.x), std::max(box.max.y, b.max.y)}};
  }
  return box;
}

bool Playfield::crowded(ZoneId zone) const {
  return table().zone(zone) && impl_->reports[zone.value - 1].crowded;
}

Facing Playfield::facing(ZoneId zone) const {
  return table().zone(zone) ? impl_->setup.places[zone.value - 1].facing : Facing::bottom;
}

float Playfield::content(ZoneId zone) const {
  return table().zone(zone) ? impl_->reports[zone.value - 1].content : 0;
}

float Playfield::offset(ZoneId zone) const { return table().zone(zone) ? impl_->offsets[zone.value - 1] : 0; }

void Playfield::scroll_to(ZoneId id, float offset) {
  if (!table().zone(id) || !impl_->setup.places[id.value - 1].scrolls) return;
  if (!std::isfinite(offset)) {
    ++impl_->ignored;
    return;
  }
  const std::size_t i = id.value - 1;
  const ZonePlace& place = impl_->setup.places[i];
  const bool turned = place.facing == Facing::left || place.facing == Facing::right;
  const bool downward =
      std::holds_alternative<ColumnLayout>(place.layout) || std::holds_alternative<GridLayout>(place.layout);
  const Rect& area = impl_->areas[i];
  const float length = downward != turned ? area.height() : area.width();
  const float cut = std::clamp(offset, 0.0f, std::max(impl_->reports[i].content - length, 0.0f));
  if (cut == impl_->offsets[i]) return;
  impl_->offsets[i] = cut;
  impl_->lay_out_zone(id, Impl::Change::window);  // content follows the finger at once
  impl_->stale = true;
}

}  // namespace apsidon
