#pragma once
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/rules/move.hpp"

namespace apsidon {

/// What may be done, and why not: `field.rules().judge_pick(card)`.
class APSIDON_CORE_EXPORT RulesView {
 public:
  explicit RulesView(const play_detail::Impl& field) : field_(&field) {}

  // As in `apsidon/rules`, of the table as it is now. Cards that wait for an answer may not be moved.

  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  [[nodiscard]] Verdict judge_drop(const Run& run, ZoneId to) const;
  [[nodiscard]] Verdict judge_stock(ZoneId stock) const;
  [[nodiscard]] Verdict judge_move(const Move& move) const;
  /// Whether a zone would take a face, of which there need not be a card on the table.
  [[nodiscard]] Verdict judge_face(FaceId face, ZoneId to, std::size_t count = 1, ZoneId from = {}) const;
  [[nodiscard]] MoveVerdict best_move(CardId card) const;
  [[nodiscard]] MoveVerdict stock_move(ZoneId stock) const;
  /// All that the player may do, as far as the rules of the table say; the game's own answer (`set_judge`) is
  /// not asked. O(cards + runs * zones).
  [[nodiscard]] std::vector<Move> legal_moves() const;

 private:
  const play_detail::Impl* field_;
};

}  // namespace apsidon
