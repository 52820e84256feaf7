#include "motion/bezier.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

using motion_detail::Cubic;

/// The parameter at which the curve's x is `x`: Newton's method, kept inside a bracket that halves when it
/// strays.
double parameter_at(const Cubic<double>& cx, double x) {
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

/// A measure of x in which √x is smooth at 0, and √(1 - x) at 1; and back.
float measure(float x) {
  const float half = x < 0.5f ? x : 1 - x;
  const float root = std::sqrt(half * 0.5f);
  return x < 0.5f ? root : 1 - root;
}
double from_measure(double m) { return m < 0.5 ? 2 * m * m : 1 - 2 * (1 - m) * (1 - m); }

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
  const Cubic<double> cx(double{c.x1}, double{c.x2});
  const Cubic<double> cy(double{c.y1}, double{c.y2});
  const double t = parameter_at(cx, x);
  return {static_cast<float>(cy.at(t)), ratio(cy.slope(t), cx.slope(t))};
}

namespace motion_detail {

PreparedBezier::PreparedBezier(const CubicBezier& curve)
    : curve_(curve),
      x_(curve.x1, curve.x2),
      y_(curve.y1, curve.y2),
      before_(tangent(start_slope(curve))),
      after_(tangent(end_slope(curve))),
      rooted_(curve.x1 < 0.05f || curve.x2 > 0.95f) {
  // The polynomial through the parameters at Chebyshev's points, by Newton's divided differences.
  constexpr std::size_t n = degree + 1;
  const Cubic<double> x(double{curve.x1}, double{curve.x2});
  std::array<double, n> at{};
  std::array<double, n> difference{};
  for (std::size_t i = 0; i < n; ++i) {
    const double angle = std::numbers::pi * (static_cast<double>(i) + 0.5) / static_cast<double>(n);
    at[i] = (1 - std::cos(angle)) / 2;
    difference[i] = parameter_at(x, rooted_ ? from_measure(at[i]) : at[i]);
  }
  for (std::size_t order = 1; order < n; ++order) {
    for (std::size_t i = n - 1; i >= order; --i) {
      difference[i] = (difference[i] - difference[i - 1]) / (at[i] - at[i - order]);
    }
  }
  std::array<double, n> power{};  // the same polynomial by powers
  for (std::size_t i = n; i-- > 0;) {
    for (std::size_t k = n - 1; k > 0; --k) power[k] = power[k - 1] - at[i] * power[k];
    power[0] = difference[i] - at[i] * power[0];
  }
  for (std::size_t i = 0; i < n; ++i) guess_[i] = static_cast<float>(power[i]);

  // Where the quick way is not good enough anywhere, the careful way is taken everywhere.
  constexpr int samples = 250;
  for (int i = 1; i < samples && !exact_; ++i) {
    const float sample = static_cast<float>(from_measure((i + 0.37) / samples));
    const EasedValue careful = evaluate(curve_, sample);
    // Half of what is allowed; where the curve is steep, what a step of 1e-7 in x makes.
    exact_ =
        !(std::abs(value(sample) - careful.value) <= 5e-6f + std::min(std::abs(careful.slope), 1e6f) * 1e-7f);
  }
}

template <bool rooted>
[[gnu::always_inline]] inline float PreparedBezier::quick(float x, bool& good) const {
  const float inside = std::min(std::max(x, 1e-30f), 0.99999994f);
  const float m = rooted ? measure(inside) : inside;
  const float m2 = m * m;
  const float m4 = m2 * m2;
  const auto& g = guess_;
  // Pairs first: a shorter chain than one power after another.
  float t = ((g[0] + g[1] * m) + (g[2] + g[3] * m) * m2) + ((g[4] + g[5] * m) + (g[6] + g[7] * m) * m2) * m4 +
            g[8] * (m4 * m4);
  const auto mend = [&] {
    const float slope = x_.slope(t);
    t -= (x_.at(t) - inside) / (slope > 1e-6f ? slope : 1e-6f);
  };
  mend();
  mend();
  // Good where x is met, or where what is missed makes no difference in y.
  const float missed = std::abs(x_.at(t) - inside);
  good = !(missed > 2e-7f) | !(missed * std::abs(y_.slope(t)) > 4e-6f * x_.slope(t));
  const float y = y_.at(t);
  return x > 0 ? (x < 1 ? y : 1 + after_ * (x - 1)) : before_ * x;
}

float PreparedBezier::value(float x) const {
  bool good = false;
  if (!exact_) {
    const float quickly = rooted_ ? quick<true>(x, good) : quick<false>(x, good);
    if (good) return quickly;
  }
  return evaluate(curve_, x).value;
}

template <bool rooted>
bool PreparedBezier::quick_values(std::span<const float> xs, std::span<float> out) const {
  const PreparedBezier self = *this;  // what is written does not alias it
  int bad = 0;
  for (std::size_t i = 0; i < xs.size(); ++i) {
    bool good = false;
    out[i] = self.quick<rooted>(xs[i], good);
    bad |= good ? 0 : 1;
  }
  return bad == 0;
}

void PreparedBezier::values(std::span<const float> xs, std::span<float> out) const {
  // Written beside the xs, which may be the same: they are needed again where one was not good.
  std::array<float, 16> quickly;
  for (std::size_t begin = 0; begin < xs.size(); begin += quickly.size()) {
    const auto some = xs.subspan(begin, std::min(quickly.size(), xs.size() - begin));
    const std::span<float> to(quickly.data(), some.size());
    const bool good = !exact_ && (rooted_ ? quick_values<true>(some, to) : quick_values<false>(some, to));
    for (std::size_t i = 0; i < some.size(); ++i) out[begin + i] = good ? quickly[i] : value(some[i]);
  }
}

}  // namespace motion_detail
}  // namespace apsidon
