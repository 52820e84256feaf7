#pragma once
#include "apsidon/core_export.hpp"

namespace apsidon {

/// A `cubic-bezier()` easing as in the CSS Easing Functions standard: a curve from (0, 0) to (1, 1) with two
/// control points; it gives the share of the way for the share of the time.
struct CubicBezier {
  float x1 = 0.25f, y1 = 0.1f;  ///< first control point; x in [0, 1]
  float x2 = 0.25f, y2 = 1;     ///< second control point; x in [0, 1]

  friend constexpr bool operator==(const CubicBezier&, const CubicBezier&) = default;
};

// The named curves of the standard.
inline constexpr CubicBezier linear{0, 0, 1, 1};
inline constexpr CubicBezier ease{0.25f, 0.1f, 0.25f, 1};
inline constexpr CubicBezier ease_in{0.42f, 0, 1, 1};
inline constexpr CubicBezier ease_out{0, 0, 0.58f, 1};
inline constexpr CubicBezier ease_in_out{0.42f, 0, 0.58f, 1};

/// Throws Error when an x is outside [0, 1] or a number is not finite.
APSIDON_CORE_EXPORT void check(const CubicBezier& curve);

struct EasedValue {
  float value = 0;
  float slope = 0;  ///< change of value per change of x; the largest float where the curve is upright
};

/// The curve at x, and its slope there. Outside [0, 1] it goes on along its end tangents, as the standard has
/// it.
[[nodiscard]] APSIDON_CORE_EXPORT EasedValue evaluate(const CubicBezier& curve, float x);

}  // namespace apsidon
