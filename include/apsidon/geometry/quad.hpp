#pragma once
#include <array>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// Four corners in logical px, clockwise, beginning at the top left of the side that shows.
struct Quad {
  std::array<Vec2, 4> corners{};  ///< clockwise from the top left of what it is of

  friend constexpr bool operator==(const Quad&, const Quad&) = default;
};

/// An affine map of the plane: x' = a x + c y + tx, y' = b x + d y + ty.
struct Matrix {
  float a = 1;   ///< where the unit step to the right goes, across
  float b = 0;   ///< … and down
  float c = 0;   ///< where the unit step down goes, across
  float d = 1;   ///< … and down
  float tx = 0;  ///< where the origin goes, across
  float ty = 0;  ///< … and down

  friend constexpr bool operator==(const Matrix&, const Matrix&) = default;
};

/// Where the map takes a point.
[[nodiscard]] constexpr Vec2 apply(const Matrix& m, Vec2 p) {
  return {m.a * p.x + m.c * p.y + m.tx, m.b * p.x + m.d * p.y + m.ty};
}

/// The corners of a card of this upright size in this pose. What is flipping is seen under a mild
/// perspective, from five card diagonals away; what lies flat is exact.
[[nodiscard]] APSIDON_CORE_EXPORT Quad corners(const Pose& pose, Size card);

/// Maps the upright card, with its middle at the origin, to the window; a flip narrows it without
/// perspective.
[[nodiscard]] APSIDON_CORE_EXPORT Matrix matrix_of(const Pose& pose);

/// How near each corner of a card under perspective is, for textures: where a renderer interpolates evenly,
/// it is given (u w, v w, w) at each corner in the place of (u, v), and divides. 1 for all of a card that
/// lies flat, and of one that is edge-on. From where the diagonals cross, as of any parallelogram that is
/// projected.
[[nodiscard]] APSIDON_CORE_EXPORT std::array<float, 4> corner_weights(const Quad& quad);

/// Where a point of a card shows, under its perspective: (0, 0) is its top left corner, (1, 1) its bottom
/// right; others lie beyond it.
[[nodiscard]] APSIDON_CORE_EXPORT Vec2 point_in(const Quad& quad, Vec2 share);

/// The smallest upright box around the corners.
[[nodiscard]] APSIDON_CORE_EXPORT Rect bounds(const Quad& quad);

}  // namespace apsidon
