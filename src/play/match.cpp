// Cards that a player opens one by one, and that are compared when enough lie open.
#include <algorithm>
#include <iterator>
#include <utility>

#include "play/impl.hpp"

namespace apsidon {

/// Turns a card over by hand. Where cards are compared, only covered ones are, and no more than are compared.
Verdict Playfield::Impl::turn_by_hand(CardId id, double time) {
  const Card* card = setup.table.card(id);
  if (!card) return {.reason = Reason::unknown_card, .card = id};
  const ZoneId zone = card->zone;
  const auto& match = setup.handling[zone.value - 1].match;
  if (match && card->face_up) return {.reason = Reason::too_many_open, .card = id, .zone = zone, .wanted = 1};
  const auto most = static_cast<std::size_t>(match ? match->open : 0);
  if (match && opened.size() >= most) {
    return {.reason = Reason::too_many_open, .card = id, .zone = zone, .wanted = match->open};
  }
  history.note(setup.table, true);
  const Verdict verdict = setup.table.flip(id, !card->face_up);
  note({.kind = EventKind::flipped, .time = time, .card = id, .count = 1, .from = zone});
  first_move();
  if (match) {
    opened.push_back(id);
    compare_when_enough(zone);
  }
  after_change();
  step_over(time);
  return verdict;
}

/// When as many lie open as are compared, the player is given the time to look at them.
void Playfield::Impl::compare_when_enough(ZoneId zone) {
  const MatchRule& match = *setup.handling[zone.value - 1].match;
  if (opened.size() < static_cast<std::size_t>(match.open)) return;
  compare_at = own_now() + match.seconds;
  comparing = zone;
  close_gate("comparing");
}

/// After a step back or forth: the cards that lie open are those to be compared; not whole sets, where those
/// stay once they are found.
void Playfield::Impl::find_opened() {
  opened.clear();
  if (compare_at) std::erase(gates, "comparing");  // it may be closed again at once
  compare_at.reset();
  const Table& table = setup.table;
  for (const Zone& zone : table.zones()) {
    const auto& match = setup.handling[zone.id.value - 1].match;
    if (!match || !opened.empty()) continue;
    std::vector<CardId> open;
    std::copy_if(zone.cards.begin(), zone.cards.end(), std::back_inserter(open),
                 [&](CardId id) { return table.card(id)->face_up; });
    const auto face = [&](CardId id) { return table.card(id)->face; };
    std::copy_if(open.begin(), open.end(), std::back_inserter(opened), [&](CardId id) {
      const auto together = std::count_if(open.begin(), open.end(), [&](CardId other) {
        return other != id && table.deck().belong_together(face(id), face(other));
      });
      return match->to || together + 1 < match->open;
    });
    // More than are compared were not opened by taps.
    if (opened.size() > static_cast<std::size_t>(match->open)) opened.clear();
    if (!opened.empty()) compare_when_enough(zone.id);
  }
}

/// The time to look at the open cards is over.
void Playfield::Impl::compare(double time) {
  compare_at.reset();
  open_gate("comparing");
  std::vector<CardId> found = std::move(opened);
  opened.clear();
  std::erase_if(found, [&](CardId id) { return !setup.table.card(id); });
  const auto& match = setup.handling[comparing.value - 1].match;
  if (found.empty() || !match) return;
  const Deck& deck = setup.table.deck();
  const auto face = [&](CardId id) { return setup.table.card(id)->face; };
  const bool sets = found.size() == static_cast<std::size_t>(match->open) &&
                    std::all_of(found.begin(), found.end(), [&](CardId id) {
                      return deck.belong_together(face(found.front()), face(id));
                    });
  note({.kind = sets ? EventKind::matched : EventKind::unmatched,
        .time = time,
        .card = found.front(),
        .count = found.size(),
        .from = comparing,
        .to = sets ? match->to : ZoneId{}});
  (void)perform(sets ? apsidon::send(found, match->to) : apsidon::flip(found, false));
  if (sets && setup.table.zone(comparing)->cards.empty()) {
    note({.kind = EventKind::emptied, .time = time, .from = comparing});
  }
  history.note(setup.table, true);
}

}  // namespace apsidon
