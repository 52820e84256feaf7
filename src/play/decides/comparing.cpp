// Cards that a player opens one by one, and that are compared when enough lie open.
#include <algorithm>
#include <iterator>
#include <utility>

#include "play/decides/referee.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {

Verdict Referee::flip_by_hand(CardId id, double own, double time, EventQueue& events) {
  const Card* card = setup_.table.card(id);
  if (!card) return {.reason = Reason::unknown_card, .card = id};
  const ZoneId zone = card->zone;
  if (Verdict off = rules_detail::judge_switches(plain_rulebook(), *card); !off) return off;
  const auto& match = setup_.handling_of(zone).match;
  if (match && card->face_up) return {.reason = Reason::open_already, .card = id, .zone = zone};
  const auto most = static_cast<std::size_t>(match ? match->open : 0);
  if (match && opened_.size() >= most) {
    return {.reason = Reason::too_many_open, .card = id, .zone = zone, .wanted = match->open};
  }
  history_.note(setup_.table, true);
  const Verdict verdict = setup_.table.flip(id, !card->face_up);
  events.tell({.kind = EventKind::flipped, .time = time, .card = id, .count = 1, .from = zone}, setup_.table);
  if (match) {
    opened_.push_back(id);
    by_hand_.insert(id);
    compare_when_enough(zone, own);
  }
  return verdict;
}

/// When as many lie open as are compared, the player is given the time to look at them.
void Referee::compare_when_enough(ZoneId zone, double own) {
  const MatchRule& match = *setup_.handling_of(zone).match;
  if (opened_.size() < static_cast<std::size_t>(match.open)) return;
  compare_at_ = own + match.seconds;
  comparing_ = zone;
}

void Referee::forget_closed() {
  std::erase_if(opened_, [&](CardId id) {
    const Card* card = setup_.table.card(id);
    return !card || !card->face_up;
  });
}

/// After a step back or forth: the cards that lie open are those to be compared; not whole sets, where those
/// stay once they are found.
void Referee::find_opened(double own) {
  opened_.clear();
  compare_at_.reset();
  const Table& table = setup_.table;
  for (const Zone& zone : table.zones()) {
    const auto& match = setup_.handling_of(zone.id).match;
    if (!match || !opened_.empty()) continue;
    std::vector<CardId> open;
    std::copy_if(zone.cards.begin(), zone.cards.end(), std::back_inserter(open),
                 [&](CardId id) { return by_hand_.contains(id) && table.card(id)->face_up; });
    const auto face = [&](CardId id) { return table.card(id)->face; };
    std::copy_if(open.begin(), open.end(), std::back_inserter(opened_), [&](CardId id) {
      const auto together = std::count_if(open.begin(), open.end(), [&](CardId other) {
        return other != id && table.deck().belong_together(face(id), face(other));
      });
      return match->end != MatchEnd::stay || together + 1 < match->open;
    });
    // More than are compared were not opened by taps.
    if (opened_.size() > static_cast<std::size_t>(match->open)) opened_.clear();
    if (!opened_.empty()) compare_when_enough(zone.id, own);
  }
}

Comparison Referee::end_comparison() {
  compare_at_.reset();
  Comparison found{.cards = std::exchange(opened_, {}), .zone = comparing_};
  std::erase_if(found.cards, [&](CardId id) { return !setup_.table.card(id); });
  const auto& match = setup_.handling_of(comparing_).match;
  if (!match) found.cards.clear();
  if (found.cards.empty()) return found;
  const Deck& deck = setup_.table.deck();
  const auto face = [&](CardId id) { return setup_.table.card(id)->face; };
  const bool together = found.cards.size() == static_cast<std::size_t>(match->open) &&
                        std::all_of(found.cards.begin(), found.cards.end(), [&](CardId id) {
                          return deck.belong_together(face(found.cards.front()), face(id));
                        });
  found.found = together;
  found.end = match->end;
  if (together) found.to = match->to;
  return found;
}

void Referee::tell(const Comparison& found, double time, EventQueue& events) const {
  events.tell({.kind = found.found ? EventKind::matched : EventKind::unmatched,
               .time = time,
               .card = found.cards.front(),
               .count = found.cards.size(),
               .from = found.zone,
               .to = found.to,
               .cards = found.cards},
              setup_.table);
}

void Referee::finish_comparison(const Comparison& found, double time, EventQueue& events) {
  if (found.to && setup_.table.zone(found.zone)->cards.empty()) {
    events.tell({.kind = EventKind::emptied, .time = time, .from = found.zone});
  }
  history_.note(setup_.table, true);
}

}  // namespace apsidon::play_detail
