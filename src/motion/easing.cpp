#include "apsidon/motion/easing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

/// One coordinate of the curve as a polynomial in its parameter: ((a t + b) t + c) t.
struct Cubic {
  double a, b, c;
  Cubic(double p1, double p2) : a(1 + 3 * (p1 - p2)), b(3 * (p2 - 2 * p1)), c(3 * p1) {}
  double at(double t) const { return ((a * t + b) * t + c) * t; }
  double slope(double t) const { return (3 * a * t + 2 * b) * t + c; }
};

/// The parameter at which the curve's x is `x`: Newton's method, kept inside a bracket that halves when it
/// strays.
double parameter_at(const Cubic& cx, double x) {
  double low = 0;
  double high = 1;
  double t = x;
  for (int i = 0; i < 60; ++i) {
    const double miss = cx.at(t) - x;
    if (std::abs(miss) < 1e-9) break;
    (miss > 0 ? high : low) = t;
    const double slope = cx.slope(t);
    const double next = slope > 1e-9 ? t - miss / slope : -1;
    t = next > low && next < high ? next : (low + high) / 2;
    if (high - low < 1e-14) break;
  }
  return t;
}

float ratio(double dy, double dx) {
  constexpr double most = std::numeric_limits<float>::max();
  if (dx <= 1e-12) return static_cast<float>(dy == 0 ? 0 : std::copysign(most, dy));
  return static_cast<float>(std::clamp(dy / dx, -most, most));
}

/// The tangents at the ends, by the first control point that is not the end itself.
float start_slope(const CubicBezier& c) {
  if (c.x1 > 0 || c.y1 != 0) return ratio(c.y1, c.x1);
  if (c.x2 > 0 || c.y2 != 0) return ratio(c.y2, c.x2);
  return 1;
}
float end_slope(const CubicBezier& c) {
  if (c.x2 < 1 || c.y2 != 1) return ratio(1 - double{c.y2}, 1 - double{c.x2});
  if (c.x1 < 1 || c.y1 != 1) return ratio(1 - double{c.y1}, 1 - double{c.x1});
  return 1;
}

/// Beyond an end the standard goes on along the tangent, and stays level where the tangent is upright.
float tangent(float slope) { return std::abs(slope) == std::numeric_limits<float>::max() ? 0 : slope; }

}  // namespace

void check(const CubicBezier& c) {
  if (!std::isfinite(c.y1) || !std::isfinite(c.y2) || !(c.x1 >= 0 && c.x1 <= 1 && c.x2 >= 0 && c.x2 <= 1)) {
    throw Error(
        fmt::format("cubic-bezier({}, {}, {}, {}): finite numbers with both x from 0 to 1 are expected", c.x1,
                    c.y1, c.x2, c.y2));
  }
}

EasedValue evaluate(const CubicBezier& c, float x) {
  if (c == linear) return {x, 1};
  if (!(x > 0)) {
    const float slope = start_slope(c);
    return {x < 0 ? tangent(slope) * x : 0, slope};
  }
  if (x >= 1) {
    const float slope = end_slope(c);
    return {1 + tangent(slope) * (x - 1), slope};
  }
  const Cubic cx(c.x1, c.x2);
  const Cubic cy(c.y1, c.y2);
  const double t = parameter_at(cx, x);
  return {static_cast<float>(cy.at(t)), ratio(cy.slope(t), cx.slope(t))};
}

}  // namespace apsidon
