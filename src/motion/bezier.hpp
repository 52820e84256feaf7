#pragma once
// Cubic-bezier curves, prepared for many evaluations. Not installed.
#include <array>
#include <cstddef>
#include <span>

#include "apsidon/motion/easing.hpp"

namespace apsidon::motion_detail {

/// Throws Error when an x is outside [0, 1] or a y outside ±`most_eased`.
void check(const CubicBezier& curve);

/// The curve at x, and its slope there. Outside [0, 1] it goes on along its end tangents, as the standard has
/// it.
[[nodiscard]] EasedValue evaluate(const CubicBezier& curve, float x);

/// A curve cut into cubics of x, each with the curve's values and slopes at its ends. A part that misses the
/// curve, because it is nearly upright there, is marked, and done carefully.
class PreparedBezier {
 public:
  explicit PreparedBezier(const CubicBezier& curve);

  [[nodiscard]] const CubicBezier& curve() const { return curve_; }
  [[nodiscard]] float value(float x) const;
  /// `value` of each, the same bits.
  void values(std::span<const float> xs, std::span<float> out) const;
  [[nodiscard]] EasedValue at(float x) const { return evaluate(curve_, x); }

 private:
  static constexpr int part_count = 64;

  /// ((d u + c) u + b) u + a, with u from 0 to 1 along the part; `a` is not a number where it is marked.
  struct Part {
    float a = 0, b = 0, c = 0, d = 0;
  };
  [[nodiscard]] Part part_between(int i) const;

  CubicBezier curve_;
  float before_ = 0;  // slope beyond either end
  float after_ = 0;
  std::array<Part, part_count> parts_{};
};

}  // namespace apsidon::motion_detail
