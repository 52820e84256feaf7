#include "apsidon/geometry/pose.hpp"

#include <cmath>

#include "geometry/shown.hpp"

namespace apsidon {

bool shows_face(float flip) { return geometry_detail::shows_its_face(flip); }

bool is_finite(const Pose& p) {
  return is_finite(p.centre) && std::isfinite(p.rotation) && std::isfinite(p.scale) &&
         std::isfinite(p.flip) && std::isfinite(p.flip_axis) && std::isfinite(p.opacity) &&
         std::isfinite(p.brightness) && std::isfinite(p.lift);
}

float tilt_of_shown_side(float flip) { return geometry_detail::tilt(flip); }

}  // namespace apsidon
