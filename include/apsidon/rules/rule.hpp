#pragma once
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

enum class RuleKind {
  anything,        ///< always allowed
  nothing,         ///< never allowed
  rank_down,       ///< the lowest card of the run is one rank below the card it comes to lie on
  rank_up,         ///< … one rank above …
  same_suit,       ///< … of the same suit …
  same_colour,     ///< … of the same colour …
  same_rank,       ///< … of the same rank …
  together,        ///< … and belongs to the same set …
  of_suit,         ///< the lowest card of the run is of the suit `number` (from 0)
  rank_at_least,   ///< the lowest card of the run has the rank `number` (from 0) or one above it
  from,            ///< the run comes from one of `zones`
  on_empty,        ///< the zone is empty
  rank_on_empty,   ///< the zone is empty and the lowest card has the rank `number` (from 0)
  at_most,         ///< the run has at most `number` cards
  all,             ///< every part allows
  any,             ///< at least one part allows; the verdict says which
  negate,          ///< its only part refuses
  neighbours,      ///< at least `number` of the slots linked to this one hold a card
  each_neighbour,  ///< its only part allows with the top card of every linked slot that holds one below the
                   ///< run
  own,             ///< a function of the game's
};

/// What a rule is asked about: a run that comes to lie on a card, or on the bottom of an empty zone.
struct RuleQuestion {
  const Table& table;
  CardId card = {};       ///< the lowest of the run
  std::size_t count = 1;  ///< cards of the run
  CardId onto = {};       ///< none on an empty zone
  ZoneId zone = {};       ///< where it would go

  /// A verdict with the arguments of this question.
  [[nodiscard]] Verdict answer(Reason reason) const {
    return {.reason = reason, .card = card, .onto = onto, .zone = zone};
  }
};

/// A rule in code. It may not call back into the playfield that asks it.
struct OwnRule {
  std::string name = {};                                   ///< for people
  std::function<Verdict(const RuleQuestion&)> judge = {};  ///< not empty
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
  std::vector<ZoneId> zones = {};                              ///< of `from`
  std::vector<std::shared_ptr<const OwnRule>> own_rules = {};  ///< of `own`

  friend bool operator==(const Rule&, const Rule&) = default;
};

namespace rule {
[[nodiscard]] APSIDON_CORE_EXPORT Rule anything();
[[nodiscard]] APSIDON_CORE_EXPORT Rule nothing();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_down();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_up();
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_suit();
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_colour();
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_rank();
[[nodiscard]] APSIDON_CORE_EXPORT Rule together();
[[nodiscard]] APSIDON_CORE_EXPORT Rule of_suit(int suit);
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_at_least(int rank);
[[nodiscard]] APSIDON_CORE_EXPORT Rule from(std::vector<ZoneId> zones);
[[nodiscard]] APSIDON_CORE_EXPORT Rule on_empty();
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_on_empty(int rank);
[[nodiscard]] APSIDON_CORE_EXPORT Rule at_most(int cards);
[[nodiscard]] APSIDON_CORE_EXPORT Rule all(std::vector<Rule> parts);
[[nodiscard]] APSIDON_CORE_EXPORT Rule any(std::vector<Rule> parts);
[[nodiscard]] APSIDON_CORE_EXPORT Rule negate(Rule part);
[[nodiscard]] APSIDON_CORE_EXPORT Rule neighbours(int filled);
[[nodiscard]] APSIDON_CORE_EXPORT Rule each_neighbour(Rule part);
[[nodiscard]] APSIDON_CORE_EXPORT Rule own(std::string name,
                                           std::function<Verdict(const RuleQuestion&)> judge);
}  // namespace rule

/// Throws Error when an all or any has no parts, a negate or each_neighbour not exactly one, a `from` no
/// zones, an `own` no function, or a number is out of range (a rank of the deck; at least one card or
/// neighbour).
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

/// What a stock gives at a tap.
struct StockRule {
  ZoneId to = {};                ///< the waste
  std::vector<int> gives = {1};  ///< cards at a tap, by the pass; the last number holds for all that follow
  int passes = 0;                ///< how often it may be gone through; 0: as often as one likes

  friend bool operator==(const StockRule&, const StockRule&) = default;
};

/// What a zone gives and takes.
struct ZoneRules {
  PickRule pick = {};
  Rule drop = rule::nothing();
  std::optional<StockRule> stock = {};
  /// A single card dropped on its only card exchanges places with it, when that one may go to where the other
  /// comes from.
  bool exchanges = false;
  bool sorts = false;            ///< its cards may be dragged to other places within it
  bool flips_uncovered = false;  ///< after a move from it, its top card is flipped face up
  bool takes_itself = false;     ///< after a move, it takes what fits from the top of zones that give it

  friend bool operator==(const ZoneRules&, const ZoneRules&) = default;
};

/// Throws Error when a rule is wrong (as above), or a stock gives to a zone that is not there or to itself,
/// or a number of it is out of its range.
APSIDON_CORE_EXPORT void check(const ZoneRules& rules, const Table& table);

/// All rules of a table.
struct Rulebook {
  std::span<const ZoneRules> zones = {};                  ///< by ZoneId - 1; a zone beyond its end gives and
                                                          ///< takes nothing
  std::span<const std::pair<ZoneId, ZoneId>> links = {};  ///< slots that are neighbours
};

struct PickVerdict {
  Verdict verdict = {};
  Run run = {};  ///< what would be picked up; no cards when refused

  friend constexpr bool operator==(const PickVerdict&, const PickVerdict&) = default;
};

/// Whether this card may be picked up, and what comes with it. O(cards of the run).
[[nodiscard]] APSIDON_CORE_EXPORT PickVerdict judge_pick(const Table& table, const Rulebook& rules,
                                                         CardId card);

/// Whether a run, already picked up, may be dropped on a zone. O(nodes of the rule, links).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_drop(const Table& table, const Rulebook& rules,
                                                     const Run& run, ZoneId to);

/// Whether a drop that is allowed would exchange the run with the zone's card.
[[nodiscard]] APSIDON_CORE_EXPORT bool would_exchange(const Table& table, const Rulebook& rules,
                                                      const Run& run, ZoneId to);

/// What a tap on a stock does: allowed with `found` cards that it would give, or 0 when it would take the
/// waste back.
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_stock(const Table& table, const Rulebook& rules,
                                                      ZoneId stock);

/// Something that a player may do.
struct LegalMove {
  Run run = {};  ///< no cards: a tap on the stock `from`
  ZoneId from = {};
  ZoneId to = {};
  Verdict verdict = {};  ///< allowed; says which alternative matched

  friend constexpr bool operator==(const LegalMove&, const LegalMove&) = default;
};

/// All that a player may do: every run that may be picked up with every zone that takes it, and every stock
/// that may be tapped. A run moved within its own zone is not counted. O(cards * zones).
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<LegalMove> legal_moves(const Table& table,
                                                                     const Rulebook& rules);
/// Whether there is any; stops at the first.
[[nodiscard]] APSIDON_CORE_EXPORT bool any_legal_move(const Table& table, const Rulebook& rules);

}  // namespace apsidon
