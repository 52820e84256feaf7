#include "apsidon/play/where_view.hpp"

#include <algorithm>

#include "play/impl.hpp"

namespace apsidon {

using play_detail::Impl;

Size WhereView::card_size() const { return field_->arrangement.card(); }
bool WhereView::fits() const { return field_->arrangement.fits(); }
const Plan& WhereView::plan() const { return field_->setup().plans[field_->arrangement.plan()]; }

std::optional<Rect> WhereView::area(ZoneId zone) const {
  return field_->table().zone(zone) ? std::optional(field_->arrangement.area(zone)) : std::nullopt;
}

std::optional<Rect> WhereView::drop_area(ZoneId zone) const {
  if (!field_->table().zone(zone)) return std::nullopt;
  return grown(field_->arrangement.area(zone), card_size().width / 2);
}

std::optional<Pose> WhereView::outline(ZoneId zone) const {
  if (!field_->table().zone(zone)) return std::nullopt;
  return field_->arrangement.outline(field_->setup(), zone);
}

std::optional<Pose> WhereView::next_pose(ZoneId zone, bool face_up) const {
  if (!field_->table().zone(zone)) return std::nullopt;
  const LaidCard card{.face_up = face_up, .sideways = field_->setup().rules_of(zone).lays_sideways};
  return field_->arrangement.poses_on_top(field_->setup(), zone, {&card, 1}).front();
}

std::optional<std::size_t> WhereView::insertion_index(ZoneId zone, Vec2 point,
                                                      std::optional<std::size_t> before) const {
  if (!field_->table().zone(zone) || !is_finite(point)) return std::nullopt;
  return field_->arrangement.insertion_index(field_->setup(), zone, point, before, field_->hand.held());
}

bool WhereView::crowded(ZoneId zone) const {
  return field_->table().zone(zone) && field_->arrangement.report(zone).crowded;
}

ZoneBehaviour WhereView::behaviour(ZoneId zone) const {
  return field_->table().zone(zone) ? field_->setup().behaviour_of(zone) : ZoneBehaviour{};
}

Facing WhereView::facing(ZoneId zone) const {
  return field_->table().zone(zone) ? field_->setup().layout_of(zone).facing : Facing::bottom;
}

float WhereView::content(ZoneId zone) const {
  return field_->table().zone(zone) ? field_->arrangement.report(zone).content : 0;
}

float WhereView::offset(ZoneId zone) const {
  return field_->table().zone(zone) ? field_->arrangement.offset(zone) : 0;
}

std::span<const PanelSetup> WhereView::panels() const { return field_->panels.all(); }

std::optional<PanelId> WhereView::find_panel(std::string_view name) const {
  const PanelId panel = field_->panels.find(name);
  return panel ? std::optional(panel) : std::nullopt;
}

std::optional<Rect> WhereView::panel_area(PanelId panel) const {
  const auto areas = field_->arrangement.panel_areas();
  if (!panel || panel.value > areas.size() || areas[panel.value - 1].empty()) return std::nullopt;
  return areas[panel.value - 1];
}

std::optional<Pose> WhereView::neutral_pose(CardId card) const {
  const auto s = field_->table().slot(card);
  return s ? std::optional(field_->arrangement.neutral(*s)) : std::nullopt;
}

std::optional<Pose> WhereView::resting_pose(CardId card) const {
  const auto s = field_->table().slot(card);
  return s ? std::optional(field_->arrangement.resting(*s)) : std::nullopt;
}

std::optional<Pose> WhereView::live_pose(CardId card) const {
  const auto s = field_->table().slot(card);
  return s ? std::optional(field_->traffic.motion().pose(*s)) : std::nullopt;
}

std::optional<Rect> WhereView::run_outline(const Run& run) const {
  const auto cards = field_->table().cards_of(run);
  if (cards.empty()) return std::nullopt;
  Rect box{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const CardId card : cards) {
    const Rect b = bounds(corners(field_->arrangement.resting(field_->slot(card)), card_size()));
    box = {{std::min(box.min.x, b.min.x), std::min(box.min.y, b.min.y)},
           {std::max(box.max.x, b.max.x), std::max(box.max.y, b.max.y)}};
  }
  return box;
}

// A frame is brought up to date by whoever asks first; what can be seen of the playfield stays as it is.
Hit WhereView::hit(Vec2 point) const { return const_cast<Impl*>(field_)->hit(point); }

std::vector<Explained> WhereView::explain(Vec2 point) const {
  std::vector<Explained> out;
  if (!is_finite(point)) return out;
  using Because = Explained::Because;
  const Frame& frame = const_cast<Impl*>(field_)->frame();
  const auto above = field_->over(point);
  if (above && above->panel) out.push_back({*above, Because::answer});
  bool answered = above.has_value();
  for (std::size_t k = frame.items.size(); k-- > 0;) {
    const FrameItem& item = frame.items[k];
    if (item.kind == FrameKind::outline) continue;
    const auto s = field_->table().slot(item.card);
    const bool zoom = item.kind != FrameKind::card;
    const HitShape shape{.pose = s ? field_->traffic.motion().pose(*s) : Pose{},
                         .size = item.size,
                         .corner_radius = frame.corner_radius};
    const bool has = zoom ? bounds(item.corners).contains(point) : contains(shape, point);
    if (!has) continue;
    Because because = answered ? Because::covered : Because::answer;
    if (zoom) because = Because::zoomed;
    if (!zoom && field_->traffic.card(*s).hidden) continue;
    if (!zoom && field_->traffic.card(*s).held) because = Because::held;
    if (!item.clip.contains(point)) because = Because::clipped;
    answered = answered || because == Because::answer;
    out.push_back({{.card = item.card, .zone = item.zone}, because});
  }
  const auto shows = [&](auto what) { return !field_->switches.is_hidden(what); };
  if (const ZoneId zone = field_->arrangement.zone_at(point, shows)) {
    out.push_back({{.zone = zone}, answered ? Because::covered : Because::answer});
    answered = true;
  }
  if (const PanelId panel = field_->arrangement.panel_at(point, shows)) {
    out.push_back({{.panel = panel}, answered ? Because::covered : Because::answer});
  }
  return out;
}

Verdict WhereCalls::scroll_to(ZoneId zone, float offset) {
  return field_->call(ScrollInput{.zone = zone, .offset = offset}).verdict;
}

}  // namespace apsidon
