#include "play/reads/playable.hpp"

#include <algorithm>

#include "apsidon/rules/move.hpp"

namespace apsidon::play_detail {

bool Playable::holds(const std::vector<CardId>& sorted, CardId card) {
  return std::binary_search(sorted.begin(), sorted.end(), card);
}

void Playable::look(const Referee& referee) {
  marked_.clear();
  dimmed_.clear();
  const Table& table = referee.table();
  const auto look_of = [&](const Zone& zone) { return referee.setup().handling_of(zone.id).playable; };
  const auto zones = table.zones();
  const auto shows = [&](const Zone& zone) { return look_of(zone) != PlayableLook::none; };
  if (!referee.is_on_turn() || std::none_of(zones.begin(), zones.end(), shows)) return;
  std::vector<CardId> playable;
  for (const Move& move : legal_moves(table, referee.plain_rulebook())) {
    const std::vector<CardId> cards = referee.cards_of(move);
    playable.insert(playable.end(), cards.begin(), cards.end());
  }
  std::sort(playable.begin(), playable.end());
  for (const Zone& zone : zones) {
    const PlayableLook look = look_of(zone);
    for (const CardId card : zone.cards) {
      const bool may = holds(playable, card);
      if (look == PlayableLook::mark && may) marked_.push_back(card);
      if (look == PlayableLook::dim && !may) dimmed_.push_back(card);
    }
  }
  std::sort(marked_.begin(), marked_.end());
  std::sort(dimmed_.begin(), dimmed_.end());
}

}  // namespace apsidon::play_detail
