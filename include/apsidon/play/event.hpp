#pragma once
#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/vec2.hpp"
#include "apsidon/gesture/pointer.hpp"
#include "apsidon/layout/panel_id.hpp"
#include "apsidon/play/performance_id.hpp"

namespace apsidon {

/// What may happen on a playfield.
enum class EventKind : std::uint8_t {
  tapped,         ///< a card, zone or panel was pressed and let go
  double_tapped,  ///< and again, soon after
  long_pressed,   ///< it is held down
  released,       ///< what was long pressed is let go, without having been dragged
  pick_refused,   ///< a drag began on a card that may not be picked up; the verdict says why
  picked_up,      ///< a run is in the hand
  proposed,       ///< it was let go over a zone; one of the next three follows with the same proposal number
  dropped,        ///< it lies in `to` now
  refused,        ///< `to` does not take it; the verdict says why
  cancelled,      ///< it was let go over nothing, or the drag was lost
  superseded,     ///< while its answer was waited for, the run or its place has changed; the verdict says how
  exchanged,      ///< a card went to where the dropped one came from
  flipped,        ///< the player, or a rule, has flipped a card
  face_changed,   ///< the game, or a rule, has given a card another face
  reoriented,     ///< the player, the game or a rule has turned a card upright or sideways
  taken,          ///< a zone has taken by itself what fits
  played,         ///< the named move `name` was made
  created,        ///< a consequence has made a card, which lies in `to`
  removed,        ///< a consequence has taken a card off the table, from `from`
  counted,        ///< the number `name` of a card, of the zone `to`, of a seat, or of the table is another
  turn_passed,    ///< it is the turn of other seats
  drawn,          ///< a stock gave `count` cards
  recycled,       ///< a waste was recycled into its stock
  matched,        ///< the open `cards` belong together
  unmatched,      ///< the open `cards` do not belong together, and are covered again
  may_finish,     ///< all that is left can go to its zones: `moves().finish()` does so
  won,            ///< the table is as a game is won
  lost,           ///< the table is as a game is lost
  no_moves,       ///< nothing can be moved or drawn any more, and the game is neither won nor lost
  undone,         ///< the last move was taken back
  redone,         ///< a move that was taken back is made again
  hovered,        ///< the pointer is over a card
  unhovered,      ///< the pointer has left the card
  zoomed,         ///< a card shows its larger picture
  unzoomed,       ///< the larger picture of a card is gone
  focused,        ///< keys act on this card, zone or panel now
  selected,       ///< the player has chosen a card; `count` are chosen now
  deselected,     ///< it is not chosen any more
  emptied,        ///< `from` has no cards any more
  departed,       ///< a card of a performance leaves
  edge_on,        ///< a card that flips is edge-on: the side that shows changes now
  arrived,  ///< a card that travels to another zone or place is there for the first time; on a spring it may
            ///< swing on
  landed,   ///< a card has come to rest
  began,    ///< a performance begins
  cue,      ///< a named moment of a performance
  ended,    ///< a performance is over
  stopped,  ///< a performance was stopped before its end
  rang,     ///< a timer came to its time
  time_up,  ///< a countdown ran out
  settled,  ///< nothing moves any more, nothing is held, and no performance has anything left to do
};

/// How many kinds there are.
inline constexpr std::size_t event_kind_count = static_cast<std::size_t>(EventKind::settled) + 1;

/// Why a drag, or what was picked up by a tap or key, was put back.
enum class CancelCause : std::uint8_t {
  none,          ///< it was not
  nowhere,       ///< it was let go over nothing, or where it came from
  put_back,      ///< the player did so, with a key or another tap
  gate_closed,   ///< the gate was closed
  pointer_lost,  ///< the pointer was
  blurred,       ///< the window lost the player's attention
  resized,       ///< the window has another size
  by_game,       ///< a call took its cards away, or began what needs an empty hand
};

/// "pointer-lost".
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(CancelCause cause);

/// So many events wait to be read at most. Beyond that the oldest go, and are counted.
inline constexpr std::size_t most_unread_events = 100'000;

/// Countdowns of a playfield; a timer is one, too.
using CountdownId = Id<struct CountdownThing>;

/// "picked-up".
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(EventKind kind);

/// Something that happened on a playfield, with its own time. A plain value: what does not apply is left at
/// its default.
struct Event {
  EventKind kind = EventKind::tapped;  ///< what happened
  double time = 0;                     ///< seconds; when it happened, not when it was noticed
  CardId card = {};                    ///< the card, or the lowest of the run
  std::size_t count = 0;               ///< cards of the run
  ZoneId from = {};                    ///< where the card lies or came from
  ZoneId to = {};                      ///< where it was to go
  SeatId seat = {};                    ///< of which a number is another
  PanelId panel = {};                  ///< that was tapped or focused
  std::uint64_t proposal = 0;          ///< of a drop: its number, from 1; of a drag that proposed nothing: 0
  Vec2 at = {};                        ///< the pointer
  PointerButton button = PointerButton::primary;  ///< of a tap
  Verdict verdict = {};                           ///< why not, of what was refused or superseded
  PerformanceId performance = {};                 ///< to which this belongs
  CountdownId countdown = {};                     ///< that rang or ended
  std::string name = {};                          ///< of a cue, a named move, a number
  CancelCause cause = CancelCause::none;          ///< of a cancelled drag
  Vec2 velocity = {};                             ///< px per second: of the pointer where a drag was let go
  bool face_up = false;                           ///< of edge_on: which side shows from now on
  bool flicked = false;                           ///< it was let go as a flick
  std::vector<CardId> cards = {};                 ///< all that were compared, of matched and unmatched
  /// The faces that lay open when it happened, by which `describe` tells it as it was, however late it is
  /// read; none for a card that was covered.
  FaceId face = {};          ///< of the card
  FaceId decided_face = {};  ///< of the card that decided its verdict
  FaceId onto_face = {};     ///< of the card that the verdict would have it lie on

  friend bool operator==(const Event&, const Event&) = default;
};

}  // namespace apsidon
