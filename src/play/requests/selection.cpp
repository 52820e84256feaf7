#include "play/requests/selection.hpp"

#include <algorithm>

namespace apsidon::play_detail {

bool Selection::has(CardId card) const {
  return std::find(cards_.begin(), cards_.end(), card) != cards_.end();
}

Verdict Selection::judge(CardId card, const Table& table, const Rulebook& rules) const {
  return has(card) ? Verdict{} : judge_select(table, rules, cards_, card);
}

Verdict Selection::select(CardId card, const Referee& referee, double time, EventQueue& events) {
  if (has(card)) return {};
  if (Verdict verdict = judge(card, referee.table(), referee.rulebook()); !verdict) return verdict;
  cards_.push_back(card);
  zones_.push_back(referee.table().card(card)->zone);
  ++revision_;
  tell(EventKind::selected, card, cards_.size(), referee, time, events);
  return {};
}

void Selection::deselect(CardId card, const Referee& referee, double time, EventQueue& events) {
  const auto it = std::find(cards_.begin(), cards_.end(), card);
  if (it == cards_.end()) return;
  zones_.erase(zones_.begin() + (it - cards_.begin()));
  cards_.erase(it);
  ++revision_;
  tell(EventKind::deselected, card, cards_.size(), referee, time, events);
  keep(referee, time, events);
}

void Selection::clear(const Referee& referee, double time, EventQueue& events) {
  // From the last on: those before it could be chosen without it.
  while (!cards_.empty()) deselect(cards_.back(), referee, time, events);
}

void Selection::tell_again(const Referee& referee, double time, EventQueue& events) {
  for (std::size_t i = 0; i < cards_.size(); ++i)
    tell(EventKind::selected, cards_[i], i + 1, referee, time, events);
}

void Selection::keep(const Referee& referee, double time, EventQueue& events) {
  Rulebook rules = referee.rulebook();
  rules.locked = {};  // they are chosen while they wait, and again when that is refused
  for (std::size_t i = 0; i < cards_.size(); ++i) {
    const Card* card = referee.table().card(cards_[i]);
    const auto before = std::span(cards_).first(i);
    if (card && card->zone == zones_[i] && judge_select(referee.table(), rules, before, cards_[i])) continue;
    return deselect(cards_[i], referee, time, events);  // and what is kept after that
  }
}

void Selection::begin_sweep(std::uint32_t pointer, Vec2 from) {
  sweep_ = Sweep{.pointer = pointer, .from = from, .box = {from, from}, .before = cards_};
  ++revision_;
}

void Selection::end_sweep() {
  if (sweep_) ++revision_;
  sweep_.reset();
}

void Selection::sweep_to(Vec2 at, const Arrangement& arrangement, const Referee& referee, double time,
                         EventQueue& events) {
  const Vec2 from = sweep_->from;
  sweep_->box = {{std::min(from.x, at.x), std::min(from.y, at.y)},
                 {std::max(from.x, at.x), std::max(from.y, at.y)}};
  ++revision_;
  const Table& table = referee.table();
  const auto is_in = [&](CardId card) {
    return sweep_->box.contains(arrangement.neutral(*table.slot(card)).centre);
  };
  const auto was = [&](CardId card) {
    return std::find(sweep_->before.begin(), sweep_->before.end(), card) != sweep_->before.end();
  };
  for (std::size_t i = cards_.size(); i-- > 0;) {
    // What is let go may take those along that followed it.
    if (i < cards_.size() && !was(cards_[i]) && !is_in(cards_[i])) deselect(cards_[i], referee, time, events);
  }
  for (const Zone& zone : table.zones()) {
    if (!referee.setup().rules_of(zone.id).select) continue;
    for (const CardId card : zone.cards) {
      if (is_in(card)) (void)select(card, referee, time, events);
    }
  }
}

void Selection::tell(EventKind kind, CardId card, std::size_t count, const Referee& referee, double time,
                     EventQueue& events) const {
  const Card* there = referee.table().card(card);
  events.tell(
      {.kind = kind, .time = time, .card = card, .count = count, .from = there ? there->zone : ZoneId{}},
      referee.table());
}

}  // namespace apsidon::play_detail
