#pragma once
#include <span>
#include <string>
#include <string_view>

#include "apsidon/core_export.hpp"

namespace apsidon {

namespace motion_detail {
struct EasingMaker;
}

/// How far beyond its ends an easing may go: what it gives is within ±this, and so are the numbers it is made
/// of.
inline constexpr float most_eased = 1000;

/// A `cubic-bezier()` easing as in the CSS Easing Functions standard: a curve from (0, 0) to (1, 1) with two
/// control points; it gives the share of the way for the share of the time.
struct CubicBezier {
  float x1 = 0.25f;  ///< of the first control point, [0, 1]
  float y1 = 0.1f;   ///< of the first control point, within ±`most_eased`
  float x2 = 0.25f;  ///< of the second control point, [0, 1]
  float y2 = 1;      ///< of the second control point, within ±`most_eased`

  friend constexpr bool operator==(const CubicBezier&, const CubicBezier&) = default;
};

// The named curves of the standard.
/// The standard's `linear`.
inline constexpr CubicBezier linear{0, 0, 1, 1};
/// The standard's `ease`.
inline constexpr CubicBezier ease{0.25f, 0.1f, 0.25f, 1};
/// The standard's `ease-in`.
inline constexpr CubicBezier ease_in{0.42f, 0, 1, 1};
/// The standard's `ease-out`.
inline constexpr CubicBezier ease_out{0, 0, 0.58f, 1};
/// The standard's `ease-in-out`.
inline constexpr CubicBezier ease_in_out{0.42f, 0, 0.58f, 1};

/// What an easing comes to.
struct EasedValue {
  float value = 0;  ///< 0 at the start, 1 at the end; beyond both where the curve overshoots
  float slope = 0;  ///< change of value per change of x; the largest float where the curve is upright

  friend constexpr bool operator==(const EasedValue&, const EasedValue&) = default;
};

/// Any easing, prepared once and then quick to evaluate: a cubic-bezier, or what `parse` reads. A value;
/// copies share what was prepared, which never changes. Functions of x are defined for every finite x, as in
/// the CSS Easing Functions standard, Level 2; a cubic-bezier is exact to 1e-7 in x.
class APSIDON_CORE_EXPORT Easing {
 public:
  Easing() = default;  ///< linear
  /// O(1): what was prepared is shared.
  Easing(const Easing& other) noexcept;
  /// Leaves a linear one.
  Easing(Easing&& other) noexcept : prepared_(other.prepared_) { other.prepared_ = nullptr; }
  /// O(1)
  Easing& operator=(Easing other) noexcept;
  /// Not inline: g++ 12 takes options with easings in them, given in braces, for not initialised otherwise.
  ~Easing();
  /// Throws Error when an x is outside [0, 1] or a y outside ±`most_eased`.
  Easing(const CubicBezier& curve);
  /// Likewise, by the numbers of `cubic-bezier(…)`.
  Easing(float x1, float y1, float x2, float y2) : Easing(CubicBezier{x1, y1, x2, y2}) {}

  /// From text in the standard's words: `linear`, `ease`, `ease-in`, `ease-out`, `ease-in-out`, `step-start`,
  /// `step-end`, `cubic-bezier(0.2, 0.6, 0.25, 1)`, `steps(4, jump-none)` of [1, 100000] steps, `linear(0,
  /// 0.5 20% 40%, 1)` of up to 10000 stops; or a shape and its way, `quad-in`, `bounce-out`,
  /// `elastic-in-out`. Shapes: powers are x², x³, x⁴, x⁵ (`quad`, `cubic`, `quart`, `quint`); `sine` 1 -
  /// cos(πx/2); `expo` 2^(10x - 10), shifted to begin at 0; `circ` 1 - √(1 - x²); `back` x²((s + 1)x - s)
  /// with s = 1.70158, which goes a tenth too far; `elastic` 2^(10x - 10) sin((10x - 10.75) 2π/3), begun at
  /// 0; `bounce` four parabolas of x · 2.75. Throws Error that says what was found and what is wanted.
  [[nodiscard]] static Easing parse(std::string_view text);
  /// In the same words; `parse` gives the same easing back.
  [[nodiscard]] std::string text() const;

  /// A few ns; a cubic-bezier about 10.
  [[nodiscard]] float value(float x) const;
  /// Likewise, with the slope there.
  [[nodiscard]] EasedValue at(float x) const;
  /// `value` of many at once, the same bits; both spans have the same length, and may be the same.
  void values(std::span<const float> xs, std::span<float> out) const;

  /// Whether both are defined by the same numbers.
  friend APSIDON_CORE_EXPORT bool operator==(const Easing& a, const Easing& b);

 private:
  friend struct motion_detail::EasingMaker;
  struct Prepared;
  explicit Easing(const Prepared* prepared);
  // Null: linear. Counted by hand: <memory> would be a third of what this header costs its clients.
  const Prepared* prepared_ = nullptr;
};

}  // namespace apsidon
