#pragma once
// The circle around a shape, which spares most looks at the shape itself. Not installed.
#include "apsidon/geometry/rect.hpp"

namespace apsidon::hit_detail {

/// The squared radius at scale 1.
inline float circle_of(Size size) {
  return (size.width * size.width + size.height * size.height) / 4 * 1.0001f;
}

/// The squared radius at a scale, a little more than exact: the circle only spares work, the shape decides.
inline float reach_of(float circle, float scale) { return circle * scale * scale + 0.01f; }

}  // namespace apsidon::hit_detail
