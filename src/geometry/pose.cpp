#include "apsidon/geometry/pose.hpp"

#include <cmath>
#include <numbers>

namespace apsidon {

namespace {

constexpr float pi = std::numbers::pi_v<float>;

/// What is left of an angle after whole turns, -0.5 to 0.5 turns.
float part_of_turn(float angle) {
  const float turns = angle * (0.5f / pi);
  constexpr float magic = 12582912.0f;  // adding and taking away 1.5 * 2^23 rounds to a whole number
  return std::abs(turns) < 4e6f ? turns - ((turns + magic) - magic) : 0;
}

}  // namespace

bool shows_face(float flip) {
  // Most cards lie flat, on one side or the other.
  if (flip == 0 || flip == pi) return flip == 0;
  const float turned = std::abs(part_of_turn(flip));
  if (turned < 0.2499f || turned > 0.2501f) return turned < 0.25f;
  return std::cos(flip) >= 0;  // exactly at the edge
}

bool is_finite(const Pose& p) {
  return is_finite(p.centre) && std::isfinite(p.rotation) && std::isfinite(p.scale) &&
         std::isfinite(p.flip) && std::isfinite(p.flip_axis) && std::isfinite(p.opacity) &&
         std::isfinite(p.brightness) && std::isfinite(p.lift);
}

float tilt_of_shown_side(float flip) {
  if (flip == 0 || flip == pi) return 0;
  const float part = part_of_turn(flip);
  if (shows_face(flip)) return part * 2 * pi;
  return (part > 0 ? part - 0.5f : part + 0.5f) * 2 * pi;
}

}  // namespace apsidon
