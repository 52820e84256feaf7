// The order from a pick-up to exactly one of dropped, refused, cancelled, superseded.
#include <algorithm>

#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {

/// Takes a run into the hand, or says why not.
void Impl::pick_up(CardId id, const Gesture& gesture, Hand::Carry as) {
  PickVerdict pick;
  std::span<const CardId> cards;
  if (selection.has(id)) {
    // One of the chosen takes all of them along.
    as.chosen.assign(selection.cards().begin(), selection.cards().end());
    cards = as.chosen;
    pick = {rules_detail::judge_chosen(table(), referee.rulebook(), cards), {id, cards.size()}};
  } else {
    pick = referee.judge_pick(id);
    cards = table().cards_of(pick.run);
  }
  for (const CardId card : cards) {
    // Of the run below what another pointer drags.
    if (hand.has(card))
      pick.verdict = {.reason = Reason::in_hand, .card = card, .zone = table().card(id)->zone};
  }
  // It shows as if it could be picked up, but lies where it goes to already.
  const bool hides = pick.verdict.reason == Reason::not_top || pick.verdict.reason == Reason::face_down;
  if (hides && traffic.card(slot(id)).departure > 0) pick.verdict.reason = Reason::in_flight;
  if (!pick.verdict)
    return (void)refuse_pick(pick.verdict, id, table().card(id)->zone, gesture.at, gesture.time);
  Following(*this).set_hovered({});
  as.picked_up = true;
  as.pointer = gesture.at;
  as.time = gesture.time;
  hand.take(std::move(as), pick.run, table());
  hand.find_targets(table(), referee.rulebook());
  if (hand.carry().mode != Hand::Carry::Mode::drag) {
    // Picked up by a tap or a key it stays where it is, and rises.
    for (const Hand::Taken& taken : hand.carry().cards)
      traffic.lean(taken.slot, Following(*this).risen_in_window(taken.slot), rising_spring(feel()));
  }
  events.tell(hand.event(EventKind::picked_up, gesture.time), table());
}

void Impl::start_drag(const Gesture& gesture) {
  const CardId id = hand.pressed_on(gesture.pointer)->card;
  Following follows(*this);
  // What a tap or key has picked up goes back.
  if (!hand.empty() && !hand.carry().drags()) follows.cancel_carry(gesture.at, CancelCause::put_back);
  // The grip is where the card is now, on its way or raised.
  const Pose live = traffic.motion().pose(slot(id));
  pick_up(id, gesture, {.by = gesture.pointer, .kind = gesture.pointer_kind});
  if (hand.empty() || hand.carry().by != gesture.pointer) return;  // refused
  // Grown under the pointer, it is held by the same point of its picture when it has its own size again.
  const float shrinks = live.scale > 0 ? arrangement.resting(slot(id)).scale / live.scale : 1;
  hand.begin_drag((live.centre - gesture.from) * shrinks, live.rotation, arrangement.card().height);
  if (hand.carry().holds) {
    for (const Hand::Taken& taken : hand.carry().cards) traffic.hold(taken.slot);
  }
  carry_to(gesture.at, gesture.time);
}

void Impl::carry_to(Vec2 pointer, double time) {
  hand.move_to(pointer, time, setup(), arrangement, feel());
  Following follows(*this);
  follows.make_room();
  const Hand::Carry& carry = hand.carry();
  if (!carry.holds) return;
  for (const Hand::Taken& taken : carry.cards) {
    traffic.travel(taken.slot, hand.goal(carry, taken.card, table(), arrangement, feel()), feel().carry);
    if (feel().tilt_angle > Angle{}) traffic.lean(taken.slot, carry.lean(), Hand::leaning_spring(feel()));
  }
}

void Impl::let_go(const Gesture& gesture) {
  const Hand::Letting letting = hand.let_go(gesture, setup(), arrangement);
  const Release release{.at = gesture.at, .velocity = gesture.velocity, .flicked = letting.flicked};
  if (letting.move) {
    (void)propose(*letting.move, true, release, gesture.time);
  } else {
    Event event = hand.event(EventKind::cancelled, gesture.time);
    event.cause = CancelCause::nowhere;
    release.tell(event);
    Following follows(*this);
    follows.put_back(event);
  }
  // The pointer rests where it let go: what lies there is hovered.
  if (gesture.pointer_kind == PointerKind::touch) return;
  hover.move_to(gesture.at);
  Following(*this).consider_hover();
}

}  // namespace apsidon::play_detail
