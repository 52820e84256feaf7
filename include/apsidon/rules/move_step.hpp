#pragma once
#include <cstddef>
#include <cstdint>

#include "apsidon/cards/ids.hpp"

namespace apsidon {

/// Something that a move has done, or that has followed from it by rule.
struct MoveStep {
  enum class Kind : std::uint8_t {
    moved,      ///< a run lies in `to`
    exchanged,  ///< a card went to where the run came from
    drawn,      ///< a stock gave `count` cards
    recycled,   ///< a waste became its stock again
    emptied,    ///< `from` has no cards any more
    flipped,    ///< the card that lies uncovered now was flipped
    taken,      ///< a zone has taken by itself what fits, or a consequence has moved cards
    turned,     ///< a consequence has laid the card upright or sideways
  };

  Kind kind = Kind::moved;
  CardId card = {};  ///< the card, or the lowest of the run; of a stock the one that was its top
  std::size_t count = 0;
  ZoneId from = {};
  ZoneId to = {};

  friend constexpr bool operator==(const MoveStep&, const MoveStep&) = default;
};

}  // namespace apsidon
