#pragma once
#include "apsidon/geometry/angle.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Cards on each other, with a thickness that can be seen: the edge of each shows below the one on it. Room
/// for the whole thickness is kept even for one card, so that places of equal layout line up whatever lies
/// there. Squared, unless it is untidy: then each card lies turned and moved by what the seed says for its
/// place, the same every time.
struct PileLayout {
  float thickness = 0.006f;       ///< of one card, share of the card's height, [0, 0.2]
  float most_thickness = 0.035f;  ///< of the whole pile, share of the height, [0, 1]; more cards lie closer
  Angle untidy_angle = {};        ///< the most by which a card is turned to either side, 0° to 30°
  float untidy_offset = 0;        ///< the most by which it is moved, share of the card's width, [0, 1]
  int last = 0;            ///< how many of the topmost lie untidy, on the others squared, [0, 100000]; 0: all
  std::uint32_t seed = 1;  ///< of an untidy pile: by it cards are turned and moved

  friend bool operator==(const PileLayout&, const PileLayout&) = default;
};

}  // namespace apsidon
