#pragma once
#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/shared_list.hpp"
#include "apsidon/rules/consequence.hpp"
#include "apsidon/rules/rule.hpp"

namespace apsidon {

namespace rules_detail {
class Neighbours;
}

/// What may be picked up from a zone.
enum class PickKind {
  nothing,  ///< the zone gives no cards
  top,      ///< its top card
  any,      ///< any one card
  run,      ///< a card and all that lie on it, when each follows the one below by the rule `link`
};

/// What may be picked up from a zone.
struct PickRule {
  PickKind kind = PickKind::nothing;  ///< what may be picked up
  Rule link = {};                     ///< of `run`: asked for each card and the one it lies on
  Rule when = {};        ///< asked about what would be picked up, last: the game's own conditions
  bool covered = false;  ///< cards that lie face down, too

  friend bool operator==(const PickRule&, const PickRule&) = default;
};

/// Which cards of a zone players may choose, to play them together wherever they lie. What is chosen is
/// judged card by card, in the order of choosing; whether it may go to a zone is for what that zone takes
/// (`drop`), which is asked of all of them as of a run.
struct SelectRule {
  Rule when = {};  ///< asked of each card where it lies, `count` and `others` being of what is chosen then
  Rule link = {};  ///< asked of each but the first: `onto` is the card that was chosen before it
  bool covered = false;  ///< cards that lie face down, too

  friend bool operator==(const SelectRule&, const SelectRule&) = default;
};

/// What a stock gives at a tap.
struct StockRule {
  ZoneId to = {};               ///< the waste
  SharedList<int> gives = {1};  ///< cards at a tap, by the pass; the last number holds for all that follow
  int passes = 0;               ///< how often it may be gone through; 0: as often as one likes

  friend bool operator==(const StockRule&, const StockRule&) = default;
};

/// What becomes of cards that belong together.
enum class MatchEnd : std::uint8_t {
  move,    ///< they go to a zone
  vanish,  ///< they fade where they lie, and are in that zone then
  stay,    ///< they stay where they lie, open
};

/// Cards that a player opens are compared, across all zones where they are: when `open` of them lie open,
/// either all of them belong together, and their end is this one, or they are covered again. The deck says
/// what belongs together. A playfield lets them be seen first: for `seconds`, while its gate is closed for
/// the reason "comparing". A card that lies open to be compared has the number `opened_number`.
struct MatchRule {
  int open = 2;                   ///< [1, 100]
  MatchEnd end = MatchEnd::move;  ///< what becomes of those that belong together
  ZoneId to = {};                 ///< where sets go that were found; none where they stay
  double seconds = 1;             ///< [0, 60]

  friend bool operator==(const MatchRule&, const MatchRule&) = default;
};

/// What a zone gives and takes.
struct ZoneRules {
  PickRule pick = {};           ///< what it gives
  Rule drop = rule::nothing();  ///< what it takes
  /// Which of its cards may be flipped where they lie, and which turned from upright to sideways and back:
  /// asked as `pick.when` is.
  Rule flip = rule::nothing();
  Rule reorient = rule::nothing();  ///< which may be turned to sideways and back, asked likewise
  Shared<SelectRule> select = {};   ///< its cards may be chosen; none: they may not
  Shared<MatchRule> match = {};     ///< cards that are flipped are compared
  Shared<StockRule> stock = {};     ///< none: it is no stock
  /// A single card dropped on its only card exchanges places with it, when that one may go to where the other
  /// comes from.
  bool exchanges = false;
  bool sorts = false;            ///< its cards may be moved to other indices within it
  bool inserts = false;          ///< what is dropped may come between its cards
  bool lays_sideways = false;    ///< what is dropped lies sideways
  bool lays_by_seat = false;     ///< what is dropped gets the cell of the seat that plays it: the first has 0
  bool flips_uncovered = false;  ///< after a move from it, its top card is flipped face up
  bool takes_itself = false;     ///< after a move, it takes what fits from the top of zones that give it
  SharedList<ZoneId> takes_from = {};  ///< then from these alone; none: from all that do not take themselves
  /// Where its cards go when they are sent by themselves: the first of these that takes them, before all
  /// others.
  SharedList<ZoneId> sends_to = {};

  friend bool operator==(const ZoneRules&, const ZoneRules&) = default;
};

/// Throws Error when a rule is wrong, a stock gives to a zone that is not there or to itself, a number of it
/// is out of its range, or cards are sent to a zone that is not there.
APSIDON_CORE_EXPORT void check(const ZoneRules& rules, const Table& table);

/// A move of the game's own that is no card's way to a zone: a redeal, a knock. It is judged, made by whoever
/// makes moves, followed by what follows, and undone, as others are.
///
///     setup.named_moves = {{.name = "redeal", .when = rule::number("redeals", Compared::at_least, 1),
///                           .does = redeal}};
struct NamedMove {
  std::string name = {};     ///< not empty, unique in the table
  Rule when = {};            ///< whether it may be made now: a rule that asks about no card, as goals have
  FollowFunction does = {};  ///< none: it is not bound yet, and the move is refused
};

struct Goal;

namespace rules_detail {
class OwnAnswers;
}  // namespace rules_detail

/// All rules of a table. A view: what it refers to must outlive it.
struct Rulebook {
  std::span<const ZoneRules> zones = {};                  ///< by ZoneId - 1; a zone beyond its end gives and
                                                          ///< takes nothing
  std::span<const std::pair<ZoneId, ZoneId>> links = {};  ///< slots that are neighbours
  std::span<const std::pair<ZoneId, ZoneId>> waits = {};  ///< slots that wait: the first for the second
  const rules_detail::Neighbours* neighbours = nullptr;   ///< the links, found at once, if not null
  const rules_detail::Neighbours* waited = nullptr;       ///< likewise the waits, from first to second
  std::span<const CardId> locked = {};                    ///< cards that may not be moved now
  std::span<const CardId> cards_off = {};                 ///< cards that are switched off, in ascending order
  std::span<const ZoneId> zones_off = {};           ///< zones that are, likewise: they give and take nothing
  std::span<const std::string> cards_off_for = {};  ///< why, one for each, if not empty
  std::span<const std::string> zones_off_for = {};  ///< likewise
  std::span<const Consequence> consequences = {};   ///< what follows a move, looked for in this order
  std::span<const NamedMove> named_moves = {};      ///< what may be done beside moving cards
  SeatId seat = {};                                 ///< who plays; none: whoever is on turn
  const Goal* won = nullptr;                        ///< when a game is won, if not null
  const Goal* lost = nullptr;                       ///< when it is lost, if not null
  rules_detail::OwnAnswers* own = nullptr;          ///< answers for the rules in code, if not null
  std::size_t* asked = nullptr;  ///< grows by each part of a rule that is asked, if not null
};

/// Whether a card may be picked up.
struct PickVerdict {
  Verdict verdict = {};  ///< allowed, or why not
  Run run = {};          ///< what would be picked up; no cards when refused

  friend bool operator==(const PickVerdict&, const PickVerdict&) = default;
};

/// Whether this card may be picked up, and what comes with it. O(cards of the run).
[[nodiscard]] APSIDON_CORE_EXPORT PickVerdict judge_pick(const Table& table, const Rulebook& rules,
                                                         CardId card);

/// Whether a card may be chosen, to be moved together with those that are chosen already, in the order of
/// choosing. O(chosen, nodes of the rules).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_select(const Table& table, const Rulebook& rules,
                                                       std::span<const CardId> chosen, CardId card);

/// Whether a run, already picked up, may be dropped on a zone. O(nodes of the rule, links).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_drop(const Table& table, const Rulebook& rules,
                                                     const Run& run, ZoneId to);

/// What a tap on a stock does: allowed with `found` cards that it would give, or 0 when it would take the
/// waste back.
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_stock(const Table& table, const Rulebook& rules,
                                                      ZoneId stock);

/// Whether a rule of the zone `to` would take a run that begins with this face, of which there need not be a
/// card on the table: `from` is where it would come from. O(nodes of the rule, links).
[[nodiscard]] APSIDON_CORE_EXPORT Verdict judge_face(const Table& table, const Rulebook& rules, FaceId face,
                                                     ZoneId to, std::size_t count = 1, ZoneId from = {});

}  // namespace apsidon
