#pragma once
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// A straight overlapping line, each card to the right of the one before; whole, or just the last few with
/// those before them squared below (a waste). With more cards than fit they move together evenly.
struct SpreadLayout {
  float spacing = 0.3f;         ///< between the left edges of neighbours, share of the card's width, [0, 4]
  float least_spacing = 0.12f;  ///< below this the spread is crowded, [0, spacing]
  int last = 0;                 ///< how many cards are spread, from the top; 0: all, [0, 100000]
  Align align = Align::start;   ///< where the line lies in a wider area
  float lift = 0.15f;           ///< how far a raised card comes out, share of the card's height, [0, 2]

  friend bool operator==(const SpreadLayout&, const SpreadLayout&) = default;
};

}  // namespace apsidon
