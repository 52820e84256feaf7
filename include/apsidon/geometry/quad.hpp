#pragma once
#include <array>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// Four corners in logical px, clockwise, beginning at the top left of the side that shows.
struct Quad {
  std::array<Vec2, 4> corners{};

  friend constexpr bool operator==(const Quad&, const Quad&) = default;
};

/// An affine map of the plane: x' = a x + c y + tx, y' = b x + d y + ty.
struct Matrix {
  float a = 1, b = 0;  ///< where the unit step to the right goes
  float c = 0, d = 1;  ///< where the unit step down goes
  float tx = 0, ty = 0;

  friend constexpr bool operator==(const Matrix&, const Matrix&) = default;
};

[[nodiscard]] constexpr Vec2 apply(const Matrix& m, Vec2 p) {
  return {m.a * p.x + m.c * p.y + m.tx, m.b * p.x + m.d * p.y + m.ty};
}

/// The corners of a card of this upright size in this pose. What is flipping is seen under a mild
/// perspective, from five card diagonals away; what lies flat is exact.
[[nodiscard]] APSIDON_CORE_EXPORT Quad corners(const Pose& pose, Size card);

/// Maps the upright card, with its middle at the origin, to the window; a flip narrows it without
/// perspective.
[[nodiscard]] APSIDON_CORE_EXPORT Matrix matrix_of(const Pose& pose);

/// How a card lies: both from one call, as the work is the same.
struct Shown {
  Matrix matrix = {};
  Quad corners = {};
};
[[nodiscard]] APSIDON_CORE_EXPORT Shown shown(const Pose& pose, Size card);

/// The smallest upright box around the corners.
[[nodiscard]] APSIDON_CORE_EXPORT Rect bounds(const Quad& quad);

}  // namespace apsidon
