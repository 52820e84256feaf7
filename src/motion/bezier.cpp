#include "motion/bezier.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "apsidon/geometry/error.hpp"

namespace apsidon::motion_detail {
namespace {

/// One coordinate of a curve as a polynomial in its parameter: ((a t + b) t + c) t.
struct Cubic {
  double a, b, c;

  Cubic(double p1, double p2) : a(1 + 3 * (p1 - p2)), b(3 * (p2 - 2 * p1)), c(3 * p1) {}
  [[nodiscard]] double at(double t) const { return ((a * t + b) * t + c) * t; }
  [[nodiscard]] double slope(double t) const { return (3 * a * t + 2 * b) * t + c; }
};

/// The parameter at which the curve's x is `x`: Halley's method, kept inside a bracket that halves when it
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
    const double below = slope * slope - miss * (3 * cx.a * t + cx.b);
    const double next = below > 1e-18 ? t - miss * slope / below : -1;
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
  const auto share = [](float x) { return x >= 0 && x <= 1; };
  const auto eased = [](float y) { return std::abs(y) <= most_eased; };
  if (!share(c.x1) || !share(c.x2) || !eased(c.y1) || !eased(c.y2)) {
    throw Error(
        fmt::format("cubic-bezier({}, {}, {}, {}): each x from 0 to 1 and each y from -{} to {} is expected",
                    c.x1, c.y1, c.x2, c.y2, most_eased, most_eased));
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
  const Cubic cx(double{c.x1}, double{c.x2});
  const Cubic cy(double{c.y1}, double{c.y2});
  const double t = parameter_at(cx, x);
  return {static_cast<float>(cy.at(t)), ratio(cy.slope(t), cx.slope(t))};
}

PreparedBezier::PreparedBezier(const CubicBezier& curve)
    : curve_(curve), before_(tangent(start_slope(curve))), after_(tangent(end_slope(curve))) {
  for (int i = 0; i < part_count; ++i) parts_[static_cast<std::size_t>(i)] = part_between(i);
}

PreparedBezier::Part PreparedBezier::part_between(int i) const {
  constexpr float length = 1.0f / part_count;
  const float begin = static_cast<float>(i) * length;
  const EasedValue from = evaluate(curve_, begin);
  const EasedValue to = evaluate(curve_, begin + length);
  const double rise = double{to.value} - double{from.value};
  const double rate = double{from.slope} * double{length};
  const double end_rate = double{to.slope} * double{length};
  const Part part{from.value, static_cast<float>(rate), static_cast<float>(3 * rise - 2 * rate - end_rate),
                  static_cast<float>(rate + end_rate - 2 * rise)};
  // Between its ends a cubic misses most near the middle, where the fourth derivative is even.
  for (const float u : {0.125f, 0.25f, 0.375f, 0.5f, 0.625f, 0.75f, 0.875f}) {
    const float y = ((part.d * u + part.c) * u + part.b) * u + part.a;
    if (!(std::abs(y - evaluate(curve_, begin + u * length).value) <= 2.5e-6f)) {
      return {.a = std::numeric_limits<float>::quiet_NaN()};
    }
  }
  return part;
}

float PreparedBezier::value(float x) const {
  if (!(x > 0)) return before_ * x;
  if (x >= 1) return 1 + after_ * (x - 1);
  const float along = x * part_count;
  const int i = static_cast<int>(along);
  const float u = along - static_cast<float>(i);
  const Part& p = parts_[static_cast<std::size_t>(i)];
  const float y = ((p.d * u + p.c) * u + p.b) * u + p.a;
  return std::isnan(y) ? evaluate(curve_, x).value : y;
}

void PreparedBezier::values(std::span<const float> xs, std::span<float> out) const {
  for (std::size_t i = 0; i < xs.size(); ++i) out[i] = value(xs[i]);
}

}  // namespace apsidon::motion_detail
