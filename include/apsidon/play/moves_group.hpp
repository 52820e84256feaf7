#pragma once
#include <cstdint>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/judge.hpp"
#include "apsidon/rules/goal.hpp"

namespace apsidon {

/// What was moved, what waits, and moves made for the player: `field.moves().can_undo()`.
class APSIDON_CORE_EXPORT MovesGroup : public play_detail::Group {
 public:
  /// Whether there is a move to take back, and no reason forbids it.
  [[nodiscard]] bool can_undo() const;
  /// Whether a move was taken back, none was made since, and no reason forbids it.
  [[nodiscard]] bool can_redo() const;
  /// The moves that `finish` would make; none when it cannot.
  [[nodiscard]] std::vector<Move> finishing_moves() const;
  /// How the game stands by the goals of its table and by what may still be done, as it was judged last: that
  /// is when the game has answered all that happened at a time, and the event `won`, `lost` or `no-moves`
  /// tells it.
  [[nodiscard]] Standing standing() const;
  /// The proposals that wait for an answer. Valid until the next call of the playfield that is not const.
  [[nodiscard]] std::span<const Proposal> waiting() const;

  // Moves that the player could make, made for them: judged, shown, followed by what belongs to them, undone
  // and told as if a hand had made them. Cards of the move that are in the hand are put back before.

  /// Makes a move: one of `legal_moves`, or any other. Allowed also when the game's answer is still to come:
  /// then it is among `waiting()`.
  Verdict make(const Move& move);
  /// Makes `named_move(name)`: a redeal, a knock.
  Verdict make(std::string_view name);
  /// Makes `stock_move(stock)`: takes from a stock, or recycles its waste into it.
  Verdict draw_from(ZoneId stock);
  /// Moves what is chosen to a zone, in the order of choosing (`MoveKind::several`); with no zone to where it
  /// goes by itself.
  Verdict play_selection(ZoneId to = {});
  /// Makes `best_move(card)`: the run from a card, or with one that is chosen all that is, goes to where it
  /// goes by itself.
  Verdict send_to_best(CardId card);
  /// Makes `flip_move(card)`: as a tap does where a tap flips.
  Verdict flip(CardId card);
  /// Makes `reorient_move(card)`, as a tap does where a tap turns.
  Verdict reorient(CardId card);
  /// Finishes a game of which all that is left can go to its zones (`TableSetup::finish`): card after card,
  /// each a move of its own, behind a gate that is closed for the reason "finishing". Refused when it cannot.
  Verdict finish();
  /// Takes the last move back, with all that followed from it. Where the game has a judge, it is a proposal
  /// as other moves are (`MoveKind::undo`), which the judge answers now or later; one at a time, and
  /// superseded when the table changes meanwhile. `forbid_undo` where a server knows of no undo.
  Verdict undo();
  /// Makes the move again that was taken back last, likewise.
  Verdict redo();
  /// Nothing is taken back or made again, by calls or by keys, until this reason, and every other, is
  /// released. It ends with the round, unless it `lasts`.
  Verdict forbid_undo(std::string_view reason, bool lasts = false);
  /// Releases a reason of `forbid_undo`.
  Verdict allow_undo(std::string_view reason);

  /// Every drop is a proposal. The rules answer at once; what they allow, the game may answer too, now or
  /// later.
  void set_judge(Judge judge);
  /// Answers a proposal that waits. A refused verdict puts the cards back; an allowed one is applied to the
  /// table as it is now. Where the rules refuse it by now, or its cards lie elsewhere, it ends as
  /// `superseded`, with that verdict, and the server's yes has changed nothing here: a `sync` brings the
  /// table to the server's. A yes that `is_final` is about a run and asks no rule: while the proposal waits,
  /// its cards lie where they lay.
  Verdict answer(std::uint64_t proposal, const Verdict& verdict = {}, bool is_final = false);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
