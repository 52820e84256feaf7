// The pointer that presses nothing: which card it is over, and the larger picture of that.
//
// It is decided on neutral poses, which do not change because of what is hovered; so a pointer that rests can
// never make a card go to and fro.
#include <algorithm>
#include <limits>

#include "play/impl.hpp"

namespace apsidon {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();

}  // namespace

CardId Playfield::Impl::topmost_neutral(Vec2 point) {
  if (neutral_stale) {
    neutral_stale = false;
    neutral_hits.clear();
    for (const Zone& zone : setup.table.zones()) {
      for (const CardId card : zone.cards) {
        neutral_hits.add(
            {.pose = rests[slot(card)].neutral,
             .size = solved.card,
             .corner_radius = options.corner_radius * solved.card.width,
             .clip = setup.places[zone.id.value - 1].scrolls ? areas[zone.id.value - 1] : everywhere},
            card.value);
      }
    }
  }
  return {neutral_hits.topmost(point).value_or(0)};
}

/// The card that should be hovered. The one that is stays until the pointer has gone on by the margin.
CardId Playfield::Impl::hover_answer() {
  if (!hover.here || carry.run.count > 0 || !gates.empty()) return {};
  const float m = options.hover.margin;
  for (const Vec2 away : {Vec2{0, 0}, Vec2{m, 0}, Vec2{-m, 0}, Vec2{0, m}, Vec2{0, -m}}) {
    if (hover.card && topmost_neutral(hover.at + away) == hover.card) return hover.card;
  }
  const CardId over = topmost_neutral(hover.at);
  const Card* card = setup.table.card(over);
  if (!card || cards[slot(over)].locked) return {};
  const ZoneHandling& handling = setup.handling[card->zone.value - 1];
  return handling.hover != HoverKind::none || handling.zoom ? over : CardId{};
}

void Playfield::Impl::hover_at(const Gesture& gesture) {
  if (gesture.pointer_kind == PointerKind::touch) return;
  hover.here = true;
  hover.at = gesture.at;
  consider_hover();
}

/// Where the pointer goes while the gate is closed: nothing is hovered before it opens.
void Playfield::Impl::follow_unseen(const PointerInput& input) {
  if (input.kind == PointerKind::touch) return;
  hover.here = input.phase != PointerPhase::leave && input.phase != PointerPhase::cancel;
  if (hover.here) hover.at = input.at;
}

void Playfield::Impl::leave() {
  hover.here = false;
  set_hovered({});
}

void Playfield::Impl::consider_hover() {
  const double now = clock.now();
  const CardId wanted = hover_answer();
  if (wanted == hover.card) {
    hover.waits = false;
    return;
  }
  if (hover.waits && hover.candidate == wanted) return;
  // From one card to another there is no need to wait for the first to go.
  const double delay = wanted ? options.hover.in_seconds : options.hover.out_seconds;
  if (!(delay > 0)) return set_hovered(wanted);
  hover.waits = true;
  hover.candidate = wanted;
  hover.due = now + delay;
}

void Playfield::Impl::set_hovered(CardId card) {
  hover.waits = false;
  if (hover.card == card) return;
  const CardId before = hover.card;
  if (hover.zoomed) show_zoom({});
  hover.card = card;
  hover.zoom_due = never;
  if (const Card* was = setup.table.card(before)) {
    note({.kind = EventKind::unhovered, .time = clock.now(), .card = before, .count = 1, .from = was->zone});
  }
  sink();
  if (const Card* is = setup.table.card(card)) {
    note({.kind = EventKind::hovered, .time = clock.now(), .card = card, .count = 1, .from = is->zone});
    rise(*is);
    const bool zooms = setup.handling[is->zone.value - 1].zoom;
    hover.zoom_due = zooms ? clock.now() + options.hover.zoom_seconds : never;
  }
  make_room();
  stale = true;
}

/// A card that only rises does so beside its way, and its layout knows nothing of it. By its slot: it may lie
/// in another zone by the time it sinks back, or be gone.
void Playfield::Impl::sink() {
  if (hover.risen) motion.lean(*hover.risen, {}, rise_spring());
  hover.risen.reset();
}

void Playfield::Impl::rise(const Card& card) {
  sink();
  if (setup.handling[card.zone.value - 1].hover != HoverKind::lift) return;
  hover.risen = slot(card.id);
  motion.lean(*hover.risen, risen(), rise_spring());
}

Offset Playfield::Impl::risen() const {
  return {.move = {0, -0.04f * solved.card.height}, .scale = 0.03f, .lift = 0.2f};
}

Spring Playfield::Impl::rise_spring() const {
  const Glide& raise = options.feel.raise;
  return raise.spring.value_or(Spring{.period = std::max(2 * raise.seconds, 0.001f), .damping = 1});
}

void Playfield::Impl::show_zoom(CardId card) {
  hover.zoom_due = never;
  if (hover.zoomed == card) return;
  const Card* was = setup.table.card(hover.zoomed);
  if (hover.zoomed) {
    note({.kind = EventKind::unzoomed,
          .time = clock.now(),
          .card = hover.zoomed,
          .count = 1,
          .from = was ? was->zone : ZoneId{}});
  }
  const Card* is = setup.table.card(card);
  const bool shows = is && setup.handling[is->zone.value - 1].zoom && !zoom_place(card).empty();
  hover.zoomed = shows ? card : CardId{};
  hover.zoomed_at = own_now();
  stale = true;
  if (!shows) return;
  note({.kind = EventKind::zoomed, .time = clock.now(), .card = card, .count = 1, .from = is->zone});
}

double Playfield::Impl::hover_due() const {
  return std::min(hover.waits ? hover.due : never, hover.card && !hover.zoomed ? hover.zoom_due : never);
}

void Playfield::Impl::run_hover_due(double time) {
  if (hover.waits && hover.due <= time) set_hovered(hover.candidate);
  if (hover.card && !hover.zoomed && hover.zoom_due <= time) show_zoom(hover.card);
}

/// Where the larger picture of a card stands: on the first of the wanted sides that has room for it clear of
/// the card's zone, as large as wanted or as the window has room for; empty when there is none.
Rect Playfield::Impl::zoom_place(CardId id) const {
  const Card* card = setup.table.card(id);
  if (!card) return {};
  const float gap = options.hover.zoom_gap;
  const Rect window{{gap, gap}, Vec2{options.window.width, options.window.height} - Vec2{gap, gap}};
  const Pose& pose = rests[slot(id)].resting;
  const Rect own = bounds(corners(pose, solved.card));
  const Rect& area = areas[card->zone.value - 1];
  // What has to stay free: the card as it stands out, and the way to its neighbours.
  const Rect keep{{std::min(own.min.x, area.min.x), std::min(own.min.y, area.min.y)},
                  {std::max(own.max.x, area.max.x), std::max(own.max.y, area.max.y)}};
  const auto size_in = [&](const Rect& room) {
    const float fits = std::min(room.width() / solved.card.width, room.height() / solved.card.height);
    return solved.card * std::min(options.hover.zoom, fits);
  };
  Rect best;
  for (const Side side : options.hover.zoom_sides) {
    Rect room = window;
    if (side == Side::above) room.max.y = keep.min.y - gap;
    if (side == Side::below) room.min.y = keep.max.y + gap;
    if (side == Side::left) room.max.x = keep.min.x - gap;
    if (side == Side::right) room.min.x = keep.max.x + gap;
    if (room.empty()) continue;
    const Size size = size_in(room);
    const Vec2 half{size.width / 2, size.height / 2};
    const Vec2 wanted = side == Side::above   ? Vec2{pose.centre.x, room.max.y - half.y}
                        : side == Side::below ? Vec2{pose.centre.x, room.min.y + half.y}
                        : side == Side::left  ? Vec2{room.max.x - half.x, pose.centre.y}
                                              : Vec2{room.min.x + half.x, pose.centre.y};
    const Vec2 middle{
        std::clamp(wanted.x, room.min.x + half.x, std::max(room.max.x - half.x, room.min.x + half.x)),
        std::clamp(wanted.y, room.min.y + half.y, std::max(room.max.y - half.y, room.min.y + half.y))};
    // A side that would show it smaller than wanted gives way to one that does not.
    if (size.width > best.width() * 1.01f) best = rect_around(middle, size);
    if (size.width >= solved.card.width * options.hover.zoom * 0.99f) break;
  }
  // No larger than the card itself: that shows nothing that is not seen already.
  return best.width() > solved.card.width * pose.scale * 1.1f ? best : Rect{};
}

CardId Playfield::hovered() const { return impl_->hover.card; }
CardId Playfield::zoomed() const { return impl_->hover.zoomed; }

}  // namespace apsidon
