#include "play/decides/playable.hpp"

#include <utility>

#include "apsidon/rules/move.hpp"

namespace apsidon::play_detail {

namespace {

PlayableLook look_of(const Referee& referee, const Zone& zone) {
  return referee.setup().handling_of(zone.id).playable;
}

}  // namespace

bool Playable::shows_any(const Referee& referee) {
  const auto zones = referee.table().zones();
  return std::any_of(zones.begin(), zones.end(),
                     [&](const Zone& zone) { return look_of(referee, zone) != PlayableLook::none; });
}

void Playable::look(const Referee& referee) {
  seen_ = revision_of(referee);
  const std::pair before{std::move(marked_), std::move(dimmed_)};
  marked_ = {};
  dimmed_ = {};
  std::vector<CardId> playable;
  if (referee.is_on_turn() && shows_any(referee)) {
    for (const Move& move : legal_moves(referee.table(), referee.rulebook())) {
      const std::vector<CardId> cards = referee.cards_of(move);
      playable.insert(playable.end(), cards.begin(), cards.end());
    }
    std::sort(playable.begin(), playable.end());
    for (const Zone& zone : referee.table().zones()) {
      const PlayableLook look = look_of(referee, zone);
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
