#pragma once
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"

namespace apsidon {

/// How far beyond its ends an easing may go: what it gives is within ±this, and so are the numbers it is made
/// of.
inline constexpr float most_eased = 1000;

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

/// Where the jumps of `steps()` are, as in the standard: at the start, at the end, at neither or at both.
enum class StepPosition { jump_start, jump_end, jump_none, jump_both };

/// `steps(count, position)`: equal steps.
struct Steps {
  int count = 1;  ///< [1, 100000]; at least 2 with jump_none
  StepPosition position = StepPosition::jump_end;

  friend constexpr bool operator==(const Steps&, const Steps&) = default;
};

/// One stop of `linear()`. Without an input it lies evenly between its neighbours that have one.
struct LinearStop {
  float output = 0;
  std::optional<float> input = {};  ///< share of the time: 0.25 for 25%

  friend constexpr bool operator==(const LinearStop&, const LinearStop&) = default;
};

/// `linear(…)`: straight lines between stops. An input below one before it counts as that one, so two stops
/// of one input are a jump.
struct LinearStops {
  std::vector<LinearStop> stops = {};  ///< 1 to 10000

  friend bool operator==(const LinearStops&, const LinearStops&) = default;
};

/// The usual shapes beside the standard's.
enum class Shape { quad, cubic, quart, quint, sine, expo, circ, back, elastic, bounce };
/// Whether the shape is at the start, at the end, or half and half.
enum class Way { in, out, in_out };

/// One of the usual curves. Powers are x², x³, x⁴, x⁵; sine 1 - cos(πx/2); expo 2^(10x - 10), shifted to
/// begin at 0; circ 1 - √(1 - x²); back x²((s + 1)x - s) with s = 1.70158, which goes a tenth too far;
/// elastic 2^(10x - 10) sin((10x - 10.75) 2π/3), begun at 0; bounce four parabolas of x · 2.75.
struct ShapedEasing {
  Shape shape = Shape::quad;
  Way way = Way::in;

  friend constexpr bool operator==(const ShapedEasing&, const ShapedEasing&) = default;
};

struct EasedValue {
  float value = 0;
  float slope = 0;  ///< change of value per change of x; the largest float where the curve is upright

  friend constexpr bool operator==(const EasedValue&, const EasedValue&) = default;
};

/// Throws Error when an x is outside [0, 1] or a y outside ±`most_eased`.
APSIDON_CORE_EXPORT void check(const CubicBezier& curve);

/// The curve at x, and its slope there. Outside [0, 1] it goes on along its end tangents, as the standard has
/// it. Exact to 1e-7 in x; for many values of one curve an `Easing` is faster.
[[nodiscard]] APSIDON_CORE_EXPORT EasedValue evaluate(const CubicBezier& curve, float x);

/// Any easing, prepared once and then quick to evaluate. A value; copies share what was prepared, which never
/// changes. Functions of x are defined for every finite x, as in the CSS Easing Functions standard, Level 2.
class APSIDON_CORE_EXPORT Easing {
 public:
  Easing() = default;  ///< linear
  Easing(const Easing& other) noexcept;
  Easing(Easing&& other) noexcept : prepared_(other.prepared_) { other.prepared_ = nullptr; }
  Easing& operator=(Easing other) noexcept;
  /// Not inline: g++ 12 takes options with easings in them, given in braces, for not initialised otherwise.
  ~Easing();
  // Each throws Error when a number is out of the range stated beside it.
  Easing(const CubicBezier& curve);
  Easing(float x1, float y1, float x2, float y2) : Easing(CubicBezier{x1, y1, x2, y2}) {}
  Easing(const Steps& steps);
  Easing(const LinearStops& stops);
  Easing(ShapedEasing shaped);

  /// From text in the standard's words: `linear`, `ease`, `ease-in`, `ease-out`, `ease-in-out`, `step-start`,
  /// `step-end`, `cubic-bezier(0.2, 0.6, 0.25, 1)`, `steps(4, jump-none)`, `linear(0, 0.5 20% 40%, 1)`; or a
  /// shape and its way, `quad-in`, `bounce-out`, `elastic-in-out`. Throws Error that says what was found and
  /// what is wanted.
  [[nodiscard]] static Easing parse(std::string_view text);
  /// In the same words; `parse` gives the same easing back.
  [[nodiscard]] std::string text() const;

  /// A few ns; a cubic-bezier about 10.
  [[nodiscard]] float value(float x) const;
  [[nodiscard]] EasedValue at(float x) const;
  /// `value` of many at once, the same bits; both spans have the same length, and may be the same.
  void values(std::span<const float> xs, std::span<float> out) const;

  /// Whether both are defined by the same numbers.
  friend APSIDON_CORE_EXPORT bool operator==(const Easing& a, const Easing& b);

 private:
  struct Prepared;
  explicit Easing(const Prepared* prepared);
  // Null: linear. Counted by hand: <memory> would be a third of what this header costs its clients.
  const Prepared* prepared_ = nullptr;
};

}  // namespace apsidon
