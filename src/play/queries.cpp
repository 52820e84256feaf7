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
  return impl_->insertion_place(id, point, before);
}

/// Among the cards that are not held, where those that are sorted have closed up.
std::size_t Playfield::Impl::insertion_place(ZoneId id, Vec2 point, std::optional<std::size_t> before) const {
  const Zone& zone = *setup.table.zone(id);
  const Layout& layout = setup.places[id.value - 1].layout;
  const bool closes = closed_up[id.value - 1] != 0 || (carry.home == id && setup.rules[id.value - 1].sorts);
  std::vector<LaidCard> there;
  std::vector<Pose> where;
  for (const CardId card_id : zone.cards) {
    const Card& card = *setup.table.card(card_id);
    if (closes && closes_up(card)) continue;
    there.push_back({.face_up = card.face_up, .sideways = card.sideways, .cell = card.cell, .at = card.at});
    where.push_back(rests[slot(card_id)].neutral);
  }
  LayoutInput in = layout_input(id);
  in.cards = there;
  if (there.size() < zone.cards.size()) apsidon::lay_out(layout, in, where);
  return apsidon::insertion_index(layout, in, where, point, before);
}

std::vector<Explained> Playfield::explain(Vec2 point) const {
  std::vector<Explained> out;
  if (!is_finite(point)) return out;
  const Impl& i = *impl_;
  using Because = Explained::Because;
  const Frame& frame = impl_->frame();
  bool answered = false;
  for (std::size_t k = frame.items.size(); k-- > 0;) {
    const FrameItem& item = frame.items[k];
    if (item.kind == FrameKind::outline) continue;
    const auto s = i.setup.table.slot(item.card);
    const bool zoom = item.kind != FrameKind::card;
    const HitShape shape{
        .pose = s ? i.motion.pose(*s) : Pose{}, .size = item.size, .corner_radius = frame.corner_radius};
    const bool has = zoom ? bounds(item.corners).contains(point) : contains(shape, point);
    if (!has) continue;
    Because because = answered ? Because::covered : Because::answer;
    if (zoom) because = Because::zoomed;
    if (!zoom && i.cards[*s].held) because = Because::held;
    if (!item.clip.contains(point)) because = Because::clipped;
    answered = answered || because == Because::answer;
    out.push_back({{.card = item.card, .zone = item.zone}, because});
  }
  if (const ZoneId zone = i.zone_at(point)) {
    out.push_back({{.zone = zone}, answered ? Because::covered : Because::answer});
    answered = true;
  }
  if (const PanelId panel = i.panel_at(point)) {
    out.push_back({{.panel = panel}, answered ? Because::covered : Because::answer});
  }
  return out;
}

std::string_view Playfield::cursor() const {
  const Impl& i = *impl_;
  if (!gate_open()) return "wait";
  if (i.carry.run.count > 0 && i.carry.mode == Impl::Carry::Mode::drag) {
    const bool home = !i.carry.aimed || i.carry.aimed == i.carry.home;
    return aimed_at() || home ? "grabbing" : "not-allowed";
  }
  if (!i.hover.here) return "default";
  const Hit on = impl_->hit(i.hover.at);
  if (on.panel) {
    return i.setup.panels[on.panel.value - 1].kind == PanelKind::button ? "pointer" : "default";
  }
  if (on.card && i.judge_pick(on.card).verdict) return "grab";
  return on.zone && i.setup.handling[on.zone.value - 1].tap != TapKind::none ? "pointer" : "default";
}

std::optional<Rect> Playfield::run_outline(const Run& run) const {
  const auto cards = table().cards_of(run);
  if (cards.empty()) return std::nullopt;
  Rect box{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const CardId card : cards) {
    const Rect b = bounds(corners(impl_->rests[impl_->slot(card)].resting, impl_->solved.card));
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
