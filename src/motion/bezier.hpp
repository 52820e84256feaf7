#pragma once
// Cubic-bezier curves, prepared for many evaluations. Not installed.
#include <array>
#include <cstddef>
#include <span>

#include "apsidon/motion/easing.hpp"

namespace apsidon::motion_detail {

/// One coordinate of a curve as a polynomial in its parameter: ((a t + b) t + c) t.
template <class T>
struct Cubic {
  T a = 0, b = 0, c = 0;

  Cubic() = default;
  Cubic(T p1, T p2) : a(1 + 3 * (p1 - p2)), b(3 * (p2 - 2 * p1)), c(3 * p1) {}
  [[nodiscard]] T at(T t) const { return ((a * t + b) * t + c) * t; }
  [[nodiscard]] T slope(T t) const { return (3 * a * t + 2 * b) * t + c; }
};

/// A curve whose parameter is guessed by a polynomial and mended by two steps of Newton's method: no branch
/// and no table, so that the compiler can do several at once. Of a curve that starts or ends upright the
/// polynomial is of a measure of x in which the parameter is smooth there: half of it √(x/2), half of it 1 -
/// √((1 - x)/2).
class PreparedBezier {
 public:
  explicit PreparedBezier(const CubicBezier& curve);

  [[nodiscard]] const CubicBezier& curve() const { return curve_; }
  [[nodiscard]] float value(float x) const;
  /// `value` of each, the same bits.
  void values(std::span<const float> xs, std::span<float> out) const;
  [[nodiscard]] EasedValue at(float x) const { return evaluate(curve_, x); }

 private:
  static constexpr std::size_t degree = 8;

  template <bool rooted>
  [[nodiscard]] float quick(float x, bool& good) const;
  template <bool rooted>
  [[nodiscard]] bool quick_values(std::span<const float> xs, std::span<float> out) const;

  CubicBezier curve_;
  Cubic<float> x_;
  Cubic<float> y_;
  float before_ = 0;  // slope beyond either end
  float after_ = 0;
  bool rooted_ = false;
  bool exact_ = false;  // so nearly upright somewhere that only the careful way will do
  std::array<float, degree + 1> guess_{};
};

}  // namespace apsidon::motion_detail
