#pragma once
#include "apsidon/geometry/angle.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Cards held in a hand: an arc that bends toward the player at both ends, or with a step of 0° a straight
/// row. With more cards than fit, they move together and the arc keeps its ends; an area too low for the arc
/// flattens it, down to a straight row.
struct HandLayout {
  float spacing = 0.62f;        ///< between the middles of neighbours, share of the card's width, [0.001, 4]
  float least_spacing = 0.16f;  ///< below this the hand is crowded; share of the width, [0, spacing]
  Angle step = Angle::degrees(3.5);          ///< between neighbours where there is room, 0° to 45°
  Angle largest_angle = Angle::degrees(36);  ///< between the first card and the last, 0° to 160°
  Align align = Align::centre;               ///< where the hand lies in a wider area
  float raise = 0.22f;  ///< how far a raised card comes out, share of the card's height, [0, 2]
  float part = 0.3f;    ///< how far its neighbours step aside, share of the card's width, [0, 2]

  friend bool operator==(const HandLayout&, const HandLayout&) = default;
};

}  // namespace apsidon
