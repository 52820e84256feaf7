// The list to draw, back to front, and what a point hits of it.
#include <algorithm>
#include <cmath>
#include <cstring>
#include <numbers>

#include "apsidon/motion/spring.hpp"
#include "geometry/shown.hpp"
#include "play/impl.hpp"

namespace apsidon {
namespace {

// An order is a layer, then two numbers; outlines lie under everything, what is held above everything.
enum class Layer : std::uint64_t { outline, rest, raised, flight, held, zoom };

/// Quicker than number by number, and as good: poses are finite.
bool same_bits(const Pose& a, const Pose& b) { return std::memcmp(&a, &b, sizeof(Pose)) == 0; }

std::uint64_t order_of(Layer layer, std::uint64_t major, std::uint64_t minor) {
  return static_cast<std::uint64_t>(layer) << 60 | (major & 0xFFFFFFF) << 32 | (minor & 0xFFFFFFFF);
}

}  // namespace

std::uint64_t Playfield::Impl::rest_order(ZoneId zone, std::uint64_t place) {
  return order_of(Layer::rest, zone.value, place);
}

std::uint64_t Playfield::Impl::flight_order(std::uint64_t departure) {
  return order_of(Layer::flight, 0, departure);
}

void Playfield::Impl::order_cards() {
  ordered.clear();
  waiting_to_leave = 0;
  for (const Zone& zone : setup.table.zones()) {
    std::uint64_t below = 0;  // what flies to this zone, and will lie below
    for (std::size_t place = 0; place < zone.cards.size(); ++place) {
      const std::size_t s = slot(zone.cards[place]);
      const CardState& state = cards[s];
      std::uint64_t order = rest_order(zone.id, place);
      const bool raised =
          zone.cards[place] == hover.card && setup.handling[zone.id.value - 1].hover != HoverKind::none;
      if (state.held) {
        order = order_of(Layer::held, 0, place);
      } else if (state.departure > 0 && motion.waiting(s)) {
        order = state.waits_at;
        ++waiting_to_leave;
      } else {
        if (state.departure > 0) order = flight_order(state.departure);
        if (raised && state.departure == 0) {
          // It stands above its neighbours, and nothing goes by that.
          ordered.push_back({order_of(Layer::raised, zone.id.value, place), s});
          continue;
        }
        // Nothing that has arrived is overtaken from below by what arrives later.
        order = std::max(order, below);
        below = std::max(below, order >= flight_order(0) ? order : 0);
      }
      ordered.push_back({order, s});
    }
  }
  const auto before = [](const Ordered& a, const Ordered& b) { return a.order < b.order; };
  if (!std::is_sorted(ordered.begin(), ordered.end(), before))
    std::sort(ordered.begin(), ordered.end(), before);
}

void Playfield::Impl::add_outlines() {
  for (const Zone& zone : setup.table.zones()) {
    const bool covered = std::any_of(zone.cards.begin(), zone.cards.end(),
                                     [&](CardId id) { return cards[slot(id)].departure == 0; });
    if (covered) continue;
    const std::size_t i = zone.id.value - 1;
    if (setup.places[i].gives_up && zone.cards.empty()) continue;
    const Pose pose = outline_pose(zone.id);
    drawn.items.push_back({.kind = FrameKind::outline,
                           .zone = zone.id,
                           .size = solved.card,
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, solved.card),
                           .order = order_of(Layer::outline, zone.id.value, 0)});
  }
}

/// What is held or flies shows wherever it is; what rests in a zone that scrolls shows there only.
Rect Playfield::Impl::clip_of(std::size_t s) const {
  const CardState& state = cards[s];
  const std::size_t zone = state.zone.value - 1;
  return setup.places[zone].scrolls && !state.held && state.departure == 0 ? areas[zone] : everywhere;
}

void Playfield::Impl::add_panels() {
  std::size_t shown = 0;
  const auto add = [&](PanelId id, bool overlay) {
    const Rect& area = panel_areas[id.value - 1];
    if (area.empty()) return;
    if (drawn.panels.size() == shown) drawn.panels.emplace_back();
    const PanelSetup& panel = setup.panels[id.value - 1];
    FramePanel& to = drawn.panels[shown++];  // what stands there already keeps its storage
    to.panel = id;
    to.area = area;
    to.overlay = overlay;
    to.kind = panel.kind;
    to.text = panel.text;
    to.fill = panel.fill;
    to.focus = false;
  };
  const std::vector<Overlay>& overlays = setup.plans[*plan].overlays;
  for (std::uint32_t i = 1; i <= panel_areas.size(); ++i) {
    const bool over =
        std::any_of(overlays.begin(), overlays.end(), [&](const Overlay& o) { return o.panel.value == i; });
    if (!over) add({i}, false);
  }
  for (const Overlay& overlay : overlays) add(overlay.panel, true);
  drawn.panels.resize(shown);
}

void Playfield::Impl::add_card(std::uint64_t order, std::size_t s) {
  const CardState& state = cards[s];
  drawn.items.push_back(
      {.kind = FrameKind::card,
       .card = state.id,
       .zone = setup.table.card(state.id)->zone,
       .size = solved.card,
       .clip = clip_of(s),
       .marks = {.held = state.picked, .hovered = state.id == hover.card, .locked = state.locked},
       .order = order});
  show_pose(drawn.items.back(), s, geometry_detail::sin_cos(motion.pose(s).rotation));
  if (state.id == hover.zoomed && options.hover.zoomed != ZoomedLook::shown) {
    drawn.items.back().opacity *= options.hover.zoomed == ZoomedLook::hidden ? 0 : 0.45f;
  }
}

/// Draws anew the cards whose poses have changed: their sines and cosines some at once, for one after another
/// each would wait for the last.
void Playfield::Impl::show_moved() {
  constexpr std::size_t block = 16;
  std::array<std::size_t, block> at{};
  float turns[block] = {};
  float sines[block];
  float cosines[block];
  std::size_t n = 0;
  const auto flush = [&] {
    for (std::size_t k = 0; k < block; ++k) {
      const auto [sine, cosine] = geometry_detail::sin_cos_of_turns(turns[k]);
      sines[k] = sine;
      cosines[k] = cosine;
    }
    for (std::size_t k = 0; k < n; ++k) {
      show_pose(drawn.items[first_card + at[k]], ordered[at[k]].slot, {sines[k], cosines[k]});
    }
    n = 0;
  };
  for (std::size_t i = 0; i < ordered.size(); ++i) {
    const Pose& pose = motion.pose(ordered[i].slot);
    if (same_bits(pose, drawn_poses[i])) continue;
    drawn_poses[i] = pose;
    at[n] = i;
    turns[n] = geometry_detail::turns_of(pose.rotation);
    ++hits_moved;
    if (++n == block) flush();
  }
  flush();
}

/// All of an item that changes while its card moves.
void Playfield::Impl::show_pose(FrameItem& item, std::size_t s, geometry_detail::SinCos rotation) {
  const Pose& pose = motion.pose(s);
  const bool flat = pose.flip == 0 || pose.flip == std::numbers::pi_v<float>;
  const bool face = flat ? pose.flip == 0 : shows_face(pose.flip);
  if (flat) {
    geometry_detail::show_flat(pose, solved.card, rotation, item.matrix, item.corners);
  } else {
    geometry_detail::show(pose, solved.card, item.matrix, item.corners);
  }
  item.face = face ? setup.table.card(item.card)->face : hidden_face;
  item.back = !face;
  item.opacity = pose.opacity;
  item.brightness = pose.brightness;
  item.lift = pose.lift;
  item.marks.refused = motion.has_effect(s, EffectKind::swing);
}

/// Translucent copies of what is dragged, where the pointer has it.
void Playfield::Impl::add_copies() {
  if (carry.run.count == 0 || carry.mode != Carry::Mode::drag || options.drag.look != DragLook::copy) return;
  const Vec2 first = cards[slot(carry.run.first)].neutral.centre;
  std::uint64_t n = 0;
  for (const CardId id : setup.table.cards_of(carry.run)) {
    const CardState& state = cards[slot(id)];
    Pose pose = state.resting;
    pose.centre = carried_middle(carry.pointer) + (state.neutral.centre - first);
    pose.rotation = 0;
    const Card& card = *setup.table.card(id);
    const bool face = shows_face(pose.flip);
    drawn.items.push_back({.kind = FrameKind::copy,
                           .card = id,
                           .zone = card.zone,
                           .face = face ? card.face : hidden_face,
                           .back = !face,
                           .size = solved.card,
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, solved.card),
                           .opacity = options.drag.copy_opacity,
                           .lift = options.feel.carry_lift,
                           .marks = {.held = true},
                           .order = order_of(Layer::held, 1, n++)});
  }
}

/// The larger picture of a card, growing out of it.
void Playfield::Impl::add_zoom() {
  const Card* card = setup.table.card(hover.zoomed);
  if (!card || solved.card.empty()) return;
  const Rect place = zoom_place(card->id);
  if (place.empty()) return;
  const Glide& glide = options.feel.zoom;
  const float since = static_cast<float>(own_now() - hover.zoomed_at);
  float share = 1;
  if (glide.spring) {
    share = 1 - shares_of(*glide.spring, since).of_distance;
  } else if (since < glide.seconds) {
    share = glide.curve.value(since / glide.seconds);
  }
  const Pose& from = cards[slot(card->id)].resting;
  Pose pose{.centre = from.centre + (place.centre() - from.centre) * share};
  const float size = place.width() / solved.card.width;
  pose.scale = std::max(from.scale + (size - from.scale) * share, 0.0f);
  drawn.items.push_back({.kind = FrameKind::zoom,
                         .card = card->id,
                         .zone = card->zone,
                         .face = card->face_up ? card->face : hidden_face,
                         .back = !card->face_up,
                         .size = solved.card,
                         .matrix = matrix_of(pose),
                         .corners = corners(pose, solved.card),
                         .opacity = std::clamp(share * 2, 0.0f, 1.0f),
                         .lift = 0.6f,
                         .order = order_of(Layer::zoom, 0, 0)});
}

/// Whether the picture of a zoom still grows.
bool Playfield::Impl::zooming() const {
  if (!hover.zoomed) return false;
  const Glide& glide = options.feel.zoom;
  const double takes =
      glide.spring ? double{settle_seconds(*glide.spring, 1, 0, 1e-3f)} : double{glide.seconds};
  return own_now() - hover.zoomed_at <= takes + 1e-3;
}

void Playfield::Impl::mark_focus() {
  if (focus == Hit{}) return;
  for (FrameItem& item : drawn.items) {
    const bool on = focus.card ? item.card == focus.card && item.kind == FrameKind::card
                               : focus.zone && item.zone == focus.zone && item.kind == FrameKind::outline;
    item.marks.focus = on;
  }
  for (FramePanel& panel : drawn.panels) panel.focus = focus.panel && panel.panel == focus.panel;
}

const Frame& Playfield::Impl::frame() {
  // While cards only move, what is drawn keeps its order, and only they are drawn anew.
  const bool same_order = !stale && waiting_to_leave == 0 && !hover.zoomed;
  if (motion.revision() != seen_motion || (zooming() && own_now() != zoom_drawn)) stale = true;
  if (!stale) return drawn;
  stale = false;
  seen_motion = motion.revision();
  zoom_drawn = own_now();
  ++drawn.revision;
  if (same_order) {
    show_moved();
    return drawn;
  }
  hits_stale = true;
  drawn.window = options.window;
  drawn.pixel_ratio = options.pixel_ratio;
  drawn.card = solved.card;
  drawn.corner_radius = options.corner_radius * solved.card.width;
  drawn.items.clear();
  add_panels();
  add_outlines();
  order_cards();
  first_card = drawn.items.size();
  drawn_poses.clear();
  for (const Ordered& o : ordered) {
    add_card(o.order, o.slot);
    drawn_poses.push_back(motion.pose(o.slot));
  }
  add_copies();
  add_zoom();

  // A target is marked where a card would come to lie: on its top card, or its outline.
  for (const ZoneId id : carry.targets) {
    const CardId top = setup.table.top(id).value_or(CardId{});
    for (FrameItem& item : drawn.items) {
      if (item.zone != id || item.card != top || item.kind == FrameKind::zoom) continue;
      item.marks.legal_target = true;
      item.marks.aimed_at = id == carry.aimed;
    }
  }
  mark_focus();
  return drawn;
}

void Playfield::Impl::refresh_hits() {
  frame();
  if (!hits_stale && hits_moved > 0) {
    // What is in the index is all of `ordered`, or it is made anew.
    hits_stale = hits.size() != ordered.size();
    if (!hits_stale) move_hits();
    hits_moved = 0;
  }
  if (!hits_stale) return;
  hits_stale = false;
  hits_moved = 0;
  hits.clear();
  hit_poses = drawn_poses;
  for (const Ordered& o : ordered) {
    if (cards[o.slot].held) continue;
    hits.add({.pose = motion.pose(o.slot),
              .size = solved.card,
              .corner_radius = drawn.corner_radius,
              .clip = clip_of(o.slot)},
             cards[o.slot].id.value);
  }
}

/// The shapes whose poses have changed: all at once where they are many.
void Playfield::Impl::move_hits() {
  if (hits_moved * 16 > drawn_poses.size()) {
    hit_poses = drawn_poses;
    return hits.move(0, hit_poses);
  }
  for (std::size_t i = 0; i < drawn_poses.size(); ++i) {
    if (same_bits(hit_poses[i], drawn_poses[i])) continue;
    hit_poses[i] = drawn_poses[i];
    hits.move(i, hit_poses[i]);
  }
}

Hit Playfield::Impl::hit(Vec2 point) {
  refresh_hits();
  if (const auto tag = hits.topmost(point)) {
    const CardId id{*tag};
    return {.card = id, .zone = setup.table.card(id)->zone};
  }
  const ZoneId zone = zone_at(point);
  return {.zone = zone, .panel = zone ? PanelId{} : panel_at(point)};
}

}  // namespace apsidon
