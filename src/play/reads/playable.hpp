#pragma once
// Which cards may be played now, where zones show it. Not installed.
#include <vector>

#include "apsidon/play/setup.hpp"
#include "play/decides/referee.hpp"

namespace apsidon::play_detail {

/// The cards of which some move may be made, of zones that show that.
///
/// Invariant: looked for only where a zone asks for it, and while it is the player's turn; else nothing is
/// shown of any card.
class Playable {
 public:
  /// As things are now. O(the legal moves).
  void look(const Referee& referee);
  /// Whether its zone dims it as one that may not.
  [[nodiscard]] bool dims(CardId card) const { return !dimmed_.empty() && holds(dimmed_, card); }
  /// The cards that their zones mark as such that may be played.
  [[nodiscard]] const std::vector<CardId>& marked() const { return marked_; }

 private:
  [[nodiscard]] static bool holds(const std::vector<CardId>& sorted, CardId card);

  std::vector<CardId> marked_ = {};  // in ascending order
  std::vector<CardId> dimmed_ = {};  // likewise
};

}  // namespace apsidon::play_detail
