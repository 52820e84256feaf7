// What pointers, keys and reasons set off.
#include <algorithm>

#include "play/order/following.hpp"
#include "play/order/impl.hpp"
#include "play/requests/taps.hpp"

namespace apsidon::play_detail {
namespace {

bool slide(Impl& field, const Gesture& gesture);
Hit pressed_by(Impl& field, Vec2 at, PointerKind kind, CardId hovered);
bool press(Impl& field, const Gesture& gesture);
bool sweep(Impl& field, const Gesture& gesture);
void tap(Impl& field, const Gesture& gesture);
void choose_by_tap(Impl& field, const Hit& on, bool one, const Gesture& gesture);
void tell_why_not(Impl& field, const Hit& on, const Gesture& gesture);
void act(Impl& field, const Tap& tap, const Gesture& gesture, const Hand::Carry& as);
bool press_key(Impl& field, const KeyInput& input);
void send_top(Impl& field, double time);
bool act_on_focus(Impl& field, bool twice, double time);
void let_go_of_all(Impl& field, CancelCause cause);
Verdict find(const Impl& field, const Hit& what);

/// A finger that has called a preview takes it to the card that it slides to; lifted, it ends it.
bool slide(Impl& field, const Gesture& gesture) {
  if (gesture.kind == GestureKind::drag_start || gesture.kind == GestureKind::drag_move) {
    const CardId on = field.hit(gesture.at).card;
    const Card* card = field.table().card(on);
    if (card && field.setup().handling_of(card->zone).zoom)
      field.hover.preview_card(on, field.hover_view(), field.events);
    return true;
  }
  field.hover.end_slide();
  field.hover.preview_card({}, field.hover_view(), field.events);
  return true;
}

/// A rectangle is drawn, or ends.
bool sweep(Impl& field, const Gesture& gesture) {
  const bool draws = gesture.kind == GestureKind::drag_start || gesture.kind == GestureKind::drag_move;
  field.selection.sweep_to(gesture.at, field.arrangement, field.referee, gesture.time, field.events);
  if (!draws) field.selection.end_sweep();
  Following(field).make_room();
  return true;
}

/// A press goes to the card that the pointer hovers, else to the topmost that takes hits, else for fingers to
/// the nearest within slop.
Hit pressed_by(Impl& field, Vec2 at, PointerKind kind, CardId hovered) {
  const Hit on = field.hit(at);
  if (field.gate.is_open() && field.table().card(hovered))
    return {.card = hovered, .zone = field.table().card(hovered)->zone};
  if (on.card || on.panel || kind != PointerKind::touch) return on;
  // Within the outline of an empty zone a finger means that.
  const bool empty = on.zone && field.table().zone(on.zone)->cards.empty();
  if (empty &&
      contains({.pose = field.arrangement.outline(field.setup(), on.zone), .size = field.arrangement.card()},
               at))
    return on;
  if (field.over(at)) return on;
  const CardId near =
      field.hits.nearest(at, field.hand.gestures().thresholds().touch_slop, field.frames, field.traffic);
  return near ? Hit{.card = near, .zone = field.table().card(near)->zone} : on;
}

/// Whether cards may be chosen from here, with a rectangle, or let go of with a tap: nothing lies here, and
/// there are zones that let cards be chosen.
bool chooses_from(const Impl& field, const Hit& on) {
  if (on.card || on.panel || !field.gate.is_open()) return false;
  const auto zones = field.table().zones();
  return std::any_of(zones.begin(), zones.end(), [&](const Zone& zone) {
    return static_cast<bool>(field.setup().rules_of(zone.id).select);
  });
}

bool press(Impl& field, const Gesture& gesture) {
  const Hit on = pressed_by(field, gesture.at, gesture.pointer_kind, field.hover.takes_press(gesture));
  const bool chooses = chooses_from(field, on);
  field.hand.press(gesture.pointer, on, field.gate.lets_through(gesture.button), chooses);
  if (field.gate.is_open() && on.zone && field.setup().handling_of(on.zone).double_tap != TapKind::none) {
    field.hand.gestures().want_double_tap(gesture.pointer);
  }
  return on.zone || on.panel || chooses;
}

void tell_tap(Impl& field, const Hit& on, const Gesture& gesture) {
  field.events.tell(
      {.kind = gesture.kind == GestureKind::double_tap ? EventKind::double_tapped : EventKind::tapped,
       .time = gesture.time,
       .card = on.card,
       .count = on.card ? std::size_t{1} : 0,
       .from = on.zone,
       .panel = on.panel,
       .at = gesture.at,
       .button = gesture.button},
      field.table());
}

void tap(Impl& field, const Gesture& gesture) {
  const Hit pressed = *field.hand.pressed_on(gesture.pointer);
  const bool off = pressed.panel && (field.switches.is_off(pressed.panel) ||
                                     field.switches.is_off(field.arrangement.overlay_of(pressed.panel)));
  const Tap tap = read_tap(gesture, pressed, {field.setup(), field.hand.carry(), field.gate.is_open(), off});
  const bool nothing = !pressed.zone && !pressed.panel;
  if (tap.told && !(nothing && !field.gate.lets_through(gesture.button))) tell_tap(field, tap.on, gesture);
  // The outline of an empty zone is something; beside its cards a zone shows nothing.
  const Zone* zone = field.table().zone(pressed.zone);
  const bool beside = !pressed.card && !pressed.panel && !(zone && zone->cards.empty());
  const bool lets_go = beside && !tap.drops && field.gate.is_open();
  if (lets_go && !field.selection.cards().empty()) (void)field.choose({}, false);
  if (tap.drops || tap.puts_back) field.hand.point_at(gesture.at);
  if (tap.drops)
    (void)field.propose(field.hand.carry().to(tap.on.zone), true, {.at = gesture.at}, gesture.time);
  if (tap.puts_back) Following(field).cancel_carry(gesture.at, CancelCause::put_back);
  act(field, tap, gesture,
      {.mode = Hand::Carry::Mode::tap, .by = gesture.pointer, .kind = gesture.pointer_kind});
}

/// From the card chosen last to this one, where they lie in one zone.
std::vector<CardId> stretch_to(const Impl& field, CardId card) {
  const Card& last = *field.table().card(field.selection.cards().back());
  const Card& to = *field.table().card(card);
  if (last.zone != to.zone) return {card};
  const auto& cards = field.table().zone(to.zone)->cards;
  std::vector<CardId> stretch;
  for (std::size_t i = last.index; i != to.index;) {
    i = to.index > i ? i + 1 : i - 1;
    stretch.push_back(cards[i]);
  }
  return stretch;
}

/// What may not be chosen shakes, and is told of with the reason.
void choose_by_tap(Impl& field, const Hit& on, bool one, const Gesture& gesture) {
  const bool stretch = gesture.shift && !field.selection.cards().empty();
  const bool alone = one && !stretch && !gesture.control && gesture.pointer_kind == PointerKind::mouse;
  if (alone) (void)field.choose({}, false);
  Verdict verdict;
  for (const CardId card : stretch ? stretch_to(field, on.card) : std::vector<CardId>{on.card}) {
    verdict = field.choose(card, stretch || !field.selection.has(card));
    if (!verdict) break;
  }
  if (!verdict) (void)field.refuse_pick(verdict, on.card, on.zone, gesture.at, gesture.time);
}

/// Where it is shown what may be played, a tap that does nothing else asks why a card may not.
void tell_why_not(Impl& field, const Hit& on, const Gesture& gesture) {
  if (!on.card || field.setup().handling_of(on.zone).playable == PlayableLook::none) return;
  const Verdict verdict = best_move(field.table(), field.referee.rulebook(), on.card).verdict;
  if (!verdict) (void)field.refuse_pick(verdict, on.card, on.zone, gesture.at, gesture.time);
}

void act(Impl& field, const Tap& tap, const Gesture& gesture, const Hand::Carry& as) {
  if (tap.does == TapKind::pick) return field.pick_up(tap.on.card, gesture, as);
  const bool one = tap.does == TapKind::select_one;
  if (one || tap.does == TapKind::select) return choose_by_tap(field, tap.on, one, gesture);
  const bool idle = tap.does == TapKind::none && !tap.drops && !tap.puts_back;
  if (idle && gesture.button == PointerButton::primary && field.gate.is_open())
    tell_why_not(field, tap.on, gesture);
  if (tap.does == TapKind::none) return;
  (void)field.make_of_tap(tap.does, tap.on, gesture.time);
}

bool press_key(Impl& field, const KeyInput& input) {
  Following follows(field);
  switch (field.focus.read(input, field.focus_view(), field.events)) {
    case KeyRequest::unused:
      return false;
    case KeyRequest::moved:
      if (!field.hand.empty()) field.hand.aim_at(field.focus.on().zone);
      return field.focus.any();
    case KeyRequest::put_back: {
      const CardId card = field.hand.carry().run.first;
      if (field.hand.carry().mode != Hand::Carry::Mode::keys)
        return Following(field).cancel_all(CancelCause::put_back), true;
      follows.cancel_carry(field.focus.at(), CancelCause::put_back);
      if (const Card* back = field.table().card(card))
        field.focus.set({.card = card, .zone = back->zone}, field.focus_view(), field.events);
      return true;
    }
    case KeyRequest::drop: {
      const CardId card = field.hand.carry().run.first;
      (void)field.propose(field.hand.carry().to(field.hand.carry().aimed), true, {.at = field.focus.at()},
                          input.time);
      if (const Card* moved = field.table().card(card))
        field.focus.set({.card = card, .zone = moved->zone}, field.focus_view(), field.events);
      field.focus.keep(field.focus_view(), field.events);
      return true;
    }
    case KeyRequest::act:
    case KeyRequest::act_twice: {
      const bool used = act_on_focus(field, input.key == Key::second, input.time);
      if (field.hand.empty()) field.focus.keep(field.focus_view(), field.events);
      return used;
    }
    case KeyRequest::unfocus:
      if (!field.selection.cards().empty()) return field.choose({}, false).allowed();
      field.focus.set({}, field.focus_view(), field.events);
      return true;
    case KeyRequest::undo:
    case KeyRequest::redo: {
      const bool done = field.go_back(input.key == Key::redo).allowed();
      field.focus.keep(field.focus_view(), field.events);
      return done;
    }
    case KeyRequest::send:
      (void)field.make_of_tap(TapKind::send, field.focus.on(), input.time);
      field.focus.keep(field.focus_view(), field.events);
      return true;
    case KeyRequest::send_top:
      send_top(field, input.time);
      return true;
  }
  return false;
}

/// The top card of the first zone that the table names goes to where it goes by itself; where none does, the
/// last that was tried says why not.
void send_top(Impl& field, double time) {
  CardId refused;
  for (const ZoneId zone : field.setup().send_top_of) {
    const auto top = field.table().top(zone);
    if (!top) continue;
    if (best_move(field.table(), field.referee.rulebook(), *top).verdict)
      return (void)field.make_of_tap(TapKind::send, {.card = *top}, time);
    refused = *top;
  }
  if (refused) (void)field.make_of_tap(TapKind::send, {.card = refused}, time);
}

bool act_on_focus(Impl& field, bool twice, double time) {
  const Hit on = field.focus.on();
  const Gesture gesture{.kind = GestureKind::tap,
                        .at = field.focus.at(),
                        .from = field.focus.at(),
                        .time = time,
                        .control = true};
  const Tap tap = read_act(on, twice, field.setup());
  if (tap.told) tell_tap(field, on, gesture);
  act(field, tap, gesture, {.mode = Hand::Carry::Mode::keys});
  if (tap.told || tap.does != TapKind::pick) return tap.told;
  if (field.hand.empty()) return true;
  // The nearest zone that takes it comes first; where there is none the focus stays on what is held.
  field.focus.keep(field.focus_view(), field.events);
  if (!field.focus.any()) field.focus.set(on, field.focus_view(), field.events);
  Following(field).aim_keys();
  return true;
}

void let_go_of_all(Impl& field, CancelCause cause) {
  Following(field).cancel_all(cause);
  field.inbox.release_all();
  field.hand.gestures().forget_all();
  field.hand.forget_presses();
  field.selection.end_sweep();
  field.hover.end_slide();
}

/// Refused when any of what is named is not there.
Verdict find(const Impl& field, const Hit& what) {
  if (what.card && !field.table().card(what.card)) return {.reason = Reason::unknown_card, .card = what.card};
  if (what.zone && !field.table().zone(what.zone)) return {.reason = Reason::unknown_zone, .zone = what.zone};
  if (what.panel && !field.panels.panel(what.panel)) return {.reason = Reason::unknown_panel};
  return {};
}

}  // namespace

bool Impl::pointer(const PointerInput& input) {
  if (!gate.is_open() && !reaches(input)) {
    // What goes down while the gate is closed does nothing when it opens.
    if (input.phase == PointerPhase::up || input.phase == PointerPhase::down)
      hand.gestures().forget(input.pointer);
    hover.follow_unseen(input);
    return false;
  }
  bool used = false;
  // By number: the gestures are read again while one is handled.
  const auto gestures = hand.gestures().read(input);
  for (std::size_t i = 0; i < gestures.size(); ++i) used = handle(gestures[i]) || used;
  return used;
}

bool Impl::handle(const Gesture& gesture) {
  hover.follow(gesture);
  if (hover.slides(gesture)) return slide(*this, gesture);
  if (selection.sweeps(gesture.pointer)) return sweep(*this, gesture);
  if (hover.ends_preview(gesture)) hover.preview_card({}, hover_view(), events);
  const HandRequest asks = hand.read(gesture, table());
  // Through a closed gate only presses come.
  if (!gate.is_open() && asks != HandRequest::press && asks != HandRequest::tap) return false;
  switch (asks) {
    case HandRequest::none:
      return false;
    case HandRequest::hover:
      if (gesture.pointer_kind != PointerKind::touch) hover.move_to(gesture.at);
      if (gesture.pointer_kind != PointerKind::touch) Following(*this).consider_hover();
      return false;
    case HandRequest::leave:
      hover.leave();
      Following(*this).set_hovered({});
      return false;
    case HandRequest::press:
      return press(*this, gesture);
    case HandRequest::tap:
      tap(*this, gesture);
      return true;  // the event tells of it, whatever came of it
    case HandRequest::long_press:
    case HandRequest::release: {
      const bool begins = asks == HandRequest::long_press;
      const Hit on = *hand.pressed_on(gesture.pointer);
      events.tell({.kind = begins ? EventKind::long_pressed : EventKind::released,
                   .time = gesture.time,
                   .card = on.card,
                   .count = 1,
                   .from = on.zone,
                   .at = gesture.at,
                   .button = gesture.button},
                  table());
      // What hovers and has a preview for a mouse has one for a finger that stays.
      if (begins && gesture.pointer_kind == PointerKind::touch) {
        hover.preview_card(on.card, hover_view(), events);
        if (hover.previewed() == on.card) hover.slide_with(gesture.pointer);
      }
      return true;
    }
    case HandRequest::drag:
      start_drag(gesture);
      return true;
    case HandRequest::sweep:
      selection.begin_sweep(gesture.pointer, gesture.from);
      return sweep(*this, gesture);
    case HandRequest::carry:
      carry_to(gesture.at, gesture.time);
      return true;
    case HandRequest::let_go:
      carry_to(gesture.at, gesture.time);
      let_go(gesture);
      return true;
    case HandRequest::cancel: {
      Following follows(*this);
      follows.cancel_carry(gesture.at, CancelCause::pointer_lost);
      return true;
    }
  }
  return false;
}

/// Whether a pointer is taken while the gate is closed: it goes down on an overlay, or with a button that the
/// game lets through, or has done so.
bool Impl::reaches(const PointerInput& input) {
  if (input.phase != PointerPhase::down) return hand.gestures().expects(input.pointer);
  const auto above = over(input.at);
  return (above && above->panel) || gate.lets_through(input.button);
}
bool Impl::reaches(const KeyInput& input) const {
  return gate.is_open() || (input.key != Key::undo && input.key != Key::redo);
}

/// Whether it would press anything now.
bool Impl::presses(const PointerInput& input) {
  const Hit on = pressed_by(*this, input.at, input.kind, {});
  return on.zone || on.panel || gate.lets_through(input.button) || chooses_from(*this, on);
}

bool Impl::key(const KeyInput& input) {
  focus.defer();
  const bool used = press_key(*this, input);
  focus.tell(focus_view(), events);
  hover.focus_on(focus.on().card, hover_view(), events);
  return used;
}

/// Refused when the focus is not there then.
Verdict Impl::focus_by_call(const Hit& what) {
  if (Verdict stale = find(*this, what); !stale) return stale;
  if (what == Hit{} || focus.may_be_on(what, focus_view())) focus.set(what, focus_view(), events);
  hover.focus_on(focus.on().card, hover_view(), events);
  if (focus.on() == what) return {};
  return {.reason = Reason::no_focus, .card = what.card, .zone = what.zone};
}

/// Chooses a card, or takes it out of what is chosen; with no card nothing is chosen any more.
Verdict Impl::choose(CardId card, bool on) {
  if (card && !table().card(card)) return {.reason = Reason::unknown_card, .card = card};
  if (on) {
    if (Verdict verdict = selection.select(card, referee, now(), events); !verdict) return verdict;
  } else if (card) {
    selection.deselect(card, referee, now(), events);
  } else {
    selection.clear(referee, now(), events);
  }
  Following(*this).make_room();
  return {};
}

void Impl::close_gate(std::string_view reason, bool lasts) {
  if (!gate.close(reason, lasts)) return;
  let_go_of_all(*this, CancelCause::gate_closed);
  Following(*this).set_hovered({});
}

/// The pointer may have rested meanwhile: what it is on is hovered without a move.
void Impl::open_gate(std::string_view reason) {
  gate.open(reason);
  if (gate.is_open()) Following(*this).consider_hover();
}

/// While cards are compared the gate is closed.
void Impl::follow_comparing() {
  referee.begin_comparing(schedule.own());
  if (referee.comparing() == gate.closed_for(comparing_reason)) return;
  if (referee.comparing()) {
    close_gate(comparing_reason);
  } else {
    open_gate(comparing_reason);
  }
}

void Impl::blur() {
  let_go_of_all(*this, CancelCause::blurred);
  hover.leave();
  Following(*this).set_hovered({});
}

/// A thing is switched off or hidden, or no more.
Verdict Impl::turn(const SwitchInput& input) {
  if (input.of == Switchable{}) return {.reason = Reason::unknown_card};
  if (Verdict stale = find(*this, {.card = input.of.card, .zone = input.of.zone, .panel = input.of.panel});
      !stale)
    return stale;
  if (!switches.turn(input, schedule.own())) return {};
  referee.switch_off(input.of, switches.first_reason(input.of));
  Following(*this).show_switch(input.of);
  Following(*this).ask_again();
  Following(*this).consider_hover();
  return {};
}

}  // namespace apsidon::play_detail
