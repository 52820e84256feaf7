// Cards that players open, and that are compared when they have been seen.
#include "play/decides/referee.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {

/// When as many lie open as are compared, the player is given the time to look at them.
void Referee::begin_comparing(double own) {
  if (compare_at_) return;
  const auto found = rules_detail::find_comparison(setup_.table, plain_rulebook());
  if (found) compare_at_ = own + found->match.seconds;
}

std::optional<Comparison> Referee::end_comparing(double time, EventQueue& events) {
  compare_at_.reset();
  auto found = rules_detail::find_comparison(setup_.table, plain_rulebook());
  if (!found) return found;
  events.tell({.kind = found->found ? EventKind::matched : EventKind::unmatched,
               .time = time,
               .card = found->cards.front(),
               .count = found->cards.size(),
               .from = found->zone,
               .to = found->to(),
               .cards = found->cards},
              setup_.table);
  return found;
}

bool Referee::follow_comparison(const Comparison& found, double time, EventQueue& events) {
  steps_.clear();
  rules_detail::end_comparison(setup_.table, found, steps_);
  const bool removed = follow_up(found.to() ? found.zone : ZoneId{}, time, events);
  history_.note(setup_.table, true);
  return removed;
}

}  // namespace apsidon::play_detail
