#pragma once
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/rules/move_step.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

/// What a player may do.
enum class MoveKind : std::uint8_t {
  run,       ///< a run goes to a zone
  several,   ///< cards that were chosen, wherever they lie, go to a zone together
  draw,      ///< a stock gives what it gives at a tap
  recycle,   ///< a waste becomes its stock again
  flip,      ///< a card, a run of one, is flipped where it lies
  reorient,  ///< … is turned, upright or sideways
  named,     ///< a move of the game's own
  undo,      ///< the last one is taken back: a playfield's, of which its judge is asked
  redo,
};

/// What a player may do, as a value: whoever makes it, it is judged and followed by its consequences.
struct Move {
  MoveKind kind = MoveKind::run;  ///< what it is; it says which of the others count
  bool on = false;                ///< whether the card lies face up after a flip, sideways after a turn
  SeatId seat = {};               ///< who makes it; none: who plays by the rulebook
  Run run = {};                   ///< of a draw and a recycling: no cards, for the stock decides how many
  SharedList<CardId> cards = {};  ///< of several: these, in the order of choosing
  ZoneId from = {};               ///< where its cards lie; of several, where the first does
  ZoneId to = {};                 ///< where they go; of a flip and a turn: none
  std::optional<std::size_t> at = {};  ///< the index of its first card in `to`, counted without the run
                                       ///< itself; on top if none. Only where the zone inserts or sorts
  std::optional<Vec2> position = {};   ///< of the run in a free zone, shares from 0 to 1
  int named = -1;                      ///< which of the rulebook's named moves, from 0

  friend bool operator==(const Move&, const Move&) = default;
};

/// A move that was looked for; a refused verdict says why there is none.
struct MoveVerdict {
  Verdict verdict = {};  ///< allowed, or why there is none
  Move move = {};        ///< of an allowed one

  friend bool operator==(const MoveVerdict&, const MoveVerdict&) = default;
};

/// Whether this move may be made. A run must be what `judge_pick` gives from its first card, and lie in
/// `from`; of several each must be one that may be chosen with those before it. O(cards, nodes of the rules,
/// links).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_move(const Table& table, const Rulebook& rules,
                                                     const Move& move);

/// How many moves are listed, unless another number is stated.
inline constexpr std::size_t most_legal_moves = 1'000'000;
/// How many sets of cards that may be chosen together are looked at: a hand of twenty has a million.
inline constexpr std::size_t most_selections = 1000;

/// All that a player may do: every run that may be picked up with every zone that takes it, every stock that
/// may be tapped, every card that may be flipped or turned, the named moves, and every set of cards that may
/// be chosen with every zone that takes it, the smaller sets first, of `most_selections` sets; each in the
/// first order of choosing that was found. A run moved within its own
/// zone is not counted. These are exactly the moves between zones that `judge_move` allows, each once,
/// without `at` and `position`. O(cards + runs * zones). Of more than `most` the first: a table from a
/// stranger may have as many as all pairs of its cards and zones. Likewise those that are found until
/// `most_asked` parts of rules have been asked.
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<Move> legal_moves(const Table& table, const Rulebook& rules,
                                                                std::size_t most = most_legal_moves);
/// The same into a list that is used again, for those who ask often: what it held is gone. Returns whether
/// these are all.
APSIDON_CORE_EXPORT bool find_legal_moves(const Table& table, const Rulebook& rules, std::vector<Move>& moves,
                                          std::size_t most = most_legal_moves);
/// Whether there is any; stops at the first. After `most_asked` parts of rules it says that there is one: who
/// cannot know that a game is stuck does not say so.
[[nodiscard]] APSIDON_CORE_EXPORT bool any_legal_move(const Table& table, const Rulebook& rules);

/// Where the run from a card goes by itself: to the first of `sends_to` that takes it; else to a zone that
/// takes by itself; else to one that begins with a rank or suit and gives no runs, as a foundation does; else
/// to one with cards that takes it; else to an empty one. Of several, the first in the order of the table.
/// O(nodes of all rules).
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict best_move(const Table& table, const Rulebook& rules,
                                                        CardId card);
/// Where cards that are chosen go by themselves, together: by the same order, from the zone of the first.
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict best_move(const Table& table, const Rulebook& rules,
                                                        std::span<const CardId> chosen);
/// The moves by which all that is left goes to these zones, card after card, each with what follows from it;
/// none when that is not so, or a card elsewhere lies covered or is not known: then it is not safe to say so.
/// On a copy of the table. O(cards * cards * zones) at worst, and none after `most_asked` parts of rules.
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<Move> finishing_moves(const Table& table, const Rulebook& rules,
                                                                    std::span<const ZoneId> into);
/// What a tap on a stock is: a draw, or a recycling of its waste.
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict stock_move(const Table& table, const Rulebook& rules,
                                                         ZoneId stock);

/// The flip of a card to its other side, and its turn to how it does not lie now; and whether they may be
/// made. O(nodes of the rule), and of cards that are compared O(cards that have numbers).
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict flip_move(const Table& table, const Rulebook& rules,
                                                        CardId card);
/// The turn of a card to how it does not lie now, likewise.
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict reorient_move(const Table& table, const Rulebook& rules,
                                                            CardId card);

/// The named move of this name, and whether it may be made.
[[nodiscard]] APSIDON_CORE_EXPORT MoveVerdict named_move(const Table& table, const Rulebook& rules,
                                                         std::string_view name);

/// What came of a move.
struct MoveReport {
  Verdict verdict = {};              ///< allowed, or why nothing was done
  std::vector<MoveStep> steps = {};  ///< in the order in which they happened; none when refused
};

/// Judges a move and makes it, with all that follows: what lies uncovered is flipped, zones take what fits,
/// open cards are compared. Refused, it changes nothing. What a server, a solver and a playfield all use.
/// O(cards of the zones that change, and for zones that take by themselves: cards * zones, until `most_asked`
/// parts of rules were asked).
APSIDON_CORE_EXPORT MoveReport apply_move(Table& table, const Rulebook& rules, const Move& move);

}  // namespace apsidon
