// The order of a move and what belongs to it.
#include "play/impl.hpp"

namespace apsidon::play_detail {

/// A proposal was allowed: its cards go to where they rest, and the move is finished.
void Impl::finish_drop(const Proposal& proposal, double time) {
  Sender by_feel;
  lay_out_changed(by_feel);
  // Cards whose resting pose has not changed were not sent by the layout, and may be on their way to
  // somewhere else.
  for (const CardId card : table().cards_of(proposal.run)) {
    const Pose& resting = arrangement.resting(slot(card));
    if (traffic.motion().goal(slot(card)) != resting) traffic.fly(slot(card), resting, feel().move);
  }
  finish_move(proposal.from, time);
}

/// The player has moved cards from a zone: consequences, undo, and whether any move is left.
void Impl::finish_move(ZoneId from, double time) {
  schedule.start_waiting(traffic.now());
  referee.follow_up(from, time, events);
  after_change();
  referee.finish_move(time, events);
}

Verdict Impl::answer(std::uint64_t id, const Verdict& verdict) {
  const Proposal* found = referee.find(id);
  if (!found) return {.reason = Reason::unknown_proposal};
  const Proposal proposal = *found;
  (void)unlock(id);
  const Verdict applied =
      referee.answer(proposal, arrangement.input(setup(), proposal.to), verdict, now(), events);
  if (applied) {
    finish_drop(proposal, now());
    return applied;
  }
  send_home(table().cards_of(proposal.run));
  if (!verdict) shake(proposal.run.first);
  return applied;
}

Verdict Impl::flip_by_hand(CardId card, double time) {
  const Verdict verdict = referee.flip_by_hand(card, traffic.now(), time, events);
  if (!verdict) return verdict;
  schedule.start_waiting(traffic.now());
  follow_comparing();
  after_change();
  referee.finish_move(time, events);
  return verdict;
}

Verdict Impl::draw_from(ZoneId stock, double time) {
  const Verdict verdict = referee.draw_from(stock, time, events);
  if (!verdict) return verdict;
  const ZoneId waste = setup().rules_of(stock).stock->to;
  if (verdict.found == 0) {
    after_change();
  } else {
    (void)perform(apsidon::draw(stock, waste, static_cast<std::size_t>(verdict.found)));
  }
  finish_move(verdict.found == 0 ? waste : stock, time);
  return verdict;
}

Verdict Impl::send_best(CardId card, double time) {
  const Referee::Best best = referee.best_zone_for(card);
  if (!best.verdict) return best.verdict;
  hand.take({.mode = Hand::Carry::Mode::tap, .time = time}, best.run, table());
  events.tell(hand.event(EventKind::picked_up, time));
  propose({.run = best.run, .from = best.from, .to = best.to}, arrangement.neutral(slot(card)).centre, time);
  return {};
}

Verdict Impl::go_back(bool redo) {
  cancel_all();
  const bool compared = referee.comparing();
  const Verdict verdict = referee.go_back(redo, traffic.now());
  if (!verdict) return verdict;
  if (compared) gate.open(comparing_reason);  // it may be closed again at once
  follow_comparing();
  after_change();
  events.tell({.kind = redo ? EventKind::redone : EventKind::undone, .time = now()});
  return verdict;
}

/// The time to look at the open cards is over: they go to their zone, or are covered again.
void Impl::compare(double time) {
  const Comparison found = referee.end_comparison();
  follow_comparing();
  if (found.cards.empty()) return;
  referee.tell(found, time, events);
  (void)perform(found.to ? apsidon::move_cards(found.cards, found.to) : apsidon::flip(found.cards, false));
  referee.finish_comparison(found, time, events);
}

}  // namespace apsidon::play_detail
