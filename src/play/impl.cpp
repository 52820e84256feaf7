// How a playfield goes on in time, and what happens after a change.
#include "play/impl.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "apsidon/geometry/error.hpp"
#include "play/input_time.hpp"

namespace apsidon::play_detail {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();

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

void Impl::record(const Input& input) const {
  if (client.recorder) client.recorder(input);
}

bool Impl::is_finite_or_ignored(double number) {
  if (!std::isfinite(number)) ++client.ignored;
  return std::isfinite(number);
}

/// What is due before is done at its own time: what goes by the table's clock and what goes by that of the
/// inputs, in order of time.
void Impl::advance_to(double time) {
  if (!(time > now())) return;
  Clock& clock = schedule.clock();
  const std::size_t first = events.pending();
  for (;;) {
    // While the table's clock stands still, what needs no time on it is told at the time of what caused it.
    if (clock.stands()) move_cards(traffic.now());
    const double own = std::min({performances.due(traffic.motion()), schedule.due(), referee.due()});
    const double table_due = own <= clock.at(time) ? std::clamp(clock.when(own), now(), time) : never;
    const double input_due = std::min(hand.due(), hover.due());
    if (std::min(table_due, input_due) > time) break;
    if (table_due <= input_due) {
      move_cards(own);
      clock.advance_to(table_due);
      run_due();
    } else {
      move_cards(clock.at(input_due));
      clock.advance_to(input_due);
      run_input_due(input_due);
    }
  }
  move_cards(clock.at(time));
  clock.advance_to(time);
  events.sort_from(first);
}

/// Moves the cards on to a time of the table's clock, and tells of what came of it.
void Impl::move_cards(double own) {
  traffic.advance_to(own, table(), schedule.clock(), events);
  performances.tell(traffic.motion(), table(), schedule.clock(), events);
  // While something is carried the table is not at rest, however still the hand.
  if (!hand.empty()) return;
  if (const auto settled = traffic.take_settled(own)) {
    events.tell({.kind = EventKind::settled, .time = input_time(schedule.clock(), *settled)});
  }
}

void Impl::run_due() {
  const double own = traffic.now();
  while (const auto id = performances.first_due(traffic.motion())) end_steps(*id);
  schedule.ring(own, events);
  if (referee.due() <= own) compare(input_time(schedule.clock(), own));
}

void Impl::run_input_due(double time) {
  hand.straighten(time, [&](const Run& run) {
    for (const CardId card : table().cards_of(run)) traffic.lean(slot(card), {}, feel().tilt);
  });
  const auto gestures = hand.gestures().advance_to(time);
  for (std::size_t i = 0; i < gestures.size(); ++i) (void)handle(gestures[i]);
  Sender by;
  apply(hover.run_due(hover_view(), events), by);
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
