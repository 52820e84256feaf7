#pragma once
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

enum class RuleKind {
  anything,       ///< always allowed
  nothing,        ///< never allowed
  rank_down,      ///< the lowest card of the run is one rank below the card it comes to lie on
  rank_up,        ///< … one rank above …
  same_suit,      ///< … of the same suit …
  same_colour,    ///< … of the same colour …
  on_empty,       ///< the zone is empty
  rank_on_empty,  ///< the zone is empty and the lowest card has the rank `number` (from 0)
  at_most,        ///< the run has at most `number` cards
  all,            ///< every part allows
  any,            ///< at least one part allows; the verdict says which
  negate,         ///< its only part refuses
};

/// Whether a run may come to lie on a zone. A small tree, made with the functions below:
///
///     rule::any({rule::all({rule::on_empty(), rule::at_most(3)}), rule::all({rule::same_colour(),
///     rule::rank_down()})})
///
/// What a rule says of a card whose face is hidden: rules about rank, suit or colour refuse it
/// (`unknown_face`), the others do not look. Likewise of a joker (`no_rank`), but one that has a colour
/// compares by it. On an empty zone, rules about the card below refuse
/// (`needs_card`).
struct Rule {
  RuleKind kind = RuleKind::anything;
  int number = 0;
  std::vector<Rule> parts = {};

  friend bool operator==(const Rule&, const Rule&) = default;
};

namespace rule {
[[nodiscard]] APSIDON_CORE_EXPORT Rule anything();
[[nodiscard]] APSIDON_CORE_EXPORT Rule nothing();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_down();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_up();
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_suit();
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_colour();
[[nodiscard]] APSIDON_CORE_EXPORT Rule on_empty();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_on_empty(int rank);
[[nodiscard]] APSIDON_CORE_EXPORT Rule at_most(int cards);
[[nodiscard]] APSIDON_CORE_EXPORT Rule all(std::vector<Rule> parts);
[[nodiscard]] APSIDON_CORE_EXPORT Rule any(std::vector<Rule> parts);
[[nodiscard]] APSIDON_CORE_EXPORT Rule negate(Rule part);
}  // namespace rule

/// Throws Error when an all or any has no parts, a negate not exactly one, or a number is out of range (a
/// rank of the deck; at least one card).
APSIDON_CORE_EXPORT void check(const Rule& rule, const Deck& deck);

enum class PickKind {
  nothing,  ///< the zone gives no cards
  top,      ///< its top card
  any,      ///< any one card
  run,      ///< a card and all that lie on it, when each follows the one below by the rule `link`
};

/// What may be picked up from a zone. Only cards that lie face up are.
struct PickRule {
  PickKind kind = PickKind::nothing;
  Rule link = {};  ///< of `run`: asked for each card and the one it lies on

  friend bool operator==(const PickRule&, const PickRule&) = default;
};

/// What a zone gives and takes.
struct ZoneRules {
  PickRule pick = {};
  Rule drop = rule::nothing();

  friend bool operator==(const ZoneRules&, const ZoneRules&) = default;
};

struct PickVerdict {
  Verdict verdict = {};
  Run run = {};  ///< what would be picked up; no cards when refused

  friend constexpr bool operator==(const PickVerdict&, const PickVerdict&) = default;
};

// `rules` is by ZoneId - 1; a zone beyond its end gives and takes nothing.

/// Whether this card may be picked up, and what comes with it. O(cards of the run).
[[nodiscard]] APSIDON_CORE_EXPORT PickVerdict judge_pick(const Table& table, std::span<const ZoneRules> rules,
                                                         CardId card);

/// Whether a run, already picked up, may be dropped on a zone. O(nodes of the rule).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_drop(const Table& table, std::span<const ZoneRules> rules,
                                                     const Run& run, ZoneId to);

}  // namespace apsidon
