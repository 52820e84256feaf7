// What pointers, keys and reasons set off.
#include "play/impl.hpp"

namespace apsidon::play_detail {

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
  if (hover.slides(gesture)) return slide(gesture);
  if (hover.ends_preview(gesture)) hover.preview_card({}, hover_view(), events);
  const HandRequest asks = hand.read(gesture, table());
  // Through a closed gate only presses come.
  if (!gate.is_open() && asks != HandRequest::press && asks != HandRequest::tap) return false;
  switch (asks) {
    case HandRequest::none:
      return false;
    case HandRequest::hover:
      if (gesture.pointer_kind != PointerKind::touch) hover.move_to(gesture.at);
      if (gesture.pointer_kind != PointerKind::touch) consider_hover();
      return false;
    case HandRequest::leave:
      hover.leave();
      set_hovered({});
      return false;
    case HandRequest::press:
      return press(gesture);
    case HandRequest::tap:
      return tap(gesture);
    case HandRequest::long_press: {
      const Hit on = *hand.pressed_on(gesture.pointer);
      events.tell({.kind = EventKind::long_pressed,
                   .time = gesture.time,
                   .card = on.card,
                   .count = 1,
                   .from = on.zone,
                   .at = gesture.at,
                   .button = gesture.button},
                  table());
      // What hovers and has a preview for a mouse has one for a finger that stays.
      if (gesture.pointer_kind == PointerKind::touch) {
        hover.preview_card(on.card, hover_view(), events);
        if (hover.previewed() == on.card) hover.slide_with(gesture.pointer);
      }
      return true;
    }
    case HandRequest::release:
      return true;
    case HandRequest::drag:
      start_drag(gesture);
      return true;
    case HandRequest::carry:
      carry_to(gesture.at, gesture.time);
      return true;
    case HandRequest::let_go:
      carry_to(gesture.at, gesture.time);
      let_go(gesture);
      return true;
    case HandRequest::cancel: {
      Sender by_feel;
      cancel_carry(gesture.at, CancelCause::pointer_lost, by_feel);
      return true;
    }
  }
  return false;
}

/// A finger that has called a preview takes it to the card that it slides to; lifted, it ends it.
bool Impl::slide(const Gesture& gesture) {
  if (gesture.kind == GestureKind::drag_start || gesture.kind == GestureKind::drag_move) {
    const CardId on = hit(gesture.at).card;
    const Card* card = table().card(on);
    if (card && setup().handling_of(card->zone).zoom) hover.preview_card(on, hover_view(), events);
    return true;
  }
  hover.end_slide();
  hover.preview_card({}, hover_view(), events);
  return true;
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

/// A press goes to the card that the pointer hovers, else to the topmost that takes hits, else for fingers to
/// the nearest within slop.
Hit Impl::pressed_by(Vec2 at, PointerKind kind, CardId hovered) {
  const Hit on = hit(at);
  if (gate.is_open() && table().card(hovered)) return {.card = hovered, .zone = table().card(hovered)->zone};
  if (on.card || on.panel || kind != PointerKind::touch) return on;
  // Within the outline of an empty zone a finger means that.
  const bool empty = on.zone && table().zone(on.zone)->cards.empty();
  if (empty && contains({.pose = arrangement.outline(setup(), on.zone), .size = arrangement.card()}, at))
    return on;
  if (over(at)) return on;
  const CardId near = hits.nearest(at, hand.gestures().thresholds().touch_slop, frames, traffic);
  return near ? Hit{.card = near, .zone = table().card(near)->zone} : on;
}

/// Whether it would press anything now.
bool Impl::presses(const PointerInput& input) {
  const Hit on = pressed_by(input.at, input.kind, {});
  return on.zone || on.panel || gate.lets_through(input.button);
}

bool Impl::press(const Gesture& gesture) {
  const Hit on = pressed_by(gesture.at, gesture.pointer_kind, hover.takes_press(gesture));
  hand.press(gesture.pointer, on, gate.lets_through(gesture.button));
  if (gate.is_open() && on.zone && setup().handling_of(on.zone).double_tap != TapKind::none) {
    hand.gestures().want_double_tap(gesture.pointer);
  }
  return on.zone || on.panel;
}

bool Impl::tap(const Gesture& gesture) {
  const Hit pressed = *hand.pressed_on(gesture.pointer);
  Hit on = pressed;
  if (!table().card(on.card)) on.card = {};
  const bool twice = gesture.kind == GestureKind::double_tap;
  const bool off =
      on.panel && (switches.is_off(on.panel) || switches.is_off(arrangement.overlay_of(on.panel)));
  if (off) return true;  // the press is taken, and nothing comes of it
  events.tell({.kind = twice ? EventKind::double_tapped : EventKind::tapped,
               .time = gesture.time,
               .card = on.card,
               .count = on.card ? std::size_t{1} : 0,
               .from = on.zone,
               .panel = on.panel,
               .at = gesture.at,
               .button = gesture.button},
              table());
  // A tap that waited for a second one may come when its card lies elsewhere: then it does nothing more.
  const bool gone = pressed.card && (!on.card || table().card(on.card)->zone != on.zone);
  if (gesture.button != PointerButton::primary || !on.zone || gone || !gate.is_open()) return true;
  if (!hand.empty()) {
    // Something is picked up: it goes here, if it may; the same card again puts it back.
    hand.point_at(gesture.at);
    const bool same_zone = hand.carry().home == on.zone;
    if (!same_zone) {
      (void)propose(hand.move_to(on.zone), true, {.at = gesture.at}, gesture.time);
      return true;
    }
    const bool same_card = on.card == hand.carry().run.first;
    Sender by_feel;
    cancel_carry(gesture.at, CancelCause::put_back, by_feel);
    if (same_card) return true;
  }
  const ZoneHandling& handling = setup().handling_of(on.zone);
  act_on_tap(twice ? handling.double_tap : handling.tap, on, gesture);
  return true;  // the event tells of it, whatever came of it
}

void Impl::act_on_tap(TapKind kind, const Hit& on, const Gesture& gesture) {
  if (kind == TapKind::none || (!on.card && kind != TapKind::draw)) return;
  if (kind == TapKind::pick) {
    return pick_up(on.card, gesture,
                   {.mode = Hand::Carry::Mode::tap, .by = gesture.pointer, .kind = gesture.pointer_kind});
  }
  if (kind == TapKind::draw) (void)draw_from(on.zone, gesture.time);
  if (kind == TapKind::send) (void)send_best(on.card, gesture.time);
  if (kind == TapKind::flip) (void)flip_by_hand(on.card, gesture.time);
}

bool Impl::key(const KeyInput& input) {
  focus.defer();
  const bool used = press_key(input);
  focus.tell(focus_view(), events);
  hover.focus_on(focus.on().card, hover_view(), events);
  return used;
}

bool Impl::press_key(const KeyInput& input) {
  Sender by_feel;
  switch (focus.read(input, focus_view(), events)) {
    case KeyRequest::unused:
      return false;
    case KeyRequest::moved:
      if (!hand.empty()) hand.aim_at(focus.on().zone);
      return focus.any();
    case KeyRequest::put_back: {
      const CardId card = hand.carry().run.first;
      if (hand.carry().mode != Hand::Carry::Mode::keys) return cancel_all(CancelCause::put_back), true;
      cancel_carry(focus.at(), CancelCause::put_back, by_feel);
      if (const Card* back = table().card(card)) set_focus({.card = card, .zone = back->zone});
      return true;
    }
    case KeyRequest::drop: {
      const CardId card = hand.carry().run.first;
      (void)propose(hand.move_to(hand.carry().aimed), true, {.at = focus.at()}, input.time);
      if (const Card* moved = table().card(card)) set_focus({.card = card, .zone = moved->zone});
      keep_focus();
      return true;
    }
    case KeyRequest::act:
    case KeyRequest::act_twice: {
      const bool twice = input.key == Key::second && focus.on().zone;
      const bool used =
          act_on_focus(twice ? setup().handling_of(focus.on().zone).double_tap : TapKind::none, input.time);
      if (hand.empty()) keep_focus();
      return used;
    }
    case KeyRequest::unfocus:
      set_focus({});
      return true;
    case KeyRequest::undo:
    case KeyRequest::redo: {
      const bool done = go_back(input.key == Key::redo).allowed();
      keep_focus();
      return done;
    }
    case KeyRequest::send:
      (void)send_best(focus.on().card, input.time);
      keep_focus();
      return true;
    case KeyRequest::send_top:
      send_top(input.time);
      return true;
  }
  return false;
}

/// Refused when the focus is not there then.
Verdict Impl::focus_by_call(const Hit& what) {
  if (Verdict stale = find(what); !stale) return stale;
  if (what == Hit{} || focus.may_be_on(what, focus_view())) set_focus(what);
  hover.focus_on(focus.on().card, hover_view(), events);
  if (focus.on() == what) return {};
  return {.reason = Reason::no_focus, .card = what.card, .zone = what.zone};
}

/// The top card of the first zone that the table names goes to where it goes by itself; where none does, the
/// last that was tried says why not.
void Impl::send_top(double time) {
  CardId refused;
  for (const ZoneId zone : setup().send_top_of) {
    const auto top = table().top(zone);
    if (!top) continue;
    if (best_move(table(), referee.rulebook(), *top).verdict) return (void)send_best(*top, time);
    refused = *top;
  }
  if (refused) (void)send_best(refused, time);
}

/// What a tap does; `other`: what a double tap does, where that is something.
bool Impl::act_on_focus(TapKind other, double time) {
  const Hit on = focus.on();
  const Gesture gesture{.kind = GestureKind::tap, .at = focus.at(), .from = focus.at(), .time = time};
  const TapKind tap = on.zone ? setup().handling_of(on.zone).tap : TapKind::none;
  const TapKind kind = other != TapKind::none ? other : tap;
  if (on.panel || (kind != TapKind::none && kind != TapKind::pick)) {
    events.tell({.kind = EventKind::tapped,
                 .time = time,
                 .card = on.card,
                 .count = on.card ? std::size_t{1} : 0,
                 .from = on.zone,
                 .panel = on.panel,
                 .at = focus.at()},
                table());
    if (!on.panel) act_on_tap(kind, on, gesture);
    return true;
  }
  if (!table().card(on.card)) return false;
  pick_up(on.card, gesture, {.mode = Hand::Carry::Mode::keys});
  if (hand.empty()) return true;
  // The nearest zone that takes it comes first; where there is none the focus stays on what is held.
  keep_focus();
  if (!focus.any()) set_focus(on);
  aim_keys();
  return true;
}

void Impl::close_gate(std::string_view reason, bool lasts) {
  if (!gate.close(reason, lasts)) return;
  let_go_of_all(CancelCause::gate_closed);
  set_hovered({});
}

/// The pointer may have rested meanwhile: what it is on is hovered without a move.
void Impl::open_gate(std::string_view reason) {
  gate.open(reason);
  if (gate.is_open()) consider_hover();
}

/// While cards are compared the gate is closed.
void Impl::follow_comparing() {
  if (referee.comparing() == gate.closed_for(comparing_reason)) return;
  if (referee.comparing()) {
    close_gate(comparing_reason);
  } else {
    open_gate(comparing_reason);
  }
}

void Impl::let_go_of_all(CancelCause cause) {
  cancel_all(cause);
  inbox.release_all();
  hand.gestures().forget_all();
  hand.forget_presses();
  hover.end_slide();
}

void Impl::blur() {
  let_go_of_all(CancelCause::blurred);
  hover.leave();
  set_hovered({});
}

/// Refused when any of what is named is not there.
Verdict Impl::find(const Hit& what) const {
  if (what.card && !table().card(what.card)) return {.reason = Reason::unknown_card, .card = what.card};
  if (what.zone && !table().zone(what.zone)) return {.reason = Reason::unknown_zone, .zone = what.zone};
  if (what.panel && !panels.panel(what.panel)) return {.reason = Reason::unknown_panel};
  return {};
}

/// A thing is switched off or hidden, or no more.
Verdict Impl::turn(const SwitchInput& input) {
  if (input.of == Switchable{}) return {.reason = Reason::unknown_card};
  if (Verdict stale = find({.card = input.of.card, .zone = input.of.zone, .panel = input.of.panel}); !stale)
    return stale;
  if (!switches.turn(input)) return {};
  referee.switch_off(input.of, switches.first_reason(input.of));
  follow_switch(input.of);
  ask_again();
  consider_hover();
  return {};
}

}  // namespace apsidon::play_detail
