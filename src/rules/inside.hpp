#pragma once
// What rules answer to the other parts of the library alone. Not installed.
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/rules/move.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon::rules_detail {

/// The parts of a rule, itself one of them, with the zones that it lists. O(parts).
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t count_parts(const Rule& rule);
/// The parts of what a consequence looks for, with the zones that it lists. O(parts).
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t count_parts(const Consequence& consequence);
/// The parts of a zone's rules, with the zones and numbers that they list. O(parts).
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t count_parts(const ZoneRules& rules);

/// Calls `with` for each rule of a zone.
template <class Rules, class With>
void each_rule(Rules& rules, With with) {
  for (auto* rule : {&rules.drop, &rules.pick.link, &rules.pick.when, &rules.flip, &rules.reorient})
    with(*rule);
  if (!rules.select) return;
  SelectRule select = *rules.select;
  with(select.when);
  with(select.link);
  if constexpr (!std::is_const_v<Rules>) rules.select = std::move(select);
}

/// Throws Error when a rule is wrong, or asks about a card where there is none: in a goal, in a named move.
void check_without_card(const Rule& rule, const Table& table, std::string_view whose);
/// Throws Error when a rule is wrong, or compares a number of a zone or seat that the table does not have.
void check(const Rule& rule, const Table& table);
/// Throws Error when a named move has no name, or its rule is wrong.
APSIDON_CORE_EXPORT void check(const NamedMove& move, const Table& table);

class Patience;

/// Answers for the rules in code, in their place: for a log that records what they said, and for its replay.
class OwnAnswers {
 public:
  virtual Verdict answer(const OwnRule& rule, const RuleQuestion& question) = 0;
  virtual std::vector<Edit> follow(const std::string& name, const FollowFunction& function,
                                   const FollowQuestion& question) = 0;

 protected:
  OwnAnswers() = default;
  OwnAnswers(const OwnAnswers&) = default;
  OwnAnswers& operator=(const OwnAnswers&) = default;
  ~OwnAnswers() = default;
};

/// Whether a card is switched off, by itself or with its zone. O(log of those switched off).
[[nodiscard]] Verdict judge_switches(const Rulebook& rules, const Card& card);
/// Whether a drop that is allowed would exchange the run with the zone's card.
[[nodiscard]] bool would_exchange(const Table& table, const Rulebook& rules, const Run& run, ZoneId to);

/// The same rules for who makes a move.
[[nodiscard]] inline Rulebook as_played_by(Rulebook rules, SeatId seat) {
  if (seat) rules.seat = seat;
  return rules;
}
/// Whether a move is of cards that it names.
[[nodiscard]] inline bool names_cards(const Move& move) {
  return move.kind == MoveKind::run || move.kind == MoveKind::several || move.kind == MoveKind::flip ||
         move.kind == MoveKind::reorient;
}
/// Of such a move: the first of them, and how many they are.
[[nodiscard]] inline Run named_by(const Move& move) {
  if (move.kind != MoveKind::several) return move.run;
  return {move.cards.empty() ? CardId{} : move.cards.front(), move.cards.size()};
}
/// Whether it takes cards that it names to a zone.
[[nodiscard]] inline bool carries(const Move& move) {
  return move.kind == MoveKind::run || move.kind == MoveKind::several;
}

// Cards that are chosen and moved together (several.cpp).

/// What `judge_select` says, for those who ask of many cards.
[[nodiscard]] bool may_select(const Table& table, const Rulebook& rules, std::span<const CardId> chosen,
                              CardId card);
/// Whether all of these may be chosen, in this order.
[[nodiscard]] Verdict judge_chosen(const Table& table, const Rulebook& rules, std::span<const CardId> cards);
/// Whether cards that may be chosen may be moved to this zone.
[[nodiscard]] Verdict judge_chosen_drop(const Table& table, const Rulebook& rules,
                                        std::span<const CardId> cards, ZoneId to);
[[nodiscard]] Verdict judge_several_move(const Table& table, const Rulebook& rules, const Move& move);
/// The moves of sets that may be chosen, of `most_selections` sets. Adds to `moves`; returns whether that
/// were all sets.
[[nodiscard]] bool find_several_moves(const Table& table, const Rulebook& rules, Patience& patience,
                                      std::vector<Move>& moves);
/// Whether a run, or several cards, could be laid at this index of the zone: `within` counts those of them
/// that lie there already.
[[nodiscard]] Verdict judge_index(const Table& table, const Rulebook& rules, const Move& move,
                                  std::size_t within);

// Flips and turns (flips.cpp).

/// Whether a card may be flipped, or turned, by `kind`, where so many lie open to be compared.
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_side(const Table& table, const Rulebook& rules,
                                                     const Card& card, MoveKind kind, std::size_t compared);
[[nodiscard]] Verdict judge_side_move(const Table& table, const Rulebook& rules, const Move& move);
void make_side_move(Table& table, const Rulebook& rules, const Move& move, std::vector<MoveStep>& steps);
/// The cards that lie open to be compared, first one first.
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<CardId> compared_cards(const Table& table,
                                                                     const Rulebook& rules);

/// What comes of comparing open cards.
struct Comparison {
  std::vector<CardId> cards = {};
  ZoneId zone = {};    ///< of the last that was opened
  bool found = false;  ///< they belong together
  MatchRule match = {};

  /// Where the cards go then; none when they stay.
  [[nodiscard]] ZoneId to() const { return found ? match.to : ZoneId{}; }
};
/// That of all cards that lie open to be compared; none where those are too few.
[[nodiscard]] std::optional<Comparison> find_comparison(const Table& table, const Rulebook& rules);
/// Does what comes of it, as far as it is not done. Adds to `steps`.
void end_comparison(Table& table, const Comparison& comparison, std::vector<MoveStep>& steps);

/// The first half of `apply_move`: the move alone, for those who show it before what follows. Adds to
/// `steps`.
Verdict make_move(Table& table, const Rulebook& rules, const Move& move, std::vector<MoveStep>& steps);
/// The cell that a move's cards get where the zone lays them by seat: that of who plays, from 0; -1: none.
[[nodiscard]] int cell_of_seat(const Table& table, const Rulebook& rules, const Move& move);
/// A run, or several cards, go to a zone, whatever the rules say. At an index beyond the end they go on top.
void move_cards(Table& table, const Rulebook& rules, const Move& move, std::vector<MoveStep>& steps);
/// Cards have left a zone: it is empty now, or the card that lies uncovered is flipped, where that is a rule.
void uncover(Table& table, const Rulebook& rules, ZoneId zone, std::vector<MoveStep>& steps);
/// What the function of a consequence or a named move says; nothing when there is none, or it throws, which
/// `problem` says.
[[nodiscard]] std::vector<Edit> follow_of(const FollowFunction& function, const FollowQuestion& question,
                                          std::string* problem = nullptr);
/// Does each consequence once, wherever something follows and while there is patience. Returns whether
/// anything did.
bool follow_consequences(Table& table, const Rulebook& rules, Patience& patience,
                         std::vector<MoveStep>& steps);
/// Asks the game's code what is done now, and does it; what cannot be done is passed over. Adds to `steps`.
/// Returns how many edits that were.
std::size_t do_as_told(Table& table, const Rulebook& rules, const std::string& name,
                       const FollowFunction& function, std::vector<MoveStep>& steps);
/// The second half: what follows, once cards have left the zone `from` if there is one.
void follow_move(Table& table, const Rulebook& rules, ZoneId from, std::vector<MoveStep>& steps);

}  // namespace apsidon::rules_detail
