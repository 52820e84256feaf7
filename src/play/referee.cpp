#include "play/referee.hpp"

#include <algorithm>
#include <limits>
#include <utility>

#include "apsidon/layout/free.hpp"
#include "play/cells.hpp"

namespace apsidon::play_detail {

Referee::Referee(TableSetup setup, std::size_t most_undos)
    : setup_(std::move(setup)),
      history_(most_undos),
      celled_(setup_.table.zones().size(), ~std::uint64_t{0}) {
  give_cells();
  history_.start(setup_.table);
}

void Referee::give_cells() {
  for (const Zone& zone : setup_.table.zones()) {
    const auto* grid = std::get_if<GridLayout>(&setup_.layout_of(zone.id).layout);
    std::uint64_t& seen = celled_[zone.id.value - 1];
    if (!grid || !grid->keeps_cells || seen == zone.revision) continue;
    apsidon::give_cells(setup_.table, zone.id);
    seen = zone.revision;
  }
}

PickVerdict Referee::judge_pick(CardId card) const {
  PickVerdict pick = apsidon::judge_pick(setup_.table, setup_.rulebook(), card);
  for (const CardId id :
       waiting_cards_.empty() ? std::span<const CardId>{} : setup_.table.cards_of(pick.run)) {
    const bool locked = std::any_of(waiting_cards_.begin(), waiting_cards_.end(), [&](const auto& cards) {
      return std::find(cards.begin(), cards.end(), id) != cards.end();
    });
    if (!locked) continue;
    pick.verdict = {.reason = Reason::locked, .card = id, .zone = setup_.table.card(id)->zone};
    pick.run.count = 0;
    break;
  }
  return pick;
}

Verdict Referee::judge_stock(ZoneId stock) const {
  return apsidon::judge_stock(setup_.table, setup_.rulebook(), stock);
}

Event Referee::event_of(EventKind kind, const Proposal& p, double time) {
  return {.kind = kind,
          .time = time,
          .card = p.run.first,
          .count = p.run.count,
          .from = p.from,
          .to = p.to,
          .proposal = p.id};
}

Ruling Referee::propose(const Proposal& p, const LayoutInput& target, Vec2 at, double time,
                        EventQueue& events) {
  Event event = event_of(EventKind::proposed, p, time);
  event.at = at;
  events.tell(std::move(event));
  Ruling ruling{.verdict = judge_drop(setup_.table, setup_.rulebook(), p.run, p.to)};
  if (ruling.verdict && judge_) {
    const std::optional<Verdict> answer = judge_(p);
    if (!answer) {
      waiting_.push_back(p);
      const auto run = setup_.table.cards_of(p.run);
      waiting_cards_.emplace_back(run.begin(), run.end());
      ++revision_;
      return {.waits = true};
    }
    if (!*answer) ruling.verdict = *answer;
  }
  if (!ruling.verdict) return ruling;
  const Verdict applied = apply(p, target, time, events);
  if (!applied) ruling.verdict = applied;
  return ruling;
}

const Proposal* Referee::find(std::uint64_t id) const {
  const auto it =
      std::find_if(waiting_.begin(), waiting_.end(), [&](const Proposal& p) { return p.id == id; });
  return it == waiting_.end() ? nullptr : &*it;
}

std::vector<CardId> Referee::end_waiting(std::uint64_t id) {
  const auto at = find(id) - waiting_.data();
  std::vector<CardId> cards = std::move(waiting_cards_[static_cast<std::size_t>(at)]);
  waiting_.erase(waiting_.begin() + at);
  waiting_cards_.erase(waiting_cards_.begin() + at);
  ++revision_;
  return cards;
}

Verdict Referee::answer(const Proposal& p, const LayoutInput& target, const Verdict& verdict, double time,
                        EventQueue& events) {
  Event event = event_of(EventKind::refused, p, time);
  event.verdict = verdict;
  if (verdict) {
    // The rules may see it otherwise by now.
    event.verdict = judge_drop(setup_.table, setup_.rulebook(), p.run, p.to);
    if (event.verdict) event.verdict = apply(p, target, time, events);
    event.kind = event.verdict ? EventKind::dropped : EventKind::superseded;
  }
  events.tell(event);
  return event.verdict;
}

std::optional<Proposal> Referee::torn() const {
  for (std::size_t i = waiting_.size(); i-- > 0;) {
    const Proposal& p = waiting_[i];
    const Card* first = setup_.table.card(p.run.first);
    const auto run = setup_.table.cards_of(p.run);
    const auto& own = waiting_cards_[i];
    const bool whole =
        first && first->zone == p.from && std::equal(run.begin(), run.end(), own.begin(), own.end());
    if (!whole) return p;
  }
  return std::nullopt;
}

void Referee::supersede(const Proposal& p, double time, EventQueue& events) const {
  Event event = event_of(EventKind::superseded, p, time);
  event.verdict = {.reason = Reason::superseded, .card = p.run.first, .zone = p.to};
  events.tell(std::move(event));
}

/// Changes the table as a proposal has it: whole, or not at all.
Verdict Referee::apply(const Proposal& p, const LayoutInput& target, double time, EventQueue& events) {
  Table& table = setup_.table;
  const auto run = table.cards_of(p.run);
  if (run.empty()) return {.reason = Reason::superseded, .card = p.run.first, .zone = p.to};
  history_.note(table, true);  // what the game did before belongs to the move before
  if (would_exchange(table, setup_.rulebook(), p.run, p.to)) {
    const CardId other = *table.top(p.to);
    const Verdict swapped = table.swap(p.run.first, other);
    if (swapped) {
      events.tell({.kind = EventKind::exchanged,
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
  const bool free = p.middle && std::holds_alternative<FreeLayout>(setup_.layout_of(p.to).layout);
  for (const CardId id : table.cards_of(p.run)) {
    if (p.from != p.to) (void)table.set_sideways(id, setup_.handling_of(p.to).lays_sideways);
    if (!free) continue;
    const Card& card = *table.card(id);
    const LaidCard laid{.face_up = card.face_up, .sideways = card.sideways};
    (void)table.set_position(id, free_position(target, laid, *p.middle));
  }
  return {};
}

void Referee::follow_up(ZoneId from, double time, EventQueue& events) {
  uncover(from, time, events);
  take_what_fits(time, events);
  for (const Zone& zone : setup_.table.zones()) {
    if (!zone.cards.empty()) uncover(zone.id, time, events);
  }
}

/// Cards have left a zone: it is empty now, or the card that lies uncovered is flipped, where that is a rule.
void Referee::uncover(ZoneId zone, double time, EventQueue& events) {
  const auto top = setup_.table.top(zone);
  if (!top) return events.tell({.kind = EventKind::emptied, .time = time, .from = zone});
  if (!setup_.rules_of(zone).flips_uncovered || setup_.table.card(*top)->face_up) return;
  (void)setup_.table.flip(*top, true);
  events.tell({.kind = EventKind::flipped, .time = time, .card = *top, .count = 1, .from = zone});
}

void Referee::take_what_fits(double time, EventQueue& events) {
  const auto& zones = setup_.table.zones();
  const auto takes = [&](const Zone& zone) { return setup_.rules_of(zone.id).takes_itself; };
  if (std::none_of(zones.begin(), zones.end(), takes)) return;
  for (bool again = true; again;) {
    again = false;
    for (const Zone& zone : zones) {
      const auto top = setup_.table.top(zone.id);
      if (!top || takes(zone)) continue;
      const PickVerdict pick = judge_pick(*top);
      if (!pick.verdict || pick.run.count != 1) continue;
      const auto to = std::find_if(zones.begin(), zones.end(), [&](const Zone& bed) {
        return takes(bed) && judge_drop(setup_.table, setup_.rulebook(), pick.run, bed.id).allowed();
      });
      if (to == zones.end()) continue;
      (void)setup_.table.move(pick.run, to->id);
      events.tell(
          {.kind = EventKind::taken, .time = time, .card = *top, .count = 1, .from = zone.id, .to = to->id});
      uncover(zone.id, time, events);
      again = true;
    }
  }
}

void Referee::finish_move(double time, EventQueue& events) {
  history_.note(setup_.table);
  const bool none = !compare_at_ && !any_legal_move(setup_.table, setup_.rulebook());
  // Where cards are flipped by taps, that is a move that no rule knows of: the game has to say.
  const auto zones = setup_.table.zones();
  const bool by_taps = std::any_of(zones.begin(), zones.end(), [&](const Zone& zone) {
    return setup_.handling_of(zone.id).tap == TapKind::flip;
  });
  if (none && !no_moves_told_ && !by_taps) events.tell({.kind = EventKind::no_moves, .time = time});
  no_moves_told_ = none;
}

Verdict Referee::go_back(bool redo, double own) {
  const Verdict verdict = redo ? history_.redo(setup_.table) : history_.undo(setup_.table);
  if (!verdict) return verdict;
  find_opened(own);
  no_moves_told_ = false;
  return verdict;
}

Verdict Referee::draw_from(ZoneId stock, double time, EventQueue& events) {
  const Verdict verdict = judge_stock(stock);
  if (!verdict) return verdict;
  history_.note(setup_.table, true);  // what the game did before belongs to the move before
  const ZoneId to = setup_.rules_of(stock).stock->to;
  Event event{.kind = EventKind::drawn, .time = time, .from = stock, .to = to};
  if (verdict.found == 0) {
    event.kind = EventKind::recycled;
    event.from = to;
    event.to = stock;
    event.count = setup_.table.zone(to)->cards.size();
    event.card = *setup_.table.top(to);
    (void)setup_.table.recycle(to, stock);
  } else {
    event.card = verdict.card;
    event.count = static_cast<std::size_t>(verdict.found);
  }
  events.tell(std::move(event));
  return verdict;
}

Referee::Best Referee::best_zone_for(CardId id) const {
  const PickVerdict pick = judge_pick(id);
  if (!pick.verdict) return {.verdict = pick.verdict};
  const Card& card = *setup_.table.card(id);
  const auto worth = [&](const Zone& zone) {
    return setup_.rules_of(zone.id).takes_itself ? 2 : zone.cards.empty() ? 0 : 1;
  };
  const Zone* best = nullptr;
  Verdict why{.reason = Reason::drop_nothing, .card = id, .zone = card.zone};
  for (const Zone& zone : setup_.table.zones()) {
    if (zone.id == card.zone || would_exchange(setup_.table, setup_.rulebook(), pick.run, zone.id)) continue;
    const Verdict verdict = judge_drop(setup_.table, setup_.rulebook(), pick.run, zone.id);
    if (!verdict) {
      if (why.reason == Reason::drop_nothing) why = verdict;
      continue;
    }
    if (!best || worth(zone) > worth(*best)) best = &zone;
  }
  if (!best) return {.verdict = why};
  return {.run = pick.run, .from = card.zone, .to = best->id};
}

void Referee::perform(const Act& act) {
  Table& table = setup_.table;
  switch (act.kind) {
    case ActKind::gather:
      (void)table.gather(act.cards, act.to);
      break;
    case ActKind::shuffle:
      (void)table.shuffle(act.to, act.seed);
      break;
    case ActKind::draw:
      (void)table.take(act.from, act.to, act.count, act.face_up);
      break;
    case ActKind::move:
      for (const CardId card : act.cards) (void)table.move({card, 1}, act.to);
      break;
    case ActKind::flip:
      for (const CardId card : act.cards) (void)table.flip(card, act.face_up);
      break;
    default:
      break;
  }
}

}  // namespace apsidon::play_detail
