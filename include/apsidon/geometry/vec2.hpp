#pragma once
#include <cmath>

namespace apsidon {

/// A point or a distance in logical pixels; x to the right, y down.
struct Vec2 {
  float x = 0;  ///< to the right
  float y = 0;  ///< down

  friend constexpr bool operator==(const Vec2&, const Vec2&) = default;
  friend constexpr Vec2 operator+(Vec2 a, Vec2 b) { return {a.x + b.x, a.y + b.y}; }  ///< the sum
  friend constexpr Vec2 operator-(Vec2 a, Vec2 b) { return {a.x - b.x, a.y - b.y}; }  ///< from `b` to `a`
  friend constexpr Vec2 operator*(Vec2 a, float s) { return {a.x * s, a.y * s}; }     ///< both times a factor
  friend constexpr Vec2 operator*(float s, Vec2 a) { return a * s; }                  ///< the same
};

/// The scalar product.
[[nodiscard]] constexpr float dot(Vec2 a, Vec2 b) { return a.x * b.x + a.y * b.y; }
/// The length.
[[nodiscard]] inline float length(Vec2 a) { return std::sqrt(dot(a, a)); }
/// Whether both numbers are finite.
[[nodiscard]] inline bool is_finite(Vec2 a) { return std::isfinite(a.x) && std::isfinite(a.y); }

/// `a` turned clockwise by the angle whose cosine and sine are given.
[[nodiscard]] constexpr Vec2 rotated(Vec2 a, float cosine, float sine) {
  return {a.x * cosine - a.y * sine, a.x * sine + a.y * cosine};
}

}  // namespace apsidon
