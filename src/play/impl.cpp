// What the rooms are asked with, and what happens after a change.
#include "play/impl.hpp"

#include <numbers>

namespace apsidon::play_detail {
namespace {

PlayfieldOptions checked(const PlayfieldOptions& options) {
  check(options);
  return options;
}

TableSetup checked(TableSetup setup) {
  check(setup);
  return setup;
}

PlanWindow window_of(const PlayfieldOptions& options) {
  return usable({.size = options.window, .insets = options.insets, .pixel_ratio = options.pixel_ratio});
}

}  // namespace

Impl::Impl(TableSetup given, const PlayfieldOptions& options)
    : client{.feel = checked(options).feel,
             .corner_radius = options.corner_radius,
             .most_undos = options.most_undos},
      schedule(options.start_time),
      traffic(options.start_time),
      referee(checked(std::move(given)), options.most_undos),
      arrangement(setup(), window_of(options)),
      panels(setup().panels),
      hand(options.drag, options.thresholds),
      hover(options.hover) {
  Sender by;
  traffic.keep_slots(table().slot_count());
  follow(arrangement.lay_out(setup(), Change::first, layout_request()), Change::first, by);
}

/// As a fresh playfield would be made with them.
PlayfieldOptions Impl::options() const {
  const PlanWindow& window = arrangement.window();
  return {.window = window.size,
          .pixel_ratio = window.pixel_ratio,
          .insets = window.insets,
          .corner_radius = client.corner_radius,
          .feel = feel(),
          .thresholds = hand.gestures().thresholds(),
          .drag = hand.options(),
          .hover = hover.options(),
          .most_undos = client.most_undos,
          .start_time = traffic.now()};
}

HoverView Impl::hover_view() const {
  return {.setup = setup(),
          .arrangement = arrangement,
          .traffic = traffic,
          .corner_radius = client.corner_radius,
          .time = now(),
          .may_hover = hand.empty() && gate.is_open()};
}

FocusView Impl::focus_view() const {
  return {.setup = setup(),
          .panels = panels,
          .arrangement = arrangement,
          .referee = referee,
          .carry = hand.carry(),
          .time = now()};
}

LayoutRequest Impl::layout_request() const {
  return {.raised = hover.raised(setup()),
          .insertions = hand.insertions(),
          .held = hand.held(),
          .flip_axis = feel().flip_axis_deg * std::numbers::pi_v<float> / 180};
}

FrameSources Impl::frame_sources() const {
  return {.setup = setup(),
          .panels = panels,
          .arrangement = arrangement,
          .traffic = traffic,
          .hand = hand,
          .hover = hover,
          .focus = focus,
          .referee = referee,
          .feel = feel(),
          .corner_radius = client.corner_radius};
}

const Frame& Impl::frame() {
  if (frames.is_current(frame_sources())) return frames.frame();
  frames.update(frame_sources());
  traffic.forget_moved();
  hits.follow(frames);
  return frames.frame();
}

Hit Impl::hit(Vec2 point) {
  (void)frame();
  if (const CardId card = hits.topmost(point, frames, traffic))
    return {.card = card, .zone = table().card(card)->zone};
  const ZoneId zone = arrangement.zone_at(point);
  return {.zone = zone, .panel = zone ? PanelId{} : arrangement.panel_at(point)};
}

void Impl::follow(std::span<const Shift> shifts, Change change, Sender& by) {
  traffic.follow(shifts, arrangement.rests(), change, by, feel());
}

void Impl::make_room(Sender& by) {
  follow(arrangement.make_room(setup(), layout_request()), Change::room, by);
}

void Impl::lay_out_changed(Sender& by) {
  referee.give_cells();
  traffic.keep_slots(table().slot_count());
  follow(arrangement.lay_out(setup(), Change::table, layout_request()), Change::table, by);
}

void Impl::after_change() {
  Sender by_feel;
  after_change(by_feel);
}

void Impl::after_change(Sender& by) {
  referee.give_cells();
  traffic.begin_change();
  traffic.keep_slots(table().slot_count());
  recheck_carries(by);
  supersede_torn();
  lay_out_changed(by);
  referee.look_at_goals(now(), events);
  referee.forget_closed();
  if (hover.card() && !table().card(hover.card())) apply(hover.set({}, hover_view(), events), by);
  if (hover.previewed() && !table().card(hover.previewed())) hover.preview_card({}, hover_view(), events);
  if (hover.pointer()) apply(hover.consider(hover_view(), events), by);
  if (focus.any()) keep_focus();
}

/// A change of the zone from which a run came ends its carry; others find their targets again.
void Impl::recheck_carries(Sender& by) {
  const auto pointers = hand.pointers();
  for (const std::uint32_t pointer : pointers) {
    hand.select(pointer);
    if (hand.empty() || hand.carry().by != pointer) continue;
    if (hand.is_touched(table())) {
      cancel_carry(hand.carry().pointer, by);
    } else {
      hand.aim_again(table(), referee.rulebook(), arrangement);
    }
  }
  hand.select(pointers.front());
}

/// Proposals whose run is no longer whole, or whose cards lie elsewhere, end.
void Impl::supersede_torn() {
  while (const auto torn = referee.torn()) {
    const auto cards = unlock(torn->id);
    referee.supersede(*torn, now(), events);
    send_home(torn->move, cards);
  }
}

void Impl::apply(const HoverChange& change, Sender& by) {
  if (!change.changed) return;
  if (change.sinks) traffic.lean(*change.sinks, {}, rising_spring(feel()));
  if (change.rises) traffic.lean(*change.rises, risen(arrangement.card()), rising_spring(feel()));
  make_room(by);
}

void Impl::consider_hover() {
  Sender by_feel;
  if (hover.pointer()) apply(hover.consider(hover_view(), events), by_feel);
}

void Impl::set_hovered(CardId card) {
  Sender by_feel;
  apply(hover.set(card, hover_view(), events), by_feel);
}

void Impl::start_effect(CardId card, const CardEffect& effect, EffectKind kind, ClockIndex clock) {
  const auto s = table().slot(card);
  if (s) traffic.start_effect(*s, effect_of(effect, kind, arrangement.card().width), clock);
}

void Impl::shake(CardId card) { start_effect(card, feel().shake, EffectKind::swing, 0); }

}  // namespace apsidon::play_detail
