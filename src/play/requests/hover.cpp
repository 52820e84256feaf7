#include "play/requests/hover.hpp"

#include <algorithm>
#include <utility>

namespace apsidon::play_detail {

Offset risen(const HoverOptions& options, Size card) {
  return {.move = {0, -options.rise * card.height},
          .rotation = options.turn.radians(),
          .scale = options.growth,
          .lift = options.lift};
}

Spring rising_spring(const Feel& feel) {
  return feel.raise.spring.value_or(Spring{.period = std::max(2 * feel.raise.seconds, 0.001f), .damping = 1});
}

void Hover::set_options(const HoverOptions& options) {
  options_ = options;
  ++revision_;
}

CardId Hover::standing_out(const TableSetup& setup) const {
  const Card* card = setup.table.card(card_);
  return card && setup.handling_of(card->zone).hover != HoverKind::none ? card_ : CardId{};
}

CardId Hover::raised(const TableSetup& setup) const {
  const Card* card = setup.table.card(card_);
  return card && setup.handling_of(card->zone).hover == HoverKind::raise ? card_ : CardId{};
}

CardId Hover::takes_press(const Gesture& press) const {
  const bool here = press.pointer_kind != PointerKind::touch && press.at == at_;
  return here && candidate_due_ == never ? card_ : CardId{};
}

void Hover::move_to(Vec2 at) {
  here_ = true;
  at_ = at;
}

void Hover::follow(const Gesture& gesture) {
  const bool moves = gesture.kind != GestureKind::hover && gesture.kind != GestureKind::leave &&
                     gesture.kind != GestureKind::cancel && gesture.kind != GestureKind::press;
  if (moves && gesture.pointer_kind != PointerKind::touch) at_ = gesture.at;
}

void Hover::follow_unseen(const PointerInput& input) {
  if (input.kind == PointerKind::touch) return;
  here_ = input.phase != PointerPhase::leave && input.phase != PointerPhase::cancel;
  if (here_) at_ = input.at;
}

CardId Hover::topmost_neutral(Vec2 point, const HoverView& view) {
  const Arrangement& arrangement = view.arrangement;
  // Revisions only grow, so their sum tells whether any has.
  const std::uint64_t revision = arrangement.neutral_revision() + view.switches;
  if (std::exchange(indexed_, revision) != revision) {
    neutral_hits_.clear();
    for (const ZoneId id : arrangement.from_below()) {
      const Zone& zone = *view.setup.table.zone(id);
      for (const CardId card : zone.cards) {
        if (view.traffic.card(*view.setup.table.slot(card)).hidden) continue;
        neutral_hits_.add({.pose = arrangement.neutral(*view.setup.table.slot(card)),
                           .size = arrangement.card(),
                           .corner_radius = view.corner_radius * arrangement.card().width,
                           .clip = arrangement.clip(view.setup, zone.id)},
                          card.value);
      }
    }
  }
  return {neutral_hits_.topmost(point).value_or(0)};
}

/// The card that should be hovered. The one that is stays until the pointer has gone on by the margin.
CardId Hover::wanted(const HoverView& view) {
  if (!here_ || !view.may_hover) return {};
  const float m = options_.margin;
  const auto slot = view.setup.table.slot(card_);
  const bool may_stay = slot && !view.traffic.card(*slot).off;
  for (const Vec2 away : {Vec2{0, 0}, Vec2{m, 0}, Vec2{-m, 0}, Vec2{0, m}, Vec2{0, -m}}) {
    if (may_stay && topmost_neutral(at_ + away, view) == card_) return card_;
  }
  const Table& table = view.setup.table;
  const CardId over = topmost_neutral(at_, view);
  const Card* card = table.card(over);
  if (!card) return {};
  const Traffic::CardState& state = view.traffic.card(*table.slot(over));
  if (state.locked || state.off) return {};
  const ZoneHandling& handling = view.setup.handling_of(card->zone);
  return handling.hover != HoverKind::none || handling.zoom ? over : CardId{};
}

HoverChange Hover::consider(const HoverView& view, EventQueue& events) {
  const CardId wanted_card = wanted(view);
  if (wanted_card == card_) {
    candidate_due_ = never;
    return {};
  }
  if (candidate_due_ != never && candidate_ == wanted_card) return {};
  // From one card to another there is no need to wait for the first to go.
  const double delay = wanted_card ? options_.in_seconds : options_.out_seconds;
  if (!(delay > 0)) return set(wanted_card, view, events);
  candidate_ = wanted_card;
  candidate_due_ = view.time + delay;
  return {};
}

HoverChange Hover::set(CardId card, const HoverView& view, EventQueue& events) {
  candidate_due_ = never;
  if (card_ == card) return {};
  const Table& table = view.setup.table;
  const CardId before = std::exchange(card_, card);
  // From neighbour to neighbour a preview goes along, without the first delay.
  const bool previewed = previewed_ && previewed_ == before;
  preview_due_ = never;
  ++revision_;
  HoverChange change{.changed = true, .sinks = std::exchange(risen_, std::nullopt)};
  if (const Card* was = table.card(before)) {
    events.tell(
        {.kind = EventKind::unhovered, .time = view.time, .card = before, .count = 1, .from = was->zone},
        table);
  }
  const Card* is = table.card(card);
  const bool zooms = is && view.setup.handling_of(is->zone).zoom;
  if (previewed && !zooms) preview_card({}, view, events);
  if (!is) return change;
  events.tell({.kind = EventKind::hovered, .time = view.time, .card = card, .count = 1, .from = is->zone},
              table);
  // A card that only rises does so beside its way; its layout knows nothing of it.
  if (view.setup.handling_of(is->zone).hover == HoverKind::lift) change.rises = risen_ = table.slot(card);
  if (zooms) preview_soon(card, previewed, view, events);
  return change;
}

/// After the delay, or at once.
void Hover::preview_soon(CardId card, bool at_once, const HoverView& view, EventQueue& events) {
  if (at_once || !(options_.zoom_seconds > 0)) return preview_card(card, view, events);
  to_preview_ = card;
  preview_due_ = view.time + options_.zoom_seconds;
}

void Hover::focus_on(CardId card, const HoverView& view, EventQueue& events) {
  const CardId before = std::exchange(focused_, card);
  if (before == card) return;
  const bool previewed = previewed_ && previewed_ == before;
  const Card* is = view.setup.table.card(card);
  if (is && view.setup.handling_of(is->zone).zoom) return preview_soon(card, previewed, view, events);
  if (previewed) preview_card({}, view, events);
  if (to_preview_ == before) preview_due_ = never;
}

void Hover::preview_card(CardId card, const HoverView& view, EventQueue& events) {
  preview_due_ = never;
  if (previewed_ == card) return;
  const Table& table = view.setup.table;
  if (previewed_) {
    const Card* was = table.card(previewed_);
    events.tell({.kind = EventKind::unzoomed,
                 .time = view.time,
                 .card = previewed_,
                 .count = 1,
                 .from = was ? was->zone : ZoneId{}},
                table);
  }
  const Card* is = table.card(card);
  const bool shows = is && view.setup.handling_of(is->zone).zoom &&
                     !preview_area(view.setup, view.arrangement, card).empty();
  previewed_ = shows ? card : CardId{};
  show(previewed_, view.traffic.now(), view.feel);
  ++revision_;
  if (!shows) return;
  events.tell({.kind = EventKind::zoomed, .time = view.time, .card = card, .count = 1, .from = is->zone},
              table);
}

bool Hover::ends_preview(const Gesture& gesture) const {
  if (!previewed_) return false;
  return (gesture.kind == GestureKind::drag_start && !slides(gesture)) ||
         (gesture.kind == GestureKind::cancel && gesture.pointer_kind == PointerKind::touch);
}

HoverChange Hover::run_due(const HoverView& view, EventQueue& events) {
  HoverChange change;
  if (candidate_due_ <= view.time) change = set(candidate_, view, events);
  if (preview_due_ <= view.time) preview_card(to_preview_, view, events);
  return change;
}

}  // namespace apsidon::play_detail
