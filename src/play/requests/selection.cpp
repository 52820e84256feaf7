#include "play/requests/selection.hpp"

#include <algorithm>

namespace apsidon::play_detail {

bool Selection::has(CardId card) const {
  return std::find(cards_.begin(), cards_.end(), card) != cards_.end();
}

Verdict Selection::judge(CardId card, const Referee& referee) const {
  if (has(card)) return {};
  return judge_select(referee.table(), referee.rulebook(), cards_, card);
}

Verdict Selection::select(CardId card, const Referee& referee, double time, EventQueue& events) {
  if (has(card)) return {};
  if (Verdict verdict = judge(card, referee); !verdict) return verdict;
  cards_.push_back(card);
  zones_.push_back(referee.table().card(card)->zone);
  ++revision_;
  tell(EventKind::selected, card, referee, time, events);
  return {};
}

void Selection::deselect(CardId card, const Referee& referee, double time, EventQueue& events) {
  const auto it = std::find(cards_.begin(), cards_.end(), card);
  if (it == cards_.end()) return;
  zones_.erase(zones_.begin() + (it - cards_.begin()));
  cards_.erase(it);
  ++revision_;
  tell(EventKind::deselected, card, referee, time, events);
}

void Selection::clear(const Referee& referee, double time, EventQueue& events) {
  while (!cards_.empty()) deselect(cards_.back(), referee, time, events);
}

void Selection::keep(const Referee& referee, double time, EventQueue& events) {
  const Rulebook rules = referee.plain_rulebook();
  for (std::size_t i = cards_.size(); i-- > 0;) {
    const Card* card = referee.table().card(cards_[i]);
    const bool off = card && !rules_detail::judge_switches(rules, *card);
    if (card && card->zone == zones_[i] && card->face_up && !off) continue;
    deselect(cards_[i], referee, time, events);
  }
}

void Selection::tell(EventKind kind, CardId card, const Referee& referee, double time,
                     EventQueue& events) const {
  const Card* there = referee.table().card(card);
  events.tell({.kind = kind,
               .time = time,
               .card = card,
               .count = cards_.size(),
               .from = there ? there->zone : ZoneId{}},
              referee.table());
}

}  // namespace apsidon::play_detail
