// What the rooms are asked with, and what happens after a change.
#include "play/impl.hpp"

#include <algorithm>
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
      switches(setup().panels),
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
          .feel = feel(),
          .corner_radius = client.corner_radius,
          .time = now(),
          .may_hover = hand.empty() && gate.is_open() && !(hover.pointer() && over(*hover.pointer())),
          .switches = switches.revision()};
}

FocusView Impl::focus_view() const {
  return {.setup = setup(),
          .panels = panels,
          .arrangement = arrangement,
          .referee = referee,
          .carry = hand.carry(),
          .switches = switches,
          .only_overlays = only_overlays(),
          .time = now()};
}

LayoutRequest Impl::layout_request() const {
  return {.raised = hover.raised(setup()),
          .insertions = hand.insertions(),
          .guests = referee.guests(),
          .held = hand.held(),
          .flip_axis = feel().flip_axis_deg * std::numbers::pi_v<float> / 180};
}

FrameSources Impl::frame_sources() const {
  return {.setup = setup(),
          .panels = panels,
          .schedule = schedule,
          .switches = switches,
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

std::optional<Hit> Impl::over(Vec2 point) const {
  return HitView::over(point, setup(), arrangement, switches);
}

/// Whether nothing below the overlays can be reached.
bool Impl::only_overlays() const {
  if (!gate.is_open()) return true;
  const auto& overlays = setup().plans[arrangement.plan()].overlays;
  return std::any_of(overlays.begin(), overlays.end(), [&](const Overlay& overlay) {
    return overlay.hits == OverlayHits::all && !switches.is_hidden(overlay.panel);
  });
}

Hit Impl::hit(Vec2 point) {
  if (const auto above = over(point)) return *above;
  (void)frame();
  if (const CardId card = hits.topmost(point, frames, traffic))
    return {.card = card, .zone = table().card(card)->zone};
  const auto shows = [&](auto what) { return !switches.is_hidden(what); };
  const ZoneId zone = arrangement.zone_at(point, shows);
  return {.zone = zone, .panel = zone ? PanelId{} : arrangement.panel_at(point, shows)};
}

void Impl::follow(std::span<const Shift> shifts, Change change, Sender& by) {
  traffic.follow(shifts, arrangement.rests(), change, by, feel());
  if (!arrangement.guest_shifts().empty()) traffic.follow_guests(arrangement.guest_shifts(), change, feel());
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
  referee.find_guests();
  cancel_torn(by);
  supersede_torn();
  lay_out_changed(by);
  if (!switches.empty()) follow_switches();
  aim_carries_again();
  referee.forget_closed();
  if (hover.card() && !table().card(hover.card())) apply(hover.set({}, hover_view(), events), by);
  if (hover.previewed() && !table().card(hover.previewed())) hover.preview_card({}, hover_view(), events);
  if (hover.pointer()) apply(hover.consider(hover_view(), events), by);
  if (focus.any()) keep_focus();
  aim_keys();
}

/// Runs whose cards no longer lie together where they were picked up, or lie under another card now, are put
/// back.
void Impl::cancel_torn(Sender& by) {
  const auto pointers = hand.pointers();
  for (const std::uint32_t pointer : pointers) {
    hand.select(pointer);
    if (hand.empty() || hand.carry().by != pointer) continue;
    if (!hand.is_torn(table()) && !hand.is_covered(table(), referee.rulebook())) continue;
    cancel_carry(hand.carry().pointer, CancelCause::by_game, by);
  }
  hand.select(pointers.front());
}

/// What is carried finds its targets and its aim again, where it is, and is held as it would lie there.
void Impl::aim_carries_again() {
  if (hand.empty()) return;
  const auto pointers = hand.pointers();
  for (const std::uint32_t pointer : pointers) {
    hand.select(pointer);
    if (!hand.empty() && hand.carry().by == pointer) hand.aim_again(setup(), referee.rulebook(), arrangement);
  }
  hand.select(pointers.front());
  Sender by_feel;
  make_room(by_feel);
  hold_again();
}

/// The cards of a run may lie otherwise now, to each other too, and follow the pointer so.
void Impl::hold_again() {
  hand.each([&](const Hand::Carry& carry) {
    if (!carry.holds) return;
    for (const CardId card : table().cards_of(carry.run)) {
      const Pose goal = hand.goal(carry, card, table(), arrangement, feel());
      if (traffic.motion().goal(slot(card)) != goal) traffic.travel(slot(card), goal, feel().carry);
    }
  });
}

/// What is switched off or hidden shows so, wherever it lies by now.
void Impl::follow_switches() {
  for (const Zone& zone : table().zones()) follow_switch(zone.id);
}

void Impl::follow_switch(Switchable what) {
  const auto follow = [&](ZoneId zone, std::span<const CardId> cards) {
    const bool zone_off = switches.is_off(zone);
    const bool zone_hidden = switches.is_hidden(zone);
    for (const CardId card : cards) {
      traffic.show(slot(card), zone_off || switches.is_off(card), zone_hidden || switches.is_hidden(card));
    }
  };
  if (what.zone) follow(what.zone, table().zone(what.zone)->cards);
  if (what.card) follow(table().card(what.card)->zone, std::span(&what.card, 1));
}

/// What the keys carry aims at where the focus is.
void Impl::aim_keys() {
  if (hand.empty() || hand.carry().mode != Hand::Carry::Mode::keys) return;
  hand.aim_at(focus.on().zone != hand.carry().home ? focus.on().zone : ZoneId{});
}

/// All that was asked of rules is asked anew.
void Impl::ask_again() {
  referee.ask_again();
  aim_carries_again();
  if (focus.any()) keep_focus();
  aim_keys();
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
  if (change.rises) traffic.lean(*change.rises, risen_in_window(*change.rises), rising_spring(feel()));
  make_room(by);
}

/// How a card rises in place: no further than the window shows it.
Offset Impl::risen_in_window(std::size_t slot) const {
  Offset by = risen(hover.options(), arrangement.card());
  const Pose& rests = arrangement.resting(slot);
  Pose risen = rests;
  risen.centre = rests.centre + by.move;
  by.move = arrangement.kept_in_window(rests, risen).centre - rests.centre;
  return by;
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
