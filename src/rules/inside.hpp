#pragma once
// What rules answer to the other parts of the library alone. Not installed.
#include <cstddef>
#include <string>
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

/// Answers for the rules in code, in their place: for a log that records what they said, and for its replay.
class OwnAnswers {
 public:
  virtual Verdict answer(const OwnRule& rule, const RuleQuestion& question) = 0;
  virtual std::vector<Edit> follow(const Consequence& consequence, const FollowQuestion& question) = 0;

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

/// The first half of `apply_move`: the move alone, for those who show it before what follows. Adds to
/// `steps`.
Verdict make_move(Table& table, const Rulebook& rules, const Move& move, std::vector<MoveStep>& steps);
/// A run goes to a zone, whatever the rules say; it lies together in `from`. At an index beyond the end it
/// goes on top.
void move_run(Table& table, const Rulebook& rules, const Move& move, std::vector<MoveStep>& steps);
/// Cards have left a zone: it is empty now, or the card that lies uncovered is flipped, where that is a rule.
void uncover(Table& table, const Rulebook& rules, ZoneId zone, std::vector<MoveStep>& steps);
/// What the function of a consequence says; nothing when there is none, or it throws, which `problem` says.
[[nodiscard]] std::vector<Edit> follow_of(const Consequence& consequence, const FollowQuestion& question,
                                          std::string* problem = nullptr);
class Patience;
/// Does each consequence once, wherever something follows and while there is patience. Returns whether
/// anything did.
bool follow_consequences(Table& table, const Rulebook& rules, Patience& patience,
                         std::vector<MoveStep>& steps);
/// The second half: what follows once cards have left the zone `from`.
void follow_move(Table& table, const Rulebook& rules, ZoneId from, std::vector<MoveStep>& steps);

}  // namespace apsidon::rules_detail
