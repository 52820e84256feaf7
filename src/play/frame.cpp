// The list to draw, back to front, and what a point hits of it.
#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <limits>
#include <utility>

#include "apsidon/motion/spring.hpp"
#include "geometry/shown.hpp"
#include "play/impl.hpp"

namespace apsidon {
namespace {

// An order is a layer, then two numbers; outlines lie under everything, what is held above everything.
enum class Layer : std::uint64_t { outline, rest, raised, flight, held, zoom };

constexpr std::uint64_t no_order = ~std::uint64_t{0};
constexpr std::uint32_t no_item = ~std::uint32_t{0};
/// Where more than one in so many has moved, all are taken to have.
constexpr std::size_t few_moved = 16;
constexpr std::size_t hit_block = 64;
constexpr std::size_t card_block = 16;

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

/// Where every card comes in the order of the frame, by slot; returns how many there are.
std::size_t Playfield::Impl::give_orders() {
  orders.assign(cards.size(), {no_order, 0, 0});
  waiting_to_leave = 0;
  next_leave = std::numeric_limits<double>::infinity();
  std::uint32_t count = 0;
  for (const Zone& zone : setup.table.zones()) {
    std::uint64_t below = 0;  // what flies to this zone, and will lie below
    const bool raises = setup.handling[zone.id.value - 1].hover != HoverKind::none;
    for (std::size_t place = 0; place < zone.cards.size(); ++place) {
      const std::size_t s = slot(zone.cards[place]);
      const CardState& state = cards[s];
      std::uint64_t order = rest_order(zone.id, place);
      if (state.held) {
        order = order_of(Layer::held, 0, state.departure);
      } else if (state.departure > 0 && motion.waiting(s)) {
        order = state.waits_at;
        ++waiting_to_leave;
        next_leave = std::min(next_leave, motion.leaves_at(s));
      } else if (raises && state.departure == 0 && zone.cards[place] == hover.card) {
        // It stands above its neighbours, and nothing goes by that.
        order = order_of(Layer::raised, zone.id.value, place);
      } else {
        if (state.departure > 0) order = flight_order(state.departure);
        // Nothing that has arrived is overtaken from below by what arrives later.
        order = std::max(order, below);
        below = std::max(below, order >= flight_order(0) ? order : 0);
      }
      orders[s] = {order, count++, static_cast<std::uint32_t>(s)};
    }
  }
  return count;
}

/// Puts the cards in order. Most are where they were: the others are taken out, sorted, and merged in.
void Playfield::Impl::order_cards() {
  const std::size_t count = give_orders();
  const auto before = [](const Ordered& a, const Ordered& b) { return a.before(b); };
  order_kept.clear();
  order_strays.clear();
  for (const Ordered& was : ordered) {
    const Ordered& now = orders[was.slot];
    if (now.order == no_order) continue;
    const std::size_t n = order_kept.size();
    if (n == 0 || !before(now, order_kept[n - 1])) {
      order_kept.push_back(now);
    } else if (n == 1 || !before(now, order_kept[n - 2])) {
      // The one before has gone up.
      order_strays.push_back(std::exchange(order_kept.back(), now));
    } else {
      order_strays.push_back(now);
    }
  }
  if (order_kept.size() + order_strays.size() != count) {
    // Cards have come.
    order_kept.clear();
    order_strays.clear();
    std::copy_if(orders.begin(), orders.end(), std::back_inserter(order_strays),
                 [](const Ordered& o) { return o.order != no_order; });
  }
  std::sort(order_strays.begin(), order_strays.end(), before);
  ordered.resize(count);
  std::merge(order_kept.begin(), order_kept.end(), order_strays.begin(), order_strays.end(), ordered.begin(),
             before);
}

void Playfield::Impl::add_outlines() {
  for (const Zone& zone : setup.table.zones()) {
    const bool covered = std::any_of(zone.cards.begin(), zone.cards.end(),
                                     [&](CardId id) { return cards[slot(id)].departure == 0; });
    if (covered) continue;
    const std::size_t i = zone.id.value - 1;
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

/// All cards in their order. What was drawn at the same place before, and has not moved, lies there as it
/// did.
void Playfield::Impl::add_cards(bool all_anew) {
  first_card = items_used;
  if (drawn.items.size() < items_used + ordered.size()) drawn.items.resize(items_used + ordered.size());
  item_of.resize(cards.size(), no_item);
  for (std::size_t s = 0; s < orders.size(); ++s) {
    if (orders[s].order == no_order) item_of[s] = no_item;
  }
  looks_shown.resize(cards.size());
  clips.resize(areas.size());
  for (std::size_t i = 0; i < clips.size(); ++i) clips[i] = setup.places[i].scrolls ? areas[i] : everywhere;
  std::array<std::uint32_t, card_block> slots;
  std::size_t n = 0;
  for (const Ordered& o : ordered) {
    const CardState& state = cards[o.slot];
    FrameItem& item = drawn.items[items_used];
    const bool as_before =
        !all_anew && item_of[o.slot] == items_used && item.card == state.id && item.kind == FrameKind::card;
    item_of[o.slot] = static_cast<std::uint32_t>(items_used++);
    item.kind = FrameKind::card;
    item.marks = {.held = state.picked, .hovered = state.id == hover.card, .locked = state.locked};
    item.card = state.id;
    item.zone = state.zone;
    item.size = solved.card;
    // What is held or flies shows wherever it is; what rests in a zone that scrolls shows there only.
    item.clip = state.held || state.departure > 0 ? everywhere : clips[state.zone.value - 1];
    item.order = o.order;
    show_looks(item, o.slot);
    if (as_before) continue;
    slots[n++] = o.slot;
    if (n < card_block) continue;
    show(slots);
    n = 0;
  }
  show(std::span(slots.data(), n));
  refused.clear();
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

Playfield::Impl::Looks Playfield::Impl::looks_of(const Pose& pose) {
  return {pose.brightness, !geometry_detail::shows_its_face(pose.flip)};
}

/// What of a card changes seldom while it moves.
void Playfield::Impl::show_looks(FrameItem& item, std::size_t s) {
  const Looks now = looks_shown[s] = looks_of(motion.pose(s));
  item.back = now.back;
  item.face = now.back ? hidden_face : setup.table.card(item.card)->face;
  item.brightness = now.brightness;
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
  mark_refused();
}

/// How some cards lie and look, at most `card_block`: their sines and cosines at once, for one after another
/// each would wait for the last.
void Playfield::Impl::show(std::span<const std::uint32_t> slots) {
  FrameItem* const items = drawn.items.data();
  const std::uint32_t* const item_at = item_of.data();
  const Pose* const live = motion.poses().data();
  const Size size = solved.card;
  const geometry_detail::FlatCard flat(size);
  float turns[card_block] = {};
  geometry_detail::SinCos rotations[card_block];
  for (std::size_t k = 0; k < slots.size(); ++k) {
    turns[k] = geometry_detail::turns_of(live[slots[k]].rotation);
  }
  for (std::size_t k = 0; k < card_block; ++k) rotations[k] = geometry_detail::sin_cos_of_turns(turns[k]);
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const std::uint32_t s = slots[k];
    const std::uint32_t at = item_at[s];
    if (at == no_item) continue;
    const Pose& pose = live[s];
    FrameItem& item = items[at];
    if (geometry_detail::lies_flat(pose.flip)) {
      flat.show(pose, rotations[k], item.matrix, item.corners);
    } else {
      geometry_detail::show(pose, size, item.matrix, item.corners);
    }
    item.opacity = pose.opacity;
    item.lift = pose.lift;
    if (looks_of(pose) != looks_shown[s]) show_looks(item, s);
  }
}

void Playfield::Impl::mark_refused() {
  for (const std::uint32_t s : refused) {
    if (s < item_of.size() && item_of[s] != no_item) drawn.items[item_of[s]].marks.refused = false;
  }
  refused.clear();
  motion.with_effect(EffectKind::swing, refused);
  for (const std::uint32_t s : refused) {
    if (s < item_of.size() && item_of[s] != no_item) drawn.items[item_of[s]].marks.refused = true;
  }
}

/// Translucent copies of what is dragged, where the pointer has it.
void Playfield::Impl::add_copies() {
  if (options.drag.look != DragLook::copy) return;
  std::uint64_t n = 0;
  each_carry([&](const Carry& c) { add_copies_of(c, n); });
}

void Playfield::Impl::add_copies_of(const Carry& c, std::uint64_t& n) {
  if (c.mode != Carry::Mode::drag) return;
  const Vec2 first = cards[slot(c.run.first)].neutral.centre;
  for (const CardId id : setup.table.cards_of(c.run)) {
    const CardState& state = cards[slot(id)];
    Pose pose = state.resting;
    pose.centre = c.pointer + c.grip + (state.neutral.centre - first);
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
  const bool leaves = waiting_to_leave > 0 && own_now() >= next_leave;
  const bool same_order = !stale && !leaves && !hover.zoomed;
  if (motion.revision() != seen_motion || (zooming() && own_now() != zoom_drawn)) stale = true;
  if (!stale) return drawn;
  stale = false;
  seen_motion = motion.revision();
  zoom_drawn = own_now();
  ++drawn.revision;
  looks = 0;
  if (same_order) {
    show_moved();
    motion.forget_moved();
    return drawn;
  }
  hits_stale = true;
  const bool all_anew = std::exchange(dimmed, false) || drawn.card != solved.card;
  drawn.window = options.window;
  drawn.pixel_ratio = options.pixel_ratio;
  drawn.card = solved.card;
  drawn.corner_radius = options.corner_radius * solved.card.width;
  items_used = 0;
  add_panels();
  add_outlines();
  order_cards();
  add_cards(all_anew);
  show_moved();
  motion.forget_moved();
  dim_zoomed();
  add_copies();
  add_zoom();
  drawn.items.resize(items_used);

  // A target is marked where a card would come to lie: on its top card, or its outline.
  each_carry([&](const Carry& c) {
    for (const ZoneId id : c.targets) {
      const CardId top = setup.table.top(id).value_or(CardId{});
      for (FrameItem& item : drawn.items) {
        if (item.zone != id || item.card != top || item.kind == FrameKind::zoom) continue;
        item.marks.legal_target = true;
        item.marks.aimed_at = item.marks.aimed_at || id == c.aimed;
      }
    }
  });
  mark_focus();
  return drawn;
}

/// Brings the hit index up to date: the shapes that have moved, or all of them.
void Playfield::Impl::refresh_hits() {
  frame();
  if (hits_stale) {
    hits_stale = false;
    hits.clear();
    // What is held takes no hits: it is of no kind.
    for (const Ordered& o : ordered) {
      hits.add(hit_shape(o.slot), cards[o.slot].id.value, cards[o.slot].held ? 0 : 1);
    }
  } else if (many_moved()) {
    for (std::size_t i = 0; i < ordered.size(); i += hit_block) {
      const std::size_t n = std::min(hit_block, ordered.size() - i);
      std::array<Pose, hit_block> moved;
      for (std::size_t k = 0; k < n; ++k) moved[k] = motion.pose(ordered[i + k].slot);
      hits.move(i, std::span(moved.data(), n));
    }
  } else {
    for (const std::uint32_t place : hits_moved) hits.move(place, motion.pose(ordered[place].slot));
  }
  hits_moved.clear();
}

bool Playfield::Impl::many_moved() const { return hits_moved.size() * few_moved > ordered.size(); }

HitShape Playfield::Impl::hit_shape(std::size_t s) const {
  return {
      .pose = motion.pose(s), .size = solved.card, .corner_radius = drawn.corner_radius, .clip = clip_of(s)};
}

/// The topmost card at a point, by a look at all from the top: for a question or two that is quicker than to
/// bring the index up to date first.
CardId Playfield::Impl::look_for(Vec2 point) const {
  const Size size = solved.card;
  const float span = (size.width * size.width + size.height * size.height) * 0.2501f;
  for (std::size_t i = ordered.size(); i-- > 0;) {
    const std::size_t s = ordered[i].slot;
    const Pose& pose = motion.pose(s);
    const Vec2 away = point - pose.centre;
    if (!(dot(away, away) <= span * pose.scale * pose.scale + 0.01f)) continue;
    if (!cards[s].held && contains(hit_shape(s), point)) return cards[s].id;
  }
  return {};
}

CardId Playfield::Impl::topmost(Vec2 point) {
  frame();
  constexpr int few_looks = 4;
  if ((hits_stale || many_moved()) && ++looks <= few_looks) return look_for(point);
  if (hits_stale || !hits_moved.empty()) refresh_hits();
  return {hits.topmost(point).value_or(0)};
}

Hit Playfield::Impl::hit(Vec2 point) {
  if (const CardId id = topmost(point)) return {.card = id, .zone = setup.table.card(id)->zone};
  const ZoneId zone = zone_at(point);
  return {.zone = zone, .panel = zone ? PanelId{} : panel_at(point)};
}

}  // namespace apsidon
