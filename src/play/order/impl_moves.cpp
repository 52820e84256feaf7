// A move from its proposal to its end, and what belongs to it.
#include <algorithm>

#include "play/order/following.hpp"
#include "play/order/impl.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {
namespace {

void put_back_before(Impl& field, const Move& move);
void shake_cards_of(Impl& field, const Move& move);
void let_copies_fly(Impl& field);
void lock(Impl& field, const Proposal& proposal);
void finish_proposed(Impl& field, const Move& move, double time);
void finish_move(Impl& field, ZoneId from, double time);

/// What is in the hand of the cards of a move goes back before.
void put_back_before(Impl& field, const Move& move) {
  const std::vector<CardId> cards = field.referee.cards_of(move);
  if (std::none_of(cards.begin(), cards.end(), [&](CardId card) { return field.hand.has(card); })) return;
  Following(field).cancel_all(CancelCause::by_game);
}

/// Of a run all cards shake that were refused; of a draw the topmost, of which the player tapped the stock.
void shake_cards_of(Impl& field, const Move& move) {
  if (!rules_detail::names_cards(move)) {
    if (const auto top = field.table().top(move.from))
      field.start_effect(*top, field.feel().shake, EffectKind::swing, 0);
    return;
  }
  for (const CardId card : field.referee.cards_of(move))
    field.start_effect(card, field.feel().shake, EffectKind::swing, 0);
}

/// Dragged as copies, the cards go on from where those are.
void let_copies_fly(Impl& field) {
  const Hand::Carry& carry = field.hand.carry();
  if (!carry.drags() || carry.holds) return;
  for (const Hand::Taken& taken : carry.cards) {
    field.traffic.put_in_flight(taken.slot,
                                Hand::copy_pose(carry, field.table(), field.arrangement, taken.card));
  }
}

/// The cards of a proposal that waits stay as they are until it is answered; those of a run show at the
/// target, beside what waits there already.
void lock(Impl& field, const Proposal& proposal) {
  if (rules_detail::carries(proposal.move)) {
    for (const CardId card : field.referee.cards_of(proposal.move)) field.traffic.lock(field.slot(card));
  }
  Following follows(field);
  follows.make_room();
}

/// The table has changed as a move has it: its cards go to where they rest now, and the move is finished.
void finish_proposed(Impl& field, const Move& move, double time) {
  field.traffic.begin_change();
  if (move.kind == MoveKind::draw) {
    // The cards lie there already; what is left of the act is how they go.
    (void)field.perform(apsidon::draw(move.from, move.to, 0));
  } else if (move.kind == MoveKind::named) {
    field.traffic.clear_retired(field.table());  // it may have taken cards away: they are not to be looked at
    Following(field).table_changed();
  } else if (!rules_detail::carries(move)) {
    Following(field).table_changed();
  } else {
    Following follows(field);
    follows.lay_out();
    // Cards whose resting pose has not changed were not sent by the layout, and may be on their way to
    // somewhere else.
    for (const CardId card : field.table().cards_of(rules_detail::named_by(move))) {
      const Pose& resting = field.arrangement.resting(field.slot(card));
      if (field.traffic.motion().goal(field.slot(card)) != resting)
        field.traffic.fly(field.slot(card), resting, field.feel().move.glide, true);
    }
  }
  finish_move(field, move.from, time);
}

/// The player has moved cards from a zone: consequences, and a step of undo.
void finish_move(Impl& field, ZoneId from, double time) {
  field.schedule.start_waiting(field.schedule.own());
  if (field.referee.follow_up(from, time, field.events)) field.traffic.clear_retired(field.table());
  Following(field).table_changed();
  field.referee.finish_move();
  field.follow_comparing();
}

}  // namespace

/// A move that is not made from the hand: by a tap or a call. It tells the same as one by hand.
Verdict Impl::make(const Move& move, double time) {
  if (move.kind == MoveKind::undo || move.kind == MoveKind::redo) return go_back(move.kind == MoveKind::redo);
  put_back_before(*this, move);
  const CardId first = rules_detail::named_by(move).first;
  const Card* card = table().card(first);
  const Vec2 at = card ? arrangement.neutral(slot(card->id)).centre : Vec2{};
  if (rules_detail::carries(move)) {
    const PickVerdict pick = referee.judge_pick(move);
    if (!pick.verdict) return refuse_pick(pick.verdict, first, card ? card->zone : ZoneId{}, at, time);
    events.tell({.kind = EventKind::picked_up,
                 .time = time,
                 .card = card->id,
                 .count = pick.run.count,
                 .from = card->zone,
                 .at = at},
                table());
    return propose(move, false, {.at = at}, time);
  }
  const Verdict verdict = judge_move(table(), referee.rulebook(), move);
  if (rules_detail::names_cards(move)) {
    if (!verdict) return refuse_pick(verdict, first, card ? card->zone : ZoneId{}, at, time);
    return propose(move, false, {.at = at}, time);
  }
  const ZoneId stock = move.kind == MoveKind::recycle ? move.to : move.from;
  const Vec2 place = table().zone(stock) ? arrangement.outline(setup(), stock).centre : Vec2{};
  if (!verdict) return refuse_pick(verdict, table().top(stock).value_or(CardId{}), stock, place, time);
  return propose(move, false, {.at = place}, time);
}

Verdict Impl::refuse_pick(const Verdict& verdict, CardId card, ZoneId zone, Vec2 at, double time) {
  // Of what is not on the table there is nothing to tell.
  const auto nothing = {Reason::unknown_card, Reason::unknown_zone, Reason::unknown_move,
                        Reason::nothing_chosen};
  if (std::find(nothing.begin(), nothing.end(), verdict.reason) != nothing.end()) return verdict;
  events.tell({.kind = EventKind::pick_refused,
               .time = time,
               .card = card,
               .from = zone,
               .at = at,
               .verdict = verdict},
              table());
  if (table().card(card)) start_effect(card, feel().shake, EffectKind::swing, 0);
  return verdict;
}

/// The move that a tap is, on a stock, on a card, or of what is chosen, is looked for and made.
Verdict Impl::make_of_tap(TapKind does, const Hit& on, double time) {
  const Rulebook rules = referee.rulebook();
  const bool draws = does == TapKind::draw;
  const bool sends_chosen = does == TapKind::send && selection.has(on.card);
  const MoveVerdict found = draws                   ? stock_move(table(), rules, on.zone)
                            : sends_chosen          ? best_move(table(), rules, selection.cards())
                            : does == TapKind::send ? best_move(table(), rules, on.card)
                            : does == TapKind::flip ? flip_move(table(), rules, on.card)
                                                    : reorient_move(table(), rules, on.card);
  if (found.verdict) return make(found.move, time);
  const Card* card = table().card(draws ? table().top(on.zone).value_or(CardId{}) : on.card);
  const Vec2 at = card ? arrangement.neutral(slot(card->id)).centre : Vec2{};
  return refuse_pick(found.verdict, card ? card->id : CardId{}, draws || !card ? on.zone : card->zone, at,
                     time);
}

/// A move is proposed, answered, and made if it may be. `by_hand`: it is of what is in the hand, which is let
/// go.
Verdict Impl::propose(const Move& move, bool by_hand, const Release& release, double time) {
  const Proposal proposal{.id = ids.next_proposal(), .move = move};
  Event refused = referee.event_of(EventKind::refused, proposal, time);
  release.tell(refused);
  Following follows(*this);
  const bool full = referee.waiting().size() >= most_proposals;
  const Ruling ruling = full ? Ruling{.verdict = too_many("move", most_proposals)}
                             : referee.propose(proposal, release, time, events);
  if (ruling.waits) {
    if (by_hand) follows.forget_carry();
    lock(*this, proposal);
    Following(*this).aim_carries_again();  // what waits may not be exchanged
    return {};
  }
  if (!ruling.verdict) {
    refused.verdict = ruling.verdict;
    if (by_hand) {
      follows.put_back(refused);
    } else {
      events.tell(refused, table());
    }
    shake_cards_of(*this, move);
    return ruling.verdict;
  }
  if (by_hand) {
    let_copies_fly(*this);
    follows.forget_carry();
  }
  finish_proposed(*this, move, time);
  return ruling.verdict;
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
  if (!rules_detail::carries(move)) return;
  for (const CardId card : cards) {
    if (table().card(card)) traffic.fly(slot(card), arrangement.resting(slot(card)), feel().back, false);
  }
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

Verdict Impl::answer(std::uint64_t id, const Verdict& given, bool is_final) {
  const Proposal* found = referee.find(id);
  if (!found) return {.reason = Reason::unknown_proposal};
  const Proposal proposal = *found;
  const Verdict verdict = usable(given, proposal.move);
  const std::vector<CardId> cards = unlock(id);
  const bool redo = proposal.move.kind == MoveKind::redo;
  if (verdict && (redo || proposal.move.kind == MoveKind::undo)) {
    const Verdict done = gone_back(redo, id);
    if (!done) referee.supersede(proposal, now(), events);
    return done;
  }
  const Verdict applied = referee.answer(proposal, verdict, is_final, now(), events);
  if (applied) {
    finish_proposed(*this, proposal.move, now());
    return applied;
  }
  send_home(proposal.move, cards);
  Following(*this).aim_carries_again();
  Following follows(*this);
  follows.make_room();  // what waits beside it closes up
  if (!verdict) shake_cards_of(*this, proposal.move);
  return applied;
}

/// A game that has a judge is asked as about any move: its server has to know.
Verdict Impl::go_back(bool redo) {
  if (!gate.lets_undo() || referee.goes_back()) return {.reason = Reason::undo_forbidden};
  const bool can = redo ? referee.can_redo() : referee.can_undo();
  if (!can || !referee.trail().is_asked(ids.last_proposal() + 1)) return gone_back(redo, 0);
  if (referee.waiting().size() >= most_proposals) return too_many("move", most_proposals);
  const Proposal proposal{.id = ids.next_proposal(),
                          .move = {.kind = redo ? MoveKind::redo : MoveKind::undo}};
  events.tell(referee.event_of(EventKind::proposed, proposal, now()), table());
  const Ruling ruling = referee.ask_game(proposal);
  if (ruling.waits) return {};
  if (ruling.verdict) return gone_back(redo, proposal.id);
  Event refused = referee.event_of(EventKind::refused, proposal, now());
  refused.verdict = ruling.verdict;
  events.tell(std::move(refused), table());
  return ruling.verdict;
}

Verdict Impl::gone_back(bool redo, std::uint64_t proposal) {
  Following(*this).cancel_all(CancelCause::by_game);
  const bool compared = referee.comparing();
  const Verdict verdict = referee.go_back(redo, schedule.own());
  if (!verdict) return verdict;
  if (compared) gate.open(comparing_reason);  // it may be closed again at once
  follow_comparing();
  traffic.clear_retired(table());
  events.tell({.kind = redo ? EventKind::redone : EventKind::undone, .time = now(), .proposal = proposal});
  Following(*this).table_changed();
  return verdict;
}

/// The time to look at the open cards is over: they go to their zone, or are covered again.
void Impl::compare(double time) {
  const auto found = referee.end_comparing(time, events);
  if (!found) return follow_comparing();
  if (!found->found) (void)perform(apsidon::flip(found->cards, false));
  if (found->to() && found->match.end == MatchEnd::move)
    (void)perform(apsidon::move_cards(found->cards, found->to()));
  if (found->to() && found->match.end == MatchEnd::vanish)
    (void)perform(apsidon::collect(found->cards, found->to()));
  if (referee.follow_comparison(*found, time, events)) traffic.clear_retired(table());
  Following(*this).table_changed();
  follow_comparing();
}

}  // namespace apsidon::play_detail
