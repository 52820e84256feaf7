#pragma once
#include <cstdint>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

/// Why a question was answered as it was. Each has a stable code, `code_of(Reason::not_rank_down)` is
/// "not-rank-down"; docs/errors.md lists them.
enum class Reason : std::uint8_t {
  allowed,
  // about what was named
  unknown_card,   ///< no card on the table has this id
  unknown_zone,   ///< no zone of the table has this id
  unknown_index,  ///< the zone has fewer cards than that
  out_of_range,   ///< a number or name of the call is not one that it can have; `problem` says which
  unknown_key,    ///< no zone has this key
  unknown_move,   ///< the table has no named move of this name, or number
  unknown_seat,   ///< no seat of the table has this id
  unknown_face,   ///< not a face of the table's deck
  missing_key,    ///< a wanted card or zone has no key
  repeated_key,   ///< two wanted cards or zones have the same key
  empty_zone,     ///< nothing lies there
  // about picking up
  pick_nothing,      ///< the zone gives no cards
  not_top,           ///< the zone gives its top card only
  face_down,         ///< the card lies face down
  not_linked,        ///< `card` does not follow the card below it, so the run does not hold together
  switched_off,      ///< the card or the zone is switched off for now, or hidden
  other_run,         ///< from `card` on, not `found` cards are picked up together in `zone`, but `wanted`
  flip_nothing,      ///< the zone lets nobody flip its cards
  reorient_nothing,  ///< the zone lets nobody turn its cards
  select_nothing,    ///< the zone lets nobody choose its cards
  nothing_chosen,    ///< no cards are chosen
  other_side,        ///< the card lies already as it was to be flipped, or turned
  // about dropping
  same_zone,          ///< the run lies there already
  drop_nothing,       ///< the zone takes no cards
  not_rank_down,      ///< not one rank below `onto`
  not_rank_up,        ///< not one rank above `onto`
  not_same_suit,      ///< not of the suit of `onto`
  not_same_colour,    ///< not of the colour of `onto`
  not_empty,          ///< only an empty zone will do
  needs_card,         ///< only a zone with a card in it will do
  not_rank_on_empty,  ///< an empty zone wants the rank `wanted`
  too_few,            ///< the run has not `wanted` cards, but `found`
  no_sequence,        ///< the ranks of its cards do not follow on each other
  too_many,           ///< `found` cards where `wanted` are the most
  negated,            ///< a rule matched that must not
  no_rank,            ///< a joker, which has neither suit nor rank
  not_same_rank,      ///< not of the rank of `onto`
  not_together,       ///< not of the set of `onto`
  wrong_source,       ///< only cards from certain other zones will do
  needs_neighbours,   ///< `found` filled neighbours where at least `wanted` are asked for
  waits_for,          ///< of the slots that the zone waits for, `wanted` have to be filled, and `found` are
  wrong_suit,         ///< only the suit `wanted` will do
  too_low,            ///< only the rank `wanted` and those above it will do
  own_rule,           ///< a rule of the game's own
  number_low,      ///< the number that `rule` names, or the sum, is `found`; at least `wanted` is asked for
  number_high,     ///< … at most …
  number_differs,  ///< … just …
  not_on_turn,     ///< it is not the turn of who plays
  not_own_zone,    ///< the zone does not belong to who plays
  no_exchange,     ///< `onto` may not go where `card` comes from
  // about what else a player does
  locked,             ///< the card waits for an answer
  in_hand,            ///< another pointer drags the card
  in_flight,          ///< the card is still on its way
  open_already,       ///< the card lies open already
  no_passes,          ///< the stock was gone through `found` times, and may be no more
  no_stock,           ///< the zone is not one that gives cards at a tap
  too_many_open,      ///< `wanted` cards are open already
  refused_by_game,    ///< the game said no
  game_failed,        ///< a function of the game's threw, or called back; the argument `problem` says what
  superseded,         ///< while the answer was waited for, the run or its place has changed
  unknown_proposal,   ///< nothing waits under this number
  nothing_to_undo,    ///< no move was made, or all were undone
  nothing_to_finish,  ///< what is left cannot go to its zones card after card
  nothing_to_redo,    ///< nothing was undone, or a move was made since
  // about what a call names beside
  unknown_panel,        ///< the table has no panel of this id
  unknown_timer,        ///< there is no such countdown, or timer, any more
  unknown_performance,  ///< no such performance runs
  undo_forbidden,       ///< the game lets nothing be taken back for now
  no_focus,             ///< keys cannot act on it now
  no_preview,           ///< its zone zooms nothing, or the window has no room for more than the card itself
  unbound,              ///< the table names a rule in code whose function was not given; `problem` says so
};

/// How many reasons there are.
inline constexpr int reason_count = static_cast<int>(Reason::unbound) + 1;

/// "not-rank-down". Never changes for a reason once released.
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view code_of(Reason reason);

/// Something that a refusal of the game's own tells, by its name: "cost" is 3.
struct VerdictArgument {
  std::string name = {};  ///< its placeholder in the sentence, without braces
  /// What stands there; of a card or a zone its name.
  std::variant<std::int64_t, std::string, CardId, ZoneId> value = {};

  friend bool operator==(const VerdictArgument&, const VerdictArgument&) = default;
};

/// The answer to a question about cards: allowed, or refused with a reason and its arguments. A plain value;
/// `describe` makes a sentence of it.
struct Verdict {
  Reason reason = Reason::allowed;  ///< `allowed`, or the first thing that forbids it
  CardId card = {};                 ///< the card that decided
  FaceId face = {};       ///< where no card but only a face was asked about, or it is told later: that
  CardId onto = {};       ///< the card it would lie on; none for an empty zone
  FaceId onto_face = {};  ///< where it is told later: what that showed
  ZoneId zone = {};       ///< the zone that decided
  int wanted = 0;         ///< a rank (from 0) or a number of cards, see the reason
  int found = 0;          ///< what was there instead
  int alternative = -1;   ///< when allowed by an `any` rule: which of its parts matched, from 0
  int others = 0;  ///< when refused by an `any` rule: how many other parts could have matched, and did not
  std::uint64_t key = 0;  ///< the key that was not found, missing or repeated
  std::string rule =
      {};  ///< of a rule in code, an answer of the game's, a number: its name, by which its sentence is found
  std::vector<VerdictArgument> arguments = {};  ///< what that sentence tells beside

  /// Whether it may be.
  [[nodiscard]] constexpr bool allowed() const { return reason == Reason::allowed; }
  /// The same: `if (verdict)`.
  constexpr explicit operator bool() const { return allowed(); }
  friend bool operator==(const Verdict&, const Verdict&) = default;
};

}  // namespace apsidon
