#include "apsidon/play/where_group.hpp"

#include <algorithm>

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

using play_detail::Impl;

Size WhereGroup::card_size() const { return field()->arrangement.card(); }
bool WhereGroup::fits() const { return field()->arrangement.fits(); }
const Plan& WhereGroup::plan() const { return field()->setup().plans[field()->arrangement.plan()]; }

std::optional<Rect> WhereGroup::area(ZoneId zone) const {
  return field()->table().zone(zone) ? std::optional(field()->arrangement.area(zone)) : std::nullopt;
}

std::optional<Rect> WhereGroup::drop_area(ZoneId zone) const {
  if (!field()->table().zone(zone)) return std::nullopt;
  return grown(field()->arrangement.area(zone), card_size().width / 2);
}

std::optional<Pose> WhereGroup::outline(ZoneId zone) const {
  if (!field()->table().zone(zone)) return std::nullopt;
  return field()->arrangement.outline(field()->setup(), zone);
}

std::optional<Pose> WhereGroup::next_pose(ZoneId zone, bool face_up) const {
  if (!field()->table().zone(zone)) return std::nullopt;
  const int cell =
      rules_detail::cell_of_seat(field()->table(), field()->referee.plain_rulebook(), {.to = zone});
  const LaidCard card{
      .face_up = face_up, .sideways = field()->setup().rules_of(zone).lays_sideways, .cell = cell};
  return field()->arrangement.poses_on_top(field()->setup(), zone, {&card, 1}).front();
}

std::optional<std::size_t> WhereGroup::insertion_index(ZoneId zone, Vec2 point,
                                                       std::optional<std::size_t> before) const {
  if (!field()->table().zone(zone) || !is_finite(point)) return std::nullopt;
  return field()->arrangement.insertion_index(field()->setup(), zone, point, before, field()->hand.held());
}

bool WhereGroup::crowded(ZoneId zone) const {
  return field()->table().zone(zone) && field()->arrangement.report(zone).crowded;
}

ZoneBehaviour WhereGroup::behaviour(ZoneId zone) const {
  return field()->table().zone(zone) ? field()->setup().behaviour_of(zone) : ZoneBehaviour{};
}

Facing WhereGroup::facing(ZoneId zone) const {
  return field()->table().zone(zone) ? field()->arrangement.facing(field()->setup(), zone) : Facing::bottom;
}

float WhereGroup::content(ZoneId zone) const {
  return field()->table().zone(zone) ? field()->arrangement.report(zone).content : 0;
}

float WhereGroup::offset(ZoneId zone) const {
  return field()->table().zone(zone) ? field()->arrangement.offset(zone) : 0;
}

std::span<const PanelSetup> WhereGroup::panels() const { return field()->panels.all(); }

std::optional<PanelId> WhereGroup::find_panel(std::string_view name) const {
  const PanelId panel = field()->panels.find(name);
  return panel ? std::optional(panel) : std::nullopt;
}

std::optional<Rect> WhereGroup::panel_area(PanelId panel) const {
  const auto areas = field()->arrangement.panel_areas();
  if (!panel || panel.value > areas.size() || areas[panel.value - 1].empty()) return std::nullopt;
  return areas[panel.value - 1];
}

std::optional<Pose> WhereGroup::neutral_pose(CardId card) const {
  const auto s = field()->table().slot(card);
  return s ? std::optional(field()->arrangement.neutral(*s)) : std::nullopt;
}

std::optional<Pose> WhereGroup::resting_pose(CardId card) const {
  const auto s = field()->table().slot(card);
  return s ? std::optional(field()->arrangement.resting(*s)) : std::nullopt;
}

bool WhereGroup::on_its_way(CardId card) const {
  const auto slot = field()->table().slot(card);
  return slot && !field()->hand.has(card) && field()->traffic.motion().on_its_way(*slot);
}

std::optional<Pose> WhereGroup::live_pose(CardId card) const {
  const auto s = field()->table().slot(card);
  return s ? std::optional(field()->traffic.motion().pose(*s)) : std::nullopt;
}

std::optional<Rect> WhereGroup::run_outline(const Run& run) const {
  const auto cards = field()->table().cards_of(run);
  if (cards.empty()) return std::nullopt;
  Rect box{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const CardId card : cards) {
    const Rect b = bounds(corners(field()->arrangement.resting(field()->slot(card)), card_size()));
    box = {{std::min(box.min.x, b.min.x), std::min(box.min.y, b.min.y)},
           {std::max(box.max.x, b.max.x), std::max(box.max.y, b.max.y)}};
  }
  return box;
}

// A frame is brought up to date by whoever asks first; what can be seen of the playfield stays as it is.
Hit WhereGroup::hit(Vec2 point) const { return const_cast<Impl*>(field())->hit(point); }

std::vector<Explained> WhereGroup::explain(Vec2 point) const {
  std::vector<Explained> out;
  if (!is_finite(point)) return out;
  using Because = Explained::Because;
  const Frame& frame = const_cast<Impl*>(field())->frame();
  const auto above = field()->over(point);
  if (above && above->panel) out.push_back({*above, Because::answer});
  bool answered = above.has_value();
  for (std::size_t k = frame.items.size(); k-- > 0;) {
    const FrameItem& item = frame.items[k];
    if (item.kind == FrameKind::outline) continue;
    const auto s = field()->table().slot(item.card);
    const bool zoom = item.kind != FrameKind::card;
    const HitShape shape{.pose = s ? field()->traffic.motion().pose(*s) : Pose{},
                         .size = item.size,
                         .corner_radius = frame.corner_radius};
    const bool has = zoom ? bounds(item.corners).contains(point) : contains(shape, point);
    if (!has) continue;
    Because because = answered ? Because::covered : Because::answer;
    if (zoom) because = Because::zoomed;
    if (!zoom && field()->traffic.card(*s).hidden) continue;
    if (!zoom && field()->traffic.card(*s).held) because = Because::held;
    if (!item.clip.contains(point)) because = Because::clipped;
    answered = answered || because == Because::answer;
    out.push_back({{.card = item.card, .zone = item.zone}, because});
  }
  const auto shows = [&](auto what) { return !field()->switches.is_hidden(what); };
  if (const ZoneId zone = field()->arrangement.zone_at(point, shows)) {
    out.push_back({{.zone = zone}, answered ? Because::covered : Because::answer});
    answered = true;
  }
  if (const PanelId panel = field()->arrangement.panel_at(point, shows)) {
    out.push_back({{.panel = panel}, answered ? Because::covered : Because::answer});
  }
  return out;
}

Verdict WhereGroup::scroll_to(ZoneId zone, float offset) {
  return field()->call(ScrollInput{.zone = zone, .offset = offset}).verdict;
}

}  // namespace apsidon
