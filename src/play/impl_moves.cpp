// A move from its proposal to its end, and what belongs to it.
#include <algorithm>

#include "play/impl.hpp"

namespace apsidon::play_detail {

/// A move that is not made from the hand: by a tap or a call. It tells the same as one by hand.
Verdict Impl::make(const Move& move, double time) {
  put_back_before(move);
  if (move.kind != MoveKind::run) {
    const Verdict verdict = judge_move(table(), referee.rulebook(), move);
    const ZoneId stock = move.kind == MoveKind::draw ? move.from : move.to;
    if (!verdict) return refuse_pick(verdict, table().top(stock).value_or(CardId{}), stock, {}, time);
    return propose(move, false, {.at = arrangement.outline(setup(), stock).centre}, time);
  }
  const PickVerdict pick = referee.judge_pick(move.run.first);
  const Card* card = table().card(move.run.first);
  const Vec2 at = card ? arrangement.neutral(slot(card->id)).centre : Vec2{};
  if (!pick.verdict) return refuse_pick(pick.verdict, move.run.first, card ? card->zone : ZoneId{}, at, time);
  events.tell({.kind = EventKind::picked_up,
               .time = time,
               .card = card->id,
               .count = pick.run.count,
               .from = card->zone,
               .at = at},
              table());
  return propose(move, false, {.at = at}, time);
}

/// What is in the hand of the cards of a move goes back before.
void Impl::put_back_before(const Move& move) {
  const std::vector<CardId> cards = referee.cards_of(move);
  if (std::none_of(cards.begin(), cards.end(), [&](CardId card) { return hand.has(card); })) return;
  cancel_all(CancelCause::by_game);
}

Verdict Impl::refuse_pick(const Verdict& verdict, CardId card, ZoneId zone, Vec2 at, double time) {
  // Of what is not on the table there is nothing to tell.
  if (verdict.reason == Reason::unknown_card || verdict.reason == Reason::unknown_zone) return verdict;
  events.tell({.kind = EventKind::pick_refused,
               .time = time,
               .card = card,
               .from = zone,
               .at = at,
               .verdict = verdict},
              table());
  if (card) shake(card);
  return verdict;
}

Verdict Impl::draw_from(ZoneId stock, double time) {
  const MoveVerdict tap = stock_move(table(), referee.rulebook(), stock);
  if (tap.verdict) return make(tap.move, time);
  return refuse_pick(tap.verdict, table().top(stock).value_or(CardId{}), stock, {}, time);
}

Verdict Impl::send_best(CardId id, double time) {
  const MoveVerdict best = best_move(table(), referee.rulebook(), id);
  if (best.verdict) return make(best.move, time);
  const Card* card = table().card(id);
  if (!card) return best.verdict;
  return refuse_pick(best.verdict, id, card->zone, arrangement.neutral(slot(id)).centre, time);
}

/// A move is proposed, answered, and made if it may be. `by_hand`: it is of what is in the hand, which is let
/// go.
Verdict Impl::propose(const Move& move, bool by_hand, const Release& release, double time) {
  const Proposal proposal{.id = ids.next_proposal(), .move = move};
  Event refused = referee.event_of(EventKind::refused, proposal, time);
  release.tell(refused);
  Sender by_feel;
  const bool full = referee.waiting().size() >= most_proposals;
  const Ruling ruling = full ? Ruling{.verdict = too_many("move", most_proposals)}
                             : referee.propose(proposal, release, time, events);
  if (ruling.waits) {
    if (by_hand) forget_carry(by_feel);
    lock(proposal);
    aim_carries_again();  // what waits may not be exchanged
    return {};
  }
  if (!ruling.verdict) {
    refused.verdict = ruling.verdict;
    if (by_hand) {
      put_back(refused, by_feel);
    } else {
      events.tell(refused, table());
    }
    shake_cards_of(move);
    return ruling.verdict;
  }
  if (by_hand) {
    let_copies_fly();
    forget_carry(by_feel);
  }
  finish_proposed(move, time);
  return ruling.verdict;
}

/// Of a run all cards shake that were refused; of a draw the topmost, of which the player tapped the stock.
void Impl::shake_cards_of(const Move& move) {
  if (move.kind != MoveKind::run) {
    if (const auto top = table().top(move.from)) shake(*top);
    return;
  }
  for (const CardId card : table().cards_of(move.run)) shake(card);
}

/// Dragged as copies, the cards go on from where those are.
void Impl::let_copies_fly() {
  const Hand::Carry& carry = hand.carry();
  if (!carry.drags() || carry.holds) return;
  for (const CardId card : table().cards_of(carry.run)) {
    traffic.put_in_flight(slot(card), Hand::copy_pose(carry, table(), arrangement, card));
  }
}

/// The cards of a proposal that waits stay as they are until it is answered; those of a run show at the
/// target, beside what waits there already.
void Impl::lock(const Proposal& proposal) {
  if (proposal.move.kind == MoveKind::run) {
    for (const CardId card : table().cards_of(proposal.move.run)) traffic.lock(slot(card));
  }
  Sender by_feel;
  make_room(by_feel);
}

/// A proposal waits no more.
std::vector<CardId> Impl::unlock(std::uint64_t proposal) {
  std::vector<CardId> cards = referee.end_waiting(proposal);
  for (const CardId card : cards) {
    if (const auto s = table().slot(card)) traffic.unlock(*s);
  }
  return cards;
}

/// What waits and has been made by the game itself, as it was proposed, has its answer by that.
void Impl::end_made() {
  while (const auto made = referee.came_true()) {
    referee.tell_made(*made, now(), events);
    (void)unlock(made->id);
  }
}

/// The cards of a move that was not made go back from where they were shown.
void Impl::send_home(const Move& move, std::span<const CardId> cards) {
  if (move.kind != MoveKind::run) return;
  for (const CardId card : cards) {
    if (table().card(card)) traffic.fly(slot(card), arrangement.resting(slot(card)), feel().back, false);
  }
}

/// The table has changed as a move has it: its cards go to where they rest now, and the move is finished.
void Impl::finish_proposed(const Move& move, double time) {
  traffic.begin_change();
  if (move.kind == MoveKind::draw) {
    // The cards lie there already; what is left of the act is how they go.
    (void)perform(apsidon::draw(move.from, move.to, 0));
  } else if (move.kind == MoveKind::recycle) {
    after_change();
  } else {
    Sender by_feel;
    lay_out_changed(by_feel);
    // Cards whose resting pose has not changed were not sent by the layout, and may be on their way to
    // somewhere else.
    for (const CardId card : table().cards_of(move.run)) {
      const Pose& resting = arrangement.resting(slot(card));
      if (traffic.motion().goal(slot(card)) != resting) traffic.fly(slot(card), resting, feel().move, true);
    }
  }
  finish_move(move.from, time);
}

/// The player has moved cards from a zone: consequences, and a step of undo.
void Impl::finish_move(ZoneId from, double time) {
  schedule.start_waiting(schedule.own());
  referee.follow_up(from, time, events);
  after_change();
  referee.finish_move();
}

/// What is left goes to its zones, card after card.
Verdict Impl::finish() {
  const std::vector<Move> moves = referee.finishing_moves();
  if (moves.empty()) return {.reason = Reason::nothing_to_finish};
  if (referee.finishing()) return {};
  close_gate(finishing_reason);
  referee.finish_at(schedule.own());
  return {};
}

/// The next card goes; after the last, or where the game does not let it, it is over.
void Impl::finish_next(double time) {
  referee.finish_at(Referee::never);
  const std::vector<Move> moves = referee.finishing_moves();
  const bool goes = !moves.empty() && make(moves.front(), time) && referee.waiting().empty();
  if (goes && moves.size() > 1) {
    referee.finish_at(schedule.own() + double{feel().draw.stagger});
  } else {
    open_gate(finishing_reason);
  }
}

Verdict Impl::answer(std::uint64_t id, const Verdict& given) {
  const Proposal* found = referee.find(id);
  if (!found) return {.reason = Reason::unknown_proposal};
  const Proposal proposal = *found;
  const Verdict verdict = usable(given, proposal.move);
  const std::vector<CardId> cards = unlock(id);
  const Verdict applied = referee.answer(proposal, verdict, now(), events);
  if (applied) {
    finish_proposed(proposal.move, now());
    return applied;
  }
  send_home(proposal.move, cards);
  aim_carries_again();
  Sender by_feel;
  make_room(by_feel);  // what waits beside it closes up
  if (!verdict) shake_cards_of(proposal.move);
  return applied;
}

Verdict Impl::flip_by_hand(CardId card, double time) {
  if (!table().card(card)) return {.reason = Reason::unknown_card, .card = card};
  const Verdict verdict = referee.flip_by_hand(card, schedule.own(), time, events);
  if (!verdict)
    return refuse_pick(verdict, card, table().card(card)->zone, arrangement.neutral(slot(card)).centre, time);
  schedule.start_waiting(schedule.own());
  follow_comparing();
  after_change();
  referee.finish_move();
  return verdict;
}

Verdict Impl::go_back(bool redo) {
  if (!gate.lets_undo()) return {.reason = Reason::undo_forbidden};
  cancel_all(CancelCause::by_game);
  const bool compared = referee.comparing();
  const Verdict verdict = referee.go_back(redo, schedule.own());
  if (!verdict) return verdict;
  if (compared) gate.open(comparing_reason);  // it may be closed again at once
  follow_comparing();
  events.tell({.kind = redo ? EventKind::redone : EventKind::undone, .time = now()});
  after_change();
  return verdict;
}

/// The time to look at the open cards is over: they go to their zone, or are covered again.
void Impl::compare(double time) {
  const Comparison found = referee.end_comparison();
  follow_comparing();
  if (found.cards.empty()) return;
  referee.tell(found, time, events);
  if (!found.found) (void)perform(apsidon::flip(found.cards, false));
  if (found.found && found.end == MatchEnd::move) (void)perform(apsidon::move_cards(found.cards, found.to));
  if (found.found && found.end == MatchEnd::vanish) (void)perform(apsidon::collect(found.cards, found.to));
  referee.finish_comparison(found, time, events);
}

}  // namespace apsidon::play_detail
