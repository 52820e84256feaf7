#pragma once
#include <cstddef>
#include <cstdint>
#include <string>

#include "apsidon/cards/ids.hpp"

namespace apsidon {

/// Something that a move has done, or that has followed from it by rule.
struct MoveStep {
  /// What happened.
  enum class Kind : std::uint8_t {
    moved,      ///< a run lies in `to`
    exchanged,  ///< a card went to where the run came from
    drawn,      ///< a stock gave `count` cards
    recycled,   ///< a waste became its stock again
    emptied,    ///< `from` has no cards any more
    flipped,    ///< a card was flipped, as a move or because it lies uncovered now
    taken,      ///< a zone has taken by itself what fits, or a consequence has moved cards
    turned,     ///< the card lies upright, or sideways, now
    played,     ///< the named move `name` was made
    created,    ///< a consequence has laid a new card on `to`
    removed,    ///< a consequence has taken the card off the table, from `from`
    counted,    ///< the number `name` of the card, of the zone `to`, of the seat, or of the table is another
    turn_passed,   ///< it is the turn of other seats
    face_changed,  ///< a consequence has given the card another face
    matched,       ///< `count` open cards, `card` the first of them, belong together; they go to `to`
    unmatched,     ///< they do not, and are covered again
  };

  Kind kind = Kind::moved;  ///< what happened
  CardId card = {};         ///< the card, or the lowest of the run; of a stock the one that was its top
  std::size_t count = 0;    ///< of the run, of a draw, of open cards
  ZoneId from = {};         ///< where they lay
  ZoneId to = {};           ///< where they lie now
  SeatId seat = {};         ///< of a number of a seat
  std::string name = {};    ///< of a named move, of a number

  friend bool operator==(const MoveStep&, const MoveStep&) = default;
};

}  // namespace apsidon
