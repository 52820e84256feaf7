#pragma once
#include <compare>
#include <numbers>

namespace apsidon {

/// An angle, clockwise positive. Made from `12_deg`, `Angle::degrees(12)`, `Angle::radians(0.2)`; never from
/// a bare number.
class Angle {
 public:
  constexpr Angle() = default;
  /// An angle of so many degrees, clockwise on the screen.
  [[nodiscard]] static constexpr Angle degrees(double value) {
    return Angle{static_cast<float>(value * std::numbers::pi / 180)};
  }
  /// An angle of so many radians, clockwise on the screen.
  [[nodiscard]] static constexpr Angle radians(double value) { return Angle{static_cast<float>(value)}; }

  [[nodiscard]] constexpr float radians() const { return radians_; }  ///< clockwise
  /// Clockwise.
  [[nodiscard]] constexpr double degrees() const { return double{radians_} * 180 / std::numbers::pi; }

  friend constexpr bool operator==(const Angle&, const Angle&) = default;
  friend constexpr auto operator<=>(const Angle&, const Angle&) = default;  ///< by size

 private:
  explicit constexpr Angle(float radians) : radians_(radians) {}
  float radians_ = 0;
};

inline namespace literals {
/// `12.5_deg`, degrees.
[[nodiscard]] constexpr Angle operator""_deg(long double v) { return Angle::degrees(static_cast<double>(v)); }
/// `90_deg`, degrees.
[[nodiscard]] constexpr Angle operator""_deg(unsigned long long v) {
  return Angle::degrees(static_cast<double>(v));
}
}  // namespace literals

}  // namespace apsidon
