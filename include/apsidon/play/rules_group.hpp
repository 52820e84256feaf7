#pragma once
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/rules/describe.hpp"
#include "apsidon/rules/move.hpp"

namespace apsidon {

/// What may be done, and why not: `field.rules().judge_pick(card)`.
class APSIDON_CORE_EXPORT RulesGroup : public play_detail::Group {
 public:
  // As in `apsidon/rules`, of the table as it is now. Cards that wait for an answer may not be moved.

  /// Whether the card may be picked up, and with what.
  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  /// Whether the card may be chosen, with what is chosen already, and why not.
  [[nodiscard]] Verdict judge_select(CardId card) const;
  /// The cards that may be chosen now, beside those that are, in the order of the table. O(cards of zones
  /// that let cards be chosen, times what is chosen).
  [[nodiscard]] std::vector<CardId> addable() const;
  /// Whether a run may be dropped on a zone.
  [[nodiscard]] Verdict judge_drop(const Run& run, ZoneId to) const;
  /// What a tap on a stock does.
  [[nodiscard]] Verdict judge_stock(ZoneId stock) const;
  /// Whether this move may be made.
  [[nodiscard]] Verdict judge_move(const Move& move) const;
  /// Whether a zone would take a face, of which there need not be a card on the table.
  [[nodiscard]] Verdict judge_face(FaceId face, ZoneId to, std::size_t count = 1, ZoneId from = {}) const;
  /// Where the run from a card goes by itself.
  [[nodiscard]] MoveVerdict best_move(CardId card) const;
  /// A draw, or a recycling of the waste.
  [[nodiscard]] MoveVerdict stock_move(ZoneId stock) const;
  /// All that the player may do, as far as the rules of the table say; the game's own answer (`set_judge`) is
  /// not asked. O(cards + runs * zones).
  [[nodiscard]] std::vector<Move> legal_moves() const;
  /// What the table says where a rule of this name refuses; empty when it says nothing. Valid as long as the
  /// table is.
  [[nodiscard]] std::string_view sentence(std::string_view rule) const;
  /// How the table's cards and zones are spoken of. Valid likewise.
  [[nodiscard]] const Names& names() const;

  /// What the game's own rules go by has changed: whose turn it is, what is left to spend. Everything that
  /// was asked of rules is asked anew: the targets of what is held, what it aims at, marks, the cursor, the
  /// goals, and whether a move is left. `on_turn`: it is this player's turn; while it is not, `no-moves` is
  /// not told.
  Verdict ask_again(bool on_turn = true);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
