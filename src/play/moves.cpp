// What a move is: a proposal with its answer, and all that follows from it.
#include <algorithm>

#include "apsidon/layout/free.hpp"
#include "play/impl.hpp"

namespace apsidon {

/// An event that is about a proposal.
Event Playfield::Impl::proposal_event(EventKind kind, const Proposal& p, double time) {
  return {.kind = kind,
          .time = time,
          .card = p.run.first,
          .count = p.run.count,
          .from = p.from,
          .to = p.to,
          .proposal = p.id};
}

/// A drop: the rules answer at once; what they allow, the game may answer, now or later.
void Playfield::Impl::propose(Proposal proposal, Vec2 at, double time) {
  Event event = proposal_event(EventKind::proposed, proposal, time);
  event.at = at;
  note(event);
  Verdict verdict = apsidon::judge_drop(setup.table, rulebook(), proposal.run, proposal.to);
  if (verdict && judge) {
    const std::optional<Verdict> answer = judge(proposal);
    if (!answer) return lock(proposal);
    if (!*answer) verdict = *answer;
  }
  settle(proposal, event, verdict);
}

/// Ends a proposal that is in the hand.
void Playfield::Impl::settle(const Proposal& proposal, Event event, const Verdict& answer) {
  event.verdict = answer;
  if (event.verdict) {
    const bool copied = options.drag.look == DragLook::copy && carry.mode == Carry::Mode::drag;
    if (copied) {
      // The cards go on from where their copies are.
      const Vec2 first = rests[slot(carry.run.first)].neutral.centre;
      for (const CardId id : setup.table.cards_of(carry.run)) {
        Pose pose = rests[slot(id)].resting;
        pose.centre = carried_middle(event.at) + (rests[slot(id)].neutral.centre - first);
        put(slot(id), pose);
        cards[slot(id)].departure = ++departures;
      }
    }
    const Verdict moved = apply(proposal, event.time);
    if (!moved) event.verdict = moved;
  }
  if (!event.verdict) {
    const CardId first = proposal.run.first;
    put_back(EventKind::refused, event);
    return start_effect(first, options.feel.shake, EffectKind::swing, 0);
  }
  event.kind = EventKind::dropped;
  note(event);
  forget_carry();
  lay_out_changed(Change::table);
  send_to_rest(proposal.run);
  follow_up(proposal.from, event.time);
}

/// Sends the cards of a run to where they rest, when they are on the way to somewhere else: those whose
/// resting pose has not changed were not sent by the layout.
void Playfield::Impl::send_to_rest(const Run& run) {
  for (const CardId id : setup.table.cards_of(run)) {
    const std::size_t s = slot(id);
    if (motion.goal(s) != rests[s].resting) fly(s, rests[s].resting, options.feel.move);
  }
}

/// Changes the table as a proposal has it: whole, or not at all.
Verdict Playfield::Impl::apply(const Proposal& p, double time) {
  Table& table = setup.table;
  const std::size_t to = p.to.value - 1;
  const auto run = table.cards_of(p.run);
  if (run.empty()) return {.reason = Reason::superseded, .card = p.run.first, .zone = p.to};
  history.note(table, true);  // what the game did before belongs to the move before
  if (would_exchange(table, rulebook(), p.run, p.to)) {
    const CardId other = *table.top(p.to);
    const Verdict swapped = table.swap(p.run.first, other);
    if (swapped) {
      note({.kind = EventKind::exchanged,
            .time = time,
            .card = other,
            .count = 1,
            .from = p.to,
            .to = p.from,
            .proposal = p.id});
    }
    return swapped;
  }
  const std::size_t own = p.from == p.to ? p.run.count : 0;
  const std::size_t room = table.zone(p.to)->cards.size() - own;
  const Verdict moved = table.move(p.run, p.to, std::min(p.at.value_or(room), room));
  if (!moved) return moved;
  const bool free = std::holds_alternative<FreeLayout>(setup.places[to].layout);
  for (const CardId id : table.cards_of(p.run)) {
    if (p.from != p.to) (void)table.turn(id, setup.handling[to].lays_sideways);
    if (!free || !p.middle) continue;
    const Card& card = *table.card(id);
    const LaidCard laid_card{.face_up = card.face_up, .sideways = card.sideways};
    (void)table.set_position(id, free_position(layout_input(p.to), laid_card, *p.middle));
  }
  return {};
}

/// All that belongs to a player's move: who lies uncovered now, what a zone takes by itself, and whether
/// anything is left to do.
void Playfield::Impl::follow_up(ZoneId from, double time) {
  first_move();
  uncover(from, time);
  take_what_fits(time);
  for (const Zone& zone : setup.table.zones()) {
    if (!zone.cards.empty()) uncover(zone.id, time);
  }
  after_change();
  step_over(time);
}

/// Cards have left a zone: it is empty now, or the card that lies uncovered is turned up, where that is a
/// rule.
void Playfield::Impl::uncover(ZoneId id, double time) {
  const auto top = setup.table.top(id);
  if (!top) return note({.kind = EventKind::emptied, .time = time, .from = id});
  if (!setup.rules[id.value - 1].turns_uncovered || setup.table.card(*top)->face_up) return;
  (void)setup.table.flip(*top, true);
  note({.kind = EventKind::flipped, .time = time, .card = *top, .count = 1, .from = id});
}

void Playfield::Impl::take_what_fits(double time) {
  const auto& zones = setup.table.zones();
  const auto takes = [&](const Zone& zone) { return setup.rules[zone.id.value - 1].takes_itself; };
  if (std::none_of(zones.begin(), zones.end(), takes)) return;
  for (bool again = true; again;) {
    again = false;
    for (const Zone& zone : zones) {
      const auto top = setup.table.top(zone.id);
      if (!top || takes(zone)) continue;
      const PickVerdict pick = judge_pick(*top);
      if (!pick.verdict || pick.run.count != 1) continue;
      const auto to = std::find_if(zones.begin(), zones.end(), [&](const Zone& bed) {
        return takes(bed) && apsidon::judge_drop(setup.table, rulebook(), pick.run, bed.id).allowed();
      });
      if (to == zones.end()) continue;
      (void)setup.table.move(pick.run, to->id);
      note({.kind = EventKind::taken, .time = time, .card = *top, .count = 1, .from = zone.id, .to = to->id});
      uncover(zone.id, time);
      again = true;
    }
  }
}

/// The player's move is whole: it is a step of undo, and it is seen whether any move is left.
void Playfield::Impl::step_over(double time) {
  history.note(setup.table);
  const bool none = !compare_at && !any_legal_move(setup.table, rulebook());
  // Where cards are turned by taps, turning them is a move that no rule knows of: the game has to say.
  const auto taps = [](const ZoneHandling& handling) { return handling.tap == TapKind::flip; };
  const bool by_taps = std::any_of(setup.handling.begin(), setup.handling.end(), taps);
  if (none && !none_left && !by_taps) note({.kind = EventKind::no_moves, .time = time});
  none_left = none;
}

/// The cards of a proposal wait at its target.
void Playfield::Impl::lock(const Proposal& p) {
  waiting.push_back(p);
  const auto run = setup.table.cards_of(p.run);
  waiting_cards.emplace_back(run.begin(), run.end());
  forget_carry();
  for (const CardId id : setup.table.cards_of(p.run)) cards[slot(id)].locked = true;
  show_at_target(p, Change::table);
}

/// Sends the cards of a proposal that waits to where they would lie; with a new window, at once.
void Playfield::Impl::show_at_target(const Proposal& p, Change change) {
  const auto run = setup.table.cards_of(p.run);
  const Zone& target = *setup.table.zone(p.to);
  const std::size_t n = target.cards.size();
  std::vector<LaidCard> there(n + run.size());
  std::vector<Pose> where(there.size());
  for (std::size_t i = 0; i < there.size(); ++i) {
    const Card& card = *setup.table.card(i < n ? target.cards[i] : run[i - n]);
    there[i] = {
        .face_up = card.face_up, .sideways = card.sideways, .cell = i < n ? card.cell : -1, .at = card.at};
  }
  LayoutInput in = layout_input(p.to);
  in.cards = there;
  apsidon::lay_out(setup.places[p.to.value - 1].layout, in, where);
  for (std::size_t i = 0; i < run.size(); ++i) {
    Pose goal = rests[slot(run[i])].resting;
    goal.centre = p.middle ? *p.middle : where[n + i].centre;
    goal.rotation = where[n + i].rotation;
    goal.scale = where[n + i].scale * setup.places[p.to.value - 1].factor;
    if (change == Change::window) {
      put(slot(run[i]), goal);
    } else {
      fly(slot(run[i]), goal, options.feel.move);
    }
  }
}

void Playfield::Impl::place_locked() {
  for (const Proposal& p : waiting) show_at_target(p, Change::window);
}

void Playfield::Impl::unlock(const Proposal& p) {
  const auto it =
      std::find_if(waiting.begin(), waiting.end(), [&](const Proposal& w) { return w.id == p.id; });
  const auto at = it - waiting.begin();
  for (const CardId card : waiting_cards[static_cast<std::size_t>(at)]) {
    if (const auto s = setup.table.slot(card)) cards[*s].locked = false;
  }
  waiting.erase(it);
  waiting_cards.erase(waiting_cards.begin() + at);
  stale = true;
}

/// Proposals whose run is no longer whole, or whose cards lie elsewhere, end.
void Playfield::Impl::supersede_torn() {
  for (std::size_t i = waiting.size(); i-- > 0;) {
    const Proposal p = waiting[i];
    const Card* first = setup.table.card(p.run.first);
    const auto run = setup.table.cards_of(p.run);
    const std::vector<CardId> own = waiting_cards[i];
    const bool whole =
        first && first->zone == p.from && std::equal(run.begin(), run.end(), own.begin(), own.end());
    if (whole) continue;
    unlock(p);
    Event event = proposal_event(EventKind::superseded, p, clock.now());
    event.verdict = {.reason = Reason::superseded, .card = p.run.first, .zone = p.to};
    note(event);
    for (const CardId card : own) {
      if (setup.table.card(card)) fly(slot(card), rests[slot(card)].resting, options.feel.back);
    }
  }
}

Verdict Playfield::answer(std::uint64_t id, const Verdict& verdict) {
  Impl& i = *impl_;
  i.record(AnswerInput{id, verdict, now()});
  const auto it =
      std::find_if(i.waiting.begin(), i.waiting.end(), [&](const Proposal& p) { return p.id == id; });
  if (it == i.waiting.end()) return {.reason = Reason::unknown_proposal};
  const Proposal p = *it;
  Event event = Impl::proposal_event(EventKind::refused, p, now());
  event.verdict = verdict;
  i.unlock(p);
  if (verdict) {
    // The rules may see it otherwise by now.
    event.verdict = apsidon::judge_drop(i.setup.table, i.rulebook(), p.run, p.to);
    if (event.verdict) event.verdict = i.apply(p, event.time);
    event.kind = event.verdict ? EventKind::dropped : EventKind::superseded;
  }
  i.note(event);
  if (!event.verdict) {
    for (const CardId card : i.setup.table.cards_of(p.run)) {
      i.fly(i.slot(card), i.rests[i.slot(card)].resting, i.options.feel.back);
    }
    if (event.kind == EventKind::refused)
      i.start_effect(p.run.first, i.options.feel.shake, EffectKind::swing, 0);
    return event.verdict;
  }
  i.lay_out_changed(Impl::Change::table);
  i.send_to_rest(p.run);
  i.follow_up(p.from, now());
  return event.verdict;
}

std::span<const Proposal> Playfield::waiting() const { return impl_->waiting; }
void Playfield::set_judge(Judge judge) { impl_->judge = std::move(judge); }

Verdict Playfield::Impl::go_back(bool redo) {
  cancel_all();
  const Verdict verdict = redo ? history.redo(setup.table) : history.undo(setup.table);
  if (!verdict) return verdict;
  find_opened();
  none_left = false;
  after_change();
  note({.kind = redo ? EventKind::redone : EventKind::undone, .time = clock.now()});
  return verdict;
}

Verdict Playfield::undo() {
  impl_->record(UndoInput{.redo = false, .time = now()});
  return impl_->go_back(false);
}
Verdict Playfield::redo() {
  impl_->record(UndoInput{.redo = true, .time = now()});
  return impl_->go_back(true);
}
bool Playfield::can_undo() const { return impl_->history.can_undo(); }
bool Playfield::can_redo() const { return impl_->history.can_redo(); }
void Playfield::mark_move() { impl_->history.note(table()); }

Verdict Playfield::Impl::draw_stock(ZoneId stock, double time) {
  const Verdict verdict = apsidon::judge_stock(setup.table, rulebook(), stock);
  if (!verdict) return verdict;
  history.note(setup.table, true);  // what the game did before belongs to the move before
  const ZoneId to = setup.rules[stock.value - 1].stock->to;
  Event event{.kind = EventKind::drawn, .time = time, .from = stock, .to = to};
  if (verdict.found == 0) {
    event.kind = EventKind::recycled;
    event.from = to;
    event.to = stock;
    event.count = setup.table.zone(to)->cards.size();
    event.card = *setup.table.top(to);
    (void)setup.table.turn_over(to, stock);
    note(event);
    after_change();
  } else {
    event.card = verdict.card;
    event.count = static_cast<std::size_t>(verdict.found);
    note(event);
    (void)perform(apsidon::draw(stock, to, event.count));
  }
  follow_up(event.from, time);
  return verdict;
}

Verdict Playfield::draw_from(ZoneId stock) { return impl_->draw_stock(stock, now()); }

/// The place that a run goes to by itself: one that takes by itself, else one with cards, else an empty one.
Verdict Playfield::Impl::send_best(CardId id, double time) {
  const PickVerdict pick = judge_pick(id);
  if (!pick.verdict) return pick.verdict;
  const Card& card = *setup.table.card(id);
  const auto worth = [&](const Zone& zone) {
    return setup.rules[zone.id.value - 1].takes_itself ? 2 : zone.cards.empty() ? 0 : 1;
  };
  const Zone* best = nullptr;
  Verdict why{.reason = Reason::drop_nothing, .card = id, .zone = card.zone};
  for (const Zone& zone : setup.table.zones()) {
    if (zone.id == card.zone || would_exchange(setup.table, rulebook(), pick.run, zone.id)) continue;
    const Verdict verdict = apsidon::judge_drop(setup.table, rulebook(), pick.run, zone.id);
    if (!verdict) {
      if (why.reason == Reason::drop_nothing) why = verdict;
      continue;
    }
    if (!best || worth(zone) > worth(*best)) best = &zone;
  }
  if (!best) return why;
  const ZoneId from = card.zone;
  const ZoneId to = best->id;
  carry = {.mode = Carry::Mode::tap};
  take(pick.run, from);
  carry.time = time;
  note(carry_event(EventKind::picked_up, time));
  propose({.id = ++proposals, .run = pick.run, .from = from, .to = to}, rests[slot(id)].neutral.centre, time);
  return {};
}

Verdict Playfield::send_to_best(CardId card) {
  impl_->cancel_all();
  return impl_->send_best(card, now());
}

}  // namespace apsidon
