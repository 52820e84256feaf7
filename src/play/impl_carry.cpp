// The order from a pick-up to exactly one of dropped, refused, cancelled, superseded.
#include <algorithm>

#include "play/impl.hpp"

namespace apsidon::play_detail {

/// Takes a run into the hand, or says why not.
void Impl::pick_up(CardId id, const Gesture& gesture, Hand::Carry as) {
  PickVerdict pick = referee.judge_pick(id);
  for (const CardId card : table().cards_of(pick.run)) {
    // Of the run below what another pointer drags.
    if (hand.has(card))
      pick.verdict = {.reason = Reason::in_hand, .card = card, .zone = table().card(id)->zone};
  }
  if (!pick.verdict) {
    events.tell({.kind = EventKind::pick_refused,
                 .time = gesture.time,
                 .card = id,
                 .from = table().card(id)->zone,
                 .at = gesture.at,
                 .verdict = pick.verdict});
    return shake(id);
  }
  set_hovered({});
  as.picked_up = true;
  as.pointer = gesture.at;
  as.time = gesture.time;
  hand.take(std::move(as), pick.run, table());
  hand.find_targets(setup());
  if (hand.carry().mode != Hand::Carry::Mode::drag) {
    // Picked up by a tap or a key it stays where it is, and rises.
    for (const CardId card : table().cards_of(pick.run)) {
      traffic.lean(slot(card), risen(arrangement.card()), rising_spring(feel()));
    }
  }
  events.tell(hand.event(EventKind::picked_up, gesture.time));
}

void Impl::start_drag(const Gesture& gesture) {
  const CardId id = hand.pressed_on(gesture.pointer)->card;
  Sender by_feel;
  // What a tap or key has picked up goes back.
  if (!hand.empty() && !hand.carry().drags()) cancel_carry(gesture.at, by_feel);
  // The grip is where the card is now, on its way or raised.
  const Vec2 grip = traffic.motion().pose(slot(id)).centre - gesture.from;
  pick_up(id, gesture, {.by = gesture.pointer, .kind = gesture.pointer_kind});
  if (hand.empty() || hand.carry().by != gesture.pointer) return;  // refused
  hand.begin_drag(grip, arrangement.card().height);
  if (hand.carry().holds) {
    for (const CardId card : table().cards_of(hand.carry().run)) traffic.hold(slot(card));
  }
  carry_to(gesture.at, gesture.time);
}

void Impl::carry_to(Vec2 pointer, double time) {
  hand.move_to(pointer, time, setup(), arrangement, feel());
  Sender by_feel;
  make_room(by_feel);
  const Hand::Carry& carry = hand.carry();
  if (!carry.holds) return;
  for (const CardId card : table().cards_of(carry.run)) {
    traffic.travel(slot(card), hand.goal(card, table(), arrangement, feel()), feel().carry);
    if (feel().tilt_deg > 0) traffic.lean(slot(card), {.rotation = carry.tilt}, feel().tilt);
  }
}

void Impl::let_go(const Gesture& gesture) {
  if (const auto proposal = hand.let_go(gesture, setup(), arrangement)) {
    return propose(*proposal, gesture.at, gesture.time);
  }
  Sender by_feel;
  put_back(hand.event(EventKind::cancelled, gesture.time), by_feel);
}

/// What is in the hand is let go over a zone.
void Impl::propose(Proposal proposal, Vec2 at, double time) {
  proposal.id = ids.next_proposal();
  Event event = Referee::event_of(EventKind::refused, proposal, time);
  event.at = at;
  Sender by_feel;
  const Ruling ruling = referee.propose(proposal, arrangement.input(setup(), proposal.to), at, time, events);
  if (ruling.waits) {
    forget_carry(by_feel);
    for (const CardId card : table().cards_of(proposal.run)) traffic.lock(slot(card));
    return show_waiting(proposal, Change::table);
  }
  event.verdict = ruling.verdict;
  if (!ruling.verdict) {
    put_back(event, by_feel);
    return shake(proposal.run.first);
  }
  const Hand::Carry& carry = hand.carry();
  if (carry.drags() && !carry.holds) {
    // The cards go on from where their copies are.
    for (const CardId card : table().cards_of(carry.run)) {
      Pose pose = arrangement.resting(slot(card));
      pose.centre = carry.middle(at) + Hand::from_first(carry.run, table(), arrangement, card);
      traffic.put_in_flight(slot(card), pose);
    }
  }
  event.kind = EventKind::dropped;
  events.tell(std::move(event));
  forget_carry(by_feel);
  finish_drop(proposal, time);
}

/// Ends a carry that moved nothing: the cards go home, each by itself, for the game may have torn the run
/// apart.
void Impl::put_back(const Event& event, Sender& by) {
  events.tell(event);
  // They keep the order in which they were picked up, so that the run stays stacked as it is.
  std::vector<std::size_t> back;
  for (const Hand::Taken& taken : hand.carry().cards) {
    if (traffic.card(taken.slot).held && table().card(taken.card)) back.push_back(taken.slot);
  }
  forget_carry(by);
  for (const std::size_t s : back) traffic.travel(s, arrangement.resting(s), feel().back);
}

/// What is in the hand is so no more; another pointer's goes on.
void Impl::forget_carry(Sender& by) {
  const Hand::Carry was = hand.forget();
  for (const Hand::Taken& taken : was.cards) {
    if (traffic.card(taken.slot).id != taken.card) continue;
    const bool held = traffic.let_go(taken.slot);
    if (was.picked_up) traffic.lean(taken.slot, {}, held ? feel().tilt : rising_spring(feel()));
  }
  if (was.drags()) hand.gestures().forget(was.by);
  make_room(by);
}

void Impl::cancel_carry(Vec2 at, Sender& by) {
  if (hand.empty()) return;
  Event event = hand.event(EventKind::cancelled, now());
  event.at = at;
  put_back(event, by);
}

void Impl::cancel_all() {
  Sender by_feel;
  while (!hand.empty()) cancel_carry(hand.carry().pointer, by_feel);
}

/// Sends the cards of a proposal that waits to where they would lie; in a new window they are there at once.
void Impl::show_waiting(const Proposal& proposal, Change change) {
  std::vector<LaidCard> laid;
  const auto run = table().cards_of(proposal.run);
  for (const CardId id : run) {
    const Card& card = *table().card(id);
    laid.push_back({.face_up = card.face_up, .sideways = card.sideways, .at = card.at});
  }
  const std::vector<Pose> poses = arrangement.poses_on_top(setup(), proposal.to, laid);
  for (std::size_t i = 0; i < run.size(); ++i) {
    Pose goal = arrangement.resting(slot(run[i]));
    goal.centre = proposal.middle.value_or(poses[i].centre);
    goal.rotation = poses[i].rotation;
    goal.scale = poses[i].scale;
    if (change == Change::window) {
      traffic.put(slot(run[i]), goal);
    } else {
      traffic.fly(slot(run[i]), goal, feel().move);
    }
  }
}

/// A proposal waits no more.
std::vector<CardId> Impl::unlock(std::uint64_t proposal) {
  std::vector<CardId> cards = referee.end_waiting(proposal);
  for (const CardId card : cards) {
    if (const auto s = table().slot(card)) traffic.unlock(*s);
  }
  return cards;
}

void Impl::send_home(std::span<const CardId> cards) {
  for (const CardId card : cards) {
    if (table().card(card)) traffic.fly(slot(card), arrangement.resting(slot(card)), feel().back);
  }
}

}  // namespace apsidon::play_detail
