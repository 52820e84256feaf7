// What a tap does beside its event.
#include <algorithm>

#include "play/impl.hpp"

namespace apsidon {

bool Playfield::Impl::tap(const Gesture& gesture) {
  const auto it = std::find_if(pressed.begin(), pressed.end(),
                               [&](const Pressed& p) { return p.pointer == gesture.pointer; });
  if (it == pressed.end() || (!it->on.zone && !it->on.panel)) return false;
  Hit on = it->on;
  if (!setup.table.card(on.card)) on.card = {};
  const bool twice = gesture.kind == GestureKind::double_tap;
  note({.kind = twice ? EventKind::double_tapped : EventKind::tapped,
        .time = gesture.time,
        .card = on.card,
        .count = on.card ? std::size_t{1} : 0,
        .from = on.zone,
        .panel = on.panel,
        .at = gesture.at,
        .button = gesture.button});
  // A tap that waited for a second one may come when its card lies elsewhere: then it does nothing more.
  const bool gone = it->on.card && (!on.card || setup.table.card(on.card)->zone != on.zone);
  if (gesture.button != PointerButton::primary || !on.zone || gone) return true;
  const ZoneHandling& handling = setup.handling[on.zone.value - 1];
  if (carry.run.count > 0 && carry.mode != Carry::Mode::drag) {
    // Something is picked up: it goes here, if it may; the same card again puts it back.
    const bool same = carry.home == on.zone;
    carry.pointer = gesture.at;
    if (same && on.card == carry.run.first) {
      cancel_carry(gesture.at);
      return true;
    }
    if (!same) {
      propose({.id = ++proposals, .run = carry.run, .from = carry.home, .to = on.zone}, gesture.at,
              gesture.time);
      return true;
    }
    cancel_carry(gesture.at);
  }
  (void)do_tap(twice ? handling.double_tap : handling.tap, on.card, on.zone, gesture);
  return true;  // the event tells of it, whatever came of it
}

/// Returns whether anything was done or refused.
bool Playfield::Impl::do_tap(TapKind kind, CardId card, ZoneId zone, const Gesture& gesture) {
  Verdict verdict;
  switch (kind) {
    case TapKind::none:
      return false;
    case TapKind::pick:
      return card && pick_up(card, gesture,
                             {.mode = Carry::Mode::tap, .by = gesture.pointer, .kind = gesture.pointer_kind});
    case TapKind::flip:
      if (!card) return false;
      verdict = turn_by_hand(card, gesture.time);
      break;
    case TapKind::draw:
      verdict = draw_stock(zone, gesture.time);
      break;
    case TapKind::send:
      if (!card) return false;
      verdict = send_best(card, gesture.time);
      break;
  }
  if (verdict) return true;
  note({.kind = EventKind::pick_refused,
        .time = gesture.time,
        .card = card,
        .from = zone,
        .at = gesture.at,
        .verdict = verdict});
  if (card) start_effect(card, options.feel.shake, EffectKind::swing, 0);
  return true;
}

}  // namespace apsidon
