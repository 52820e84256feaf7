// The list to draw, back to front.
#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "apsidon/motion/spring.hpp"
#include "geometry/prefetch.hpp"
#include "geometry/shown.hpp"
#include "play/impl.hpp"
#include "play/layers.hpp"

namespace apsidon {
namespace {

constexpr std::size_t card_block = 16;
/// How far ahead the memory of items is asked for: as far as it takes to arrive.
constexpr std::size_t items_ahead = 24;

}  // namespace

void Playfield::Impl::add_outlines() {
  for (const Zone& zone : setup.table.zones()) {
    const std::size_t i = zone.id.value - 1;
    if (covered[i]) continue;
    if (setup.places[i].gives_up && zone.cards.empty()) continue;
    const Pose pose = outline_pose(zone.id);
    next_item() = {.kind = FrameKind::outline,
                   .zone = zone.id,
                   .size = solved.card,
                   .order = order_of(Layer::outline, zone.id.value, 0),
                   .matrix = matrix_of(pose),
                   .corners = corners(pose, solved.card)};
  }
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

/// All cards in their order. What was drawn at the same place before lies there as it did; the others are
/// still to be drawn.
void Playfield::Impl::add_cards(bool all_anew) {
  const bool shifted = std::exchange(first_card, items_used) != items_used;
  const bool other_looks = refresh_looks();
  const bool other_clips = refresh_clips();
  if (drawn.items.size() < items_used + ordered.size()) drawn.items.resize(items_used + ordered.size());
  for (const Ordered& was : ordered_before) item_of[was.slot] = no_item;
  anew.assign(cards.size(), 0);
  const bool none_kept = all_anew || shifted || other_looks || other_clips;
  for (std::size_t i = 0; i < ordered.size(); ++i) {
    const Ordered& o = ordered[i];
    item_of[o.slot] = static_cast<std::uint32_t>(items_used);
    geometry_detail::will_write(&drawn.items[std::min(items_used + items_ahead, drawn.items.size() - 1)]);
    FrameItem& item = drawn.items[items_used++];
    const bool kept = !none_kept && i < ordered_before.size() && ordered_before[i].slot == o.slot;
    if (kept && ordered_before[i].shows_as(o)) continue;
    const Looks& look = looks[o.slot];
    item.order = o.order;
    item.clip = o.away ? everywhere : clips[look.zone.value - 1];
    if (kept) continue;
    anew[o.slot] = 1;
    item.kind = FrameKind::card;
    item.back = look.back;
    item.marks = {};
    item.card = look.card;
    item.zone = look.zone;
    item.face = look.face;
    item.size = solved.card;
    item.brightness = look.brightness;
  }
}

/// What the table says of the looks of cards, when it has changed; returns whether it has.
bool Playfield::Impl::refresh_looks() {
  if (std::exchange(table_drawn, setup.table.revision()) == setup.table.revision()) return false;
  looks.resize(cards.size());
  item_of.resize(cards.size(), no_item);
  for (const Ordered& o : ordered) looks[o.slot] = looks_of(o.slot);
  return true;
}

Playfield::Impl::Looks Playfield::Impl::looks_of(std::size_t s) const {
  const Pose& pose = motion.pose(s);
  const bool back = !geometry_detail::shows_its_face(pose.flip);
  const Card& card = *setup.table.card(cards[s].id);
  return {card.id, card.zone, back ? hidden_face : card.face, pose.brightness, back};
}

/// Where the cards of each zone show; returns whether that has changed.
bool Playfield::Impl::refresh_clips() {
  bool changed = clips.size() != areas.size();
  clips.resize(areas.size());
  for (std::size_t i = 0; i < clips.size(); ++i) {
    const Rect clip = setup.places[i].scrolls ? areas[i] : everywhere;
    changed = changed || clip != clips[i];
    clips[i] = clip;
  }
  return changed;
}

/// The card whose larger picture shows may be dimmed or hidden meanwhile.
void Playfield::Impl::dim_zoomed() {
  if (!hover.zoomed || options.hover.zoomed == ZoomedLook::shown) return;
  float& opacity = drawn.items[item_of[slot(hover.zoomed)]].opacity;
  opacity *= options.hover.zoomed == ZoomedLook::hidden ? 0 : 0.45f;
  dimmed = true;
}

/// The next item of the frame; what stood there before keeps nothing.
FrameItem& Playfield::Impl::next_item() {
  if (items_used == drawn.items.size()) drawn.items.emplace_back();
  return drawn.items[items_used++];
}

/// Draws anew the cards whose poses have changed.
void Playfield::Impl::show_moved() {
  for (std::size_t part = 0; part < motion.moved_parts(); ++part) {
    const std::span<const std::uint32_t> moved = motion.moved(part);
    // Which of them is told to the hit index while they are few.
    for (std::size_t i = 0; i < moved.size() && !many_moved(); ++i) {
      const std::uint32_t item = item_of[moved[i]];
      if (item != no_item) hits_moved.push_back(item - static_cast<std::uint32_t>(first_card));
    }
    for (std::size_t i = 0; i < moved.size(); i += card_block) {
      show(moved.subspan(i, std::min(card_block, moved.size() - i)));
    }
  }
}

/// How some cards lie and look, at most `card_block`: their sines and cosines at once, for one after another
/// each would wait for the last.
void Playfield::Impl::show(std::span<const std::uint32_t> slots) {
  FrameItem* const items = drawn.items.data();
  const std::uint32_t* const item_at = item_of.data();
  const Pose* const live = motion.poses().data();
  const geometry_detail::FlatCard flat(solved.card);
  float turns[card_block] = {};
  geometry_detail::SinCos rotations[card_block];
  for (std::size_t k = 0; k < slots.size(); ++k) {
    turns[k] = geometry_detail::turns_of(live[slots[k]].rotation);
  }
  for (std::size_t k = 0; k < card_block; ++k) rotations[k] = geometry_detail::sin_cos_of_turns(turns[k]);
  std::size_t tilted = 0;
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const std::uint32_t s = slots[k];
    const std::uint32_t at = item_at[s];
    if (at == no_item) continue;
    const Pose& pose = live[s];
    FrameItem& item = items[at];
    item.opacity = pose.opacity;
    item.lift = pose.lift;
    anew[s] = 0;
    if (!geometry_detail::lies_flat(pose.flip)) {
      ++tilted;
      continue;
    }
    flat.show(pose, rotations[k], item.matrix, item.corners);
    if (pose.brightness != looks[s].brightness || (pose.flip != 0) != looks[s].back) show_looks(item, s);
  }
  if (tilted > 0) show_tilted(slots, rotations);
}

/// Those of a block that turn over.
void Playfield::Impl::show_tilted(std::span<const std::uint32_t> slots,
                                  std::span<const geometry_detail::SinCos> rotations) {
  const geometry_detail::TiltedCard tilted(solved.card);
  float turns[card_block] = {};
  float axis_turns[card_block] = {};
  geometry_detail::SinCos tilts[card_block];
  geometry_detail::SinCos axes[card_block];
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const Pose& pose = motion.pose(slots[k]);
    turns[k] = geometry_detail::turns_of(geometry_detail::tilt(pose.flip));
    axis_turns[k] = geometry_detail::turns_of(pose.flip_axis);
  }
  for (std::size_t k = 0; k < card_block; ++k) tilts[k] = geometry_detail::sin_cos_of_turns(turns[k]);
  for (std::size_t k = 0; k < card_block; ++k) axes[k] = geometry_detail::sin_cos_of_turns(axis_turns[k]);
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const Pose& pose = motion.pose(slots[k]);
    const std::uint32_t s = slots[k];
    if (item_of[s] == no_item || geometry_detail::lies_flat(pose.flip)) continue;
    FrameItem& item = drawn.items[item_of[s]];
    tilted.show(pose, rotations[k], tilts[k], axes[k], item.matrix, item.corners);
    const bool back = !geometry_detail::shows_its_face(pose.flip);
    if (pose.brightness != looks[s].brightness || back != looks[s].back) show_looks(item, s);
  }
}

/// A card may turn to its other side, or change its brightness, while it moves.
void Playfield::Impl::show_looks(FrameItem& item, std::size_t s) {
  looks[s] = looks_of(s);
  item.back = looks[s].back;
  item.face = looks[s].face;
  item.brightness = looks[s].brightness;
}

/// Draws what has got another place in the order and does not move.
void Playfield::Impl::show_anew() {
  std::array<std::uint32_t, card_block> slots;
  std::size_t n = 0;
  for (std::uint32_t s = 0; s < anew.size(); ++s) {
    if (!anew[s]) continue;
    slots[n++] = s;
    if (n < card_block) continue;
    show(slots);
    n = 0;
  }
  show(std::span(slots.data(), n));
}

/// Translucent copies of what is dragged, where the pointer has it.
void Playfield::Impl::add_copies() {
  if (options.drag.look != DragLook::copy) return;
  std::uint64_t n = 0;
  each_carry([&](const Carry& c) { add_copies_of(c, n); });
}

void Playfield::Impl::add_copies_of(const Carry& c, std::uint64_t& n) {
  if (c.mode != Carry::Mode::drag) return;
  const Vec2 first = rests[slot(c.run.first)].neutral.centre;
  for (const CardId id : setup.table.cards_of(c.run)) {
    Pose pose = rests[slot(id)].resting;
    pose.centre = c.pointer + c.grip + (rests[slot(id)].neutral.centre - first);
    pose.rotation = 0;
    const Card& card = *setup.table.card(id);
    const bool face = shows_face(pose.flip);
    next_item() = {.kind = FrameKind::copy,
                   .back = !face,
                   .marks = {.held = true},
                   .card = id,
                   .zone = card.zone,
                   .face = face ? card.face : hidden_face,
                   .size = solved.card,
                   .order = order_of(Layer::held, 1, n++),
                   .matrix = matrix_of(pose),
                   .corners = corners(pose, solved.card),
                   .opacity = options.drag.copy_opacity,
                   .lift = options.feel.carry_lift};
  }
}

/// The larger picture of a card, growing out of it.
void Playfield::Impl::add_zoom() {
  const Card* card = setup.table.card(hover.zoomed);
  if (!card || solved.card.empty()) return;
  const Rect place = zoom_place(card->id);
  if (place.empty()) return;
  const Glide& glide = options.feel.zoom;
  const double since = own_now() - hover.zoomed_at;
  float share = 1;
  if (since < zoom_takes()) {
    const float seconds = static_cast<float>(since);
    share = glide.spring ? 1 - shares_of(*glide.spring, seconds).of_distance
                         : glide.curve.value(seconds / glide.seconds);
  }
  const Pose& from = rests[slot(card->id)].resting;
  Pose pose{.centre = from.centre + (place.centre() - from.centre) * share};
  const float size = place.width() / solved.card.width;
  pose.scale = std::max(from.scale + (size - from.scale) * share, 0.0f);
  next_item() = {.kind = FrameKind::zoom,
                 .back = !card->face_up,
                 .card = card->id,
                 .zone = card->zone,
                 .face = card->face_up ? card->face : hidden_face,
                 .size = solved.card,
                 .order = order_of(Layer::zoom, 0, 0),
                 .matrix = matrix_of(pose),
                 .corners = corners(pose, solved.card),
                 .opacity = std::clamp(share * 2, 0.0f, 1.0f),
                 .lift = 0.6f};
}

/// How long the picture of a zoom grows, seconds.
double Playfield::Impl::zoom_takes() const {
  const Glide& glide = options.feel.zoom;
  return glide.spring ? double{settle_seconds(*glide.spring, 1, 0, 2e-4f)} : double{glide.seconds};
}

/// Whether the picture of a zoom had grown further, or to its end, since it was drawn.
bool Playfield::Impl::zoom_grew() const {
  return hover.zoomed && own_now() != zoom_drawn && zoom_drawn - hover.zoomed_at < zoom_takes();
}

const Frame& Playfield::Impl::frame() {
  // While cards only move, what is drawn keeps its order, and only they are drawn anew.
  const bool same_order = !stale && !hover.zoomed;
  if (motion.revision() != seen_motion || zoom_grew()) stale = true;
  if (!stale) return drawn;
  stale = false;
  seen_motion = motion.revision();
  zoom_drawn = own_now();
  ++drawn.revision;
  asked = 0;
  if (same_order) {
    show_moved();
    motion.forget_moved();
    mark_refused();
    return drawn;
  }
  hits_stale = true;
  const bool all_anew = std::exchange(dimmed, false) || drawn.card != solved.card;
  drawn.window = options.window;
  drawn.pixel_ratio = options.pixel_ratio;
  drawn.card = solved.card;
  drawn.corner_radius = options.corner_radius * solved.card.width;
  items_used = 0;
  forget_marks();
  add_panels();
  order_cards();
  add_outlines();
  add_cards(all_anew);
  show_moved();
  motion.forget_moved();
  show_anew();
  dim_zoomed();
  add_copies();
  add_zoom();
  drawn.items.resize(items_used);

  add_marks();
  mark_refused();
  return drawn;
}

}  // namespace apsidon
