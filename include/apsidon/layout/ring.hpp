#pragma once
#include "apsidon/geometry/angle.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Cards around the middle of the area, on the largest ellipse that it holds: the whole way round, or a part
/// of it. They lie upright, or with their lower edge toward the middle.
struct RingLayout {
  Angle start = {};  ///< of the first card, clockwise from the top, -360° to 360°
  Angle sweep =
      Angle::degrees(360);  ///< from the first card to the last; 360°: all the way round, evenly, 0° to 360°
  bool turned = true;       ///< lower edges point to the middle; else all lie upright
  bool round = true;        ///< on a circle, also where the area is longer in one direction
  int cells = 0;            ///< places around, each card in that of its cell; 0: one after another, [0, 1000]
  float least_spacing =
      0.3f;  ///< between the middles of neighbours; below it is crowded, share of the width, [0, 4]

  friend bool operator==(const RingLayout&, const RingLayout&) = default;
};

}  // namespace apsidon
