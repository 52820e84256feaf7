#include "apsidon/geometry/pose.hpp"

#include <cmath>
#include <numbers>

namespace apsidon {

namespace {

constexpr float pi = std::numbers::pi_v<float>;

}  // namespace

bool shows_face(float flip) {
  // Most cards lie flat, on one side or the other.
  if (flip == 0 || flip == pi) return flip == 0;
  return std::cos(flip) >= 0;
}

bool is_finite(const Pose& p) {
  return is_finite(p.centre) && std::isfinite(p.rotation) && std::isfinite(p.scale) &&
         std::isfinite(p.flip) && std::isfinite(p.flip_axis) && std::isfinite(p.opacity) &&
         std::isfinite(p.brightness) && std::isfinite(p.lift);
}

float tilt_of_shown_side(float flip) {
  if (flip == 0 || flip == pi) return 0;
  return std::remainder(shows_face(flip) ? flip : flip - pi, 2 * pi);
}

}  // namespace apsidon
