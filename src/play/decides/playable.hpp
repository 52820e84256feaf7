#pragma once
// Which cards may be played now, where zones show it. Not installed.
#include <algorithm>
#include <cstdint>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "play/decides/referee.hpp"

namespace apsidon::play_detail {

/// The cards of which some move may be made, of zones that show that. It asks the game's rules, so it looks
/// when all has happened that was to happen at a time, as the standing does, and not frame by frame.
///
/// Invariant: it is due once after each change of the table or of what rules go by; looked for only where a
/// zone asks for it, and while it is the player's turn, else nothing is shown of any card.
class Playable {
 public:
  explicit Playable(const Referee& referee)
      : seen_(shows_any(referee) ? ~std::uint64_t{0} : revision_of(referee)) {}

  [[nodiscard]] bool is_due(const Referee& referee) const { return seen_ != revision_of(referee); }
  /// As things are now. O(the legal moves).
  void look(const Referee& referee);
  /// The cards that their zones mark as such that may be played, in ascending order.
  [[nodiscard]] const std::vector<CardId>& marked() const { return marked_; }
  /// Whether its zone dims it as one that may not.
  [[nodiscard]] bool dims(CardId card) const {
    return !dimmed_.empty() && std::binary_search(dimmed_.begin(), dimmed_.end(), card);
  }
  /// Grows whenever either has changed.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  [[nodiscard]] static std::uint64_t revision_of(const Referee& referee) {
    return referee.table().revision() + referee.revision();
  }
  [[nodiscard]] static bool shows_any(const Referee& referee);

  std::vector<CardId> marked_ = {};
  std::vector<CardId> dimmed_ = {};
  std::uint64_t seen_;
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
