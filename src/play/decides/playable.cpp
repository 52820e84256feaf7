#include "play/decides/playable.hpp"

#include <utility>

#include "apsidon/rules/move.hpp"

namespace apsidon::play_detail {

void Playable::look(const Referee& referee) {
  seen_ = revision_of(referee);
  const std::pair before{std::move(marked_), std::move(dimmed_)};
  marked_ = {};
  dimmed_ = {};
  const Table& table = referee.table();
  const auto look_of = [&](const Zone& zone) { return referee.setup().handling_of(zone.id).playable; };
  const auto zones = table.zones();
  const auto shows = [&](const Zone& zone) { return look_of(zone) != PlayableLook::none; };
  std::vector<CardId> playable;
  if (referee.is_on_turn() && std::any_of(zones.begin(), zones.end(), shows)) {
    for (const Move& move : legal_moves(table, referee.rulebook())) {
      const std::vector<CardId> cards = referee.cards_of(move);
      playable.insert(playable.end(), cards.begin(), cards.end());
    }
    std::sort(playable.begin(), playable.end());
    for (const Zone& zone : zones) {
      const PlayableLook look = look_of(zone);
      for (const CardId card : zone.cards) {
        const bool may = std::binary_search(playable.begin(), playable.end(), card);
        if (look == PlayableLook::mark && may) marked_.push_back(card);
        if (look == PlayableLook::dim && !may) dimmed_.push_back(card);
      }
    }
    std::sort(marked_.begin(), marked_.end());
    std::sort(dimmed_.begin(), dimmed_.end());
  }
  if (before.first != marked_ || before.second != dimmed_) ++revision_;
}

}  // namespace apsidon::play_detail
