#pragma once
#include <concepts>
#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/shared_list.hpp"

namespace apsidon {

/// What a rule asks.
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
  at_least,        ///< … at least …
  sum,             ///< so has the sum of a number of its cards, or of their ranks, to be to another
  sequence,        ///< its cards have ranks without a gap and each another, in whatever order
  all,             ///< every part allows
  any,             ///< at least one part allows; the verdict says which
  negate,          ///< its only part refuses
  neighbours,      ///< at least `number` of the slots linked to this one hold a card
  waited_for,      ///< at least `number` of the slots that this one waits for hold a card; 0: all of them
  each_neighbour,  ///< its only part allows with the top card of every linked slot that holds one below the
                   ///< run
  number,          ///< a number is at least, at most or just what another is
  on_turn,         ///< it is the turn of who plays; where nobody in particular does, of anybody
  own_zone,        ///< the zone belongs to who plays; where nobody in particular does, to who is on turn
  own,             ///< a function of the game's
};

/// Whose a number is that a rule compares.
enum class NumberOf : std::uint8_t {
  owner,   ///< the table's, or that of a zone or a seat
  card,    ///< of the lowest card of the run
  onto,    ///< of the card that it comes to lie on
  zone,    ///< of the zone where it would go
  from,    ///< of the zone where it lies
  seat,    ///< of the seat to which the zone belongs where it would go
  player,  ///< of the seat that plays
};

/// A number that a rule compares: 3, "points" of a seat, "cards" of the zone where the run would go. What is
/// not there, as the card below on an empty zone, has the number 0.
struct NumberTerm {
  std::string name = {};          ///< empty: it is `value`
  NumberOf of = NumberOf::owner;  ///< whose number it is
  NumberOwner owner = {};         ///< of `owner`: a zone or a seat; none: the table
  int value = 0;                  ///< where it has no name

  NumberTerm() = default;
  // Implicit, so that a rule reads as it is meant: number("redeals", at_least, 1).
  template <std::integral T>
  /// A whole number.
  NumberTerm(T number) : value(static_cast<int>(number)) {}
  /// A number of the table.
  NumberTerm(const char* of_table) : name(of_table) {}
  /// A number of the table, of a zone or of a seat.
  NumberTerm(std::string number, NumberOwner of_owner = {}) : name(std::move(number)), owner(of_owner) {}
  /// A number of what is asked about.
  NumberTerm(std::string number, NumberOf whose) : name(std::move(number)), of(whose) {}

  friend bool operator==(const NumberTerm&, const NumberTerm&) = default;
};

/// How a number has to be to another.
enum class Compared : std::uint8_t { at_least, at_most, equal };

/// That a number is at least, at most or just what another is.
struct NumberRule {
  NumberTerm number = {};            ///< what is compared; of a sum, without a name: the ranks, the lowest 1
  Compared is = Compared::at_least;  ///< how it has to be
  NumberTerm than = {};              ///< with what it is compared

  friend bool operator==(const NumberRule&, const NumberRule&) = default;
};

struct Rulebook;

/// What a rule is asked about: a run that comes to lie on a card, or on the bottom of an empty zone. The run
/// may be of a face alone, of which there is no card on the table. A rule of picking up is asked about the
/// run where it lies: `zone` is `from` then, and `onto` the card below it.
struct APSIDON_CORE_EXPORT RuleQuestion {
  const Table& table;               ///< as it is now
  CardId card = {};                 ///< the lowest of the run; none when only a face is asked about
  FaceId face = {};                 ///< its face
  ZoneId from = {};                 ///< where it lies
  std::size_t count = 1;            ///< cards of the run
  CardId onto = {};                 ///< none on an empty zone
  ZoneId zone = {};                 ///< where it would go
  const Rulebook* rules = nullptr;  ///< by which it is asked
  /// The other cards that `card` goes with: of a run those on it, of several that are moved together those
  /// behind the first, of one that is to be chosen those that are chosen already, in the order of choosing.
  std::span<const CardId> others = {};

  /// The slots that are linked to `zone`, and those that it waits for. O(links) at most.
  [[nodiscard]] std::vector<ZoneId> neighbours() const;
  /// The slots that `zone` waits for.
  [[nodiscard]] std::vector<ZoneId> waits_for() const;

  /// A verdict with the arguments of this question.
  [[nodiscard]] Verdict answer(Reason reason) const {
    return {.reason = reason, .card = card, .face = card ? FaceId{} : face, .onto = onto, .zone = zone};
  }
  /// The refusal of a rule in code. `arguments` are what its sentence tells; `rule` is the name under which
  /// that sentence is found, if it is another than the rule's.
  [[nodiscard]] Verdict refuse(std::vector<VerdictArgument> arguments = {}, std::string rule = {}) const;
};

/// What a rule in code, or a goal, is asked by. It may not call back into the playfield that asks it.
using RuleFunction = std::function<Verdict(const RuleQuestion&)>;

/// A rule in code. Read from a file it has a name and no function: then it refuses (`unbound`), until
/// `TableSetup::bind` gives it one, or unless a log of the session answers for it.
struct APSIDON_CORE_EXPORT OwnRule {
  std::string name = {};    ///< not empty; it stands for the rule in files and logs, and in what it refuses
  RuleFunction judge = {};  ///< none: it is not bound yet, and refuses

  /// What the function says; a refusal when there is none, and one as `game_failed` when it throws.
  [[nodiscard]] Verdict answer(const RuleQuestion& question) const;
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
  RuleKind kind = RuleKind::anything;  ///< what it asks
  int number = 0;                      ///< a suit, a rank, cards or slots, as the kind says
  /// What it goes by beside: of those that combine others, their parts; of `from` these zones, of `number`
  /// and `sum` one comparison, of `own` the function.
  std::variant<std::monostate, SharedList<Rule>, SharedList<ZoneId>, SharedList<NumberRule>,
               std::shared_ptr<const OwnRule>>
      by = {};

  /// The rules that it combines: of all, any, negate and each_neighbour; of other kinds none.
  [[nodiscard]] std::span<const Rule> parts() const {
    const auto* parts = std::get_if<SharedList<Rule>>(&by);
    return parts ? std::span(parts->begin(), parts->end()) : std::span<const Rule>{};
  }
  /// Of `from`; of other kinds none.
  [[nodiscard]] std::span<const ZoneId> zones() const {
    const auto* zones = std::get_if<SharedList<ZoneId>>(&by);
    return zones ? std::span(zones->begin(), zones->end()) : std::span<const ZoneId>{};
  }
  /// Of `number` and `sum`; of other kinds null.
  [[nodiscard]] const NumberRule* compared() const {
    const auto* numbers = std::get_if<SharedList<NumberRule>>(&by);
    return numbers && !numbers->empty() ? numbers->begin() : nullptr;
  }
  /// Of `own`; of other kinds null.
  [[nodiscard]] const OwnRule* own() const {
    const auto* function = std::get_if<std::shared_ptr<const OwnRule>>(&by);
    return function ? function->get() : nullptr;
  }

  friend bool operator==(const Rule&, const Rule&) = default;
};

namespace rule {
/// Always allowed.
[[nodiscard]] APSIDON_CORE_EXPORT Rule anything();
/// Never allowed.
[[nodiscard]] APSIDON_CORE_EXPORT Rule nothing();
/// The lowest card of the run is one rank below the card that it comes to lie on.
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_down();
/// It is one rank above that.
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_up();
/// It is of the same suit as that.
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_suit();
/// It is of the same colour as that.
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_colour();
/// It has the same rank as that.
[[nodiscard]] APSIDON_CORE_EXPORT Rule same_rank();
/// It belongs to the same set as that.
[[nodiscard]] APSIDON_CORE_EXPORT Rule together();
/// The lowest card of the run is of this suit, from 0.
[[nodiscard]] APSIDON_CORE_EXPORT Rule of_suit(int suit);
/// The lowest card of the run has this rank, from 0, or one above it.
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_at_least(int rank);
/// The run comes from one of these zones.
[[nodiscard]] APSIDON_CORE_EXPORT Rule from(std::vector<ZoneId> zones);
/// The zone is empty.
[[nodiscard]] APSIDON_CORE_EXPORT Rule on_empty();
/// The zone is empty, and the lowest card of the run has this rank, from 0.
[[nodiscard]] APSIDON_CORE_EXPORT Rule rank_on_empty(int rank);
/// The run has at most so many cards.
[[nodiscard]] APSIDON_CORE_EXPORT Rule at_most(int cards);
/// It has at least so many.
[[nodiscard]] APSIDON_CORE_EXPORT Rule at_least(int cards);
/// The ranks of its cards, the lowest of the deck counted as 1, have this sum; with a name, that number of
/// each: `sum(Compared::equal, 13)`, `sum(Compared::at_least, {"price", NumberOf::onto}, "worth")`.
[[nodiscard]] APSIDON_CORE_EXPORT Rule sum(Compared is, NumberTerm than, std::string number = {});
/// The ranks of its cards follow on each other without a gap, each another, in whatever order they come.
[[nodiscard]] APSIDON_CORE_EXPORT Rule sequence();
/// Every part allows.
[[nodiscard]] APSIDON_CORE_EXPORT Rule all(std::vector<Rule> parts);
/// At least one part allows.
[[nodiscard]] APSIDON_CORE_EXPORT Rule any(std::vector<Rule> parts);
/// The part refuses.
[[nodiscard]] APSIDON_CORE_EXPORT Rule negate(Rule part);
/// At least so many of the slots linked to this one hold a card.
[[nodiscard]] APSIDON_CORE_EXPORT Rule neighbours(int filled);
/// Slots that the zone waits for hold a card: at least so many of them, or all.
[[nodiscard]] APSIDON_CORE_EXPORT Rule waited_for(int filled = 0);
/// The part allows with the top card of every linked slot that holds one below the run.
[[nodiscard]] APSIDON_CORE_EXPORT Rule each_neighbour(Rule part);
/// `number("redeals", Compared::at_least, 1)`, `number({"hits", NumberOf::card}, Compared::at_most, {"limit",
/// seat})`.
[[nodiscard]] APSIDON_CORE_EXPORT Rule number(NumberTerm number, Compared is, NumberTerm than);
/// It is the turn of who plays; where nobody in particular does, of anybody.
[[nodiscard]] APSIDON_CORE_EXPORT Rule on_turn();
/// The zone belongs to who plays; where nobody in particular does, to who is on turn.
[[nodiscard]] APSIDON_CORE_EXPORT Rule own_zone();
/// A function of the game's; without one it is given by `TableSetup::bind`.
[[nodiscard]] APSIDON_CORE_EXPORT Rule own(std::string name, RuleFunction judge = {});
}  // namespace rule

/// Throws Error when it has more than `most_parts_of_rule`, when an all or any has no parts, a negate or
/// each_neighbour not exactly one, a `from` no zones, an `own` no name, or a number is out of range (a rank
/// of the deck; at least one card or neighbour).
APSIDON_CORE_EXPORT void check(const Rule& rule, const Deck& deck);

}  // namespace apsidon
