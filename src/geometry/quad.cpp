#include "apsidon/geometry/quad.hpp"

#include <algorithm>

#include "geometry/shown.hpp"

namespace apsidon {

Shown shown(const Pose& pose, Size card) {
  Shown out;
  geometry_detail::show(pose, card, out.matrix, out.corners);
  return out;
}

Quad corners(const Pose& pose, Size card) { return shown(pose, card).corners; }

Matrix matrix_of(const Pose& pose) { return shown(pose, {}).matrix; }

Rect bounds(const Quad& quad) {
  Rect r{quad.corners[0], quad.corners[0]};
  for (const Vec2 p : quad.corners) {
    r.min = {std::min(r.min.x, p.x), std::min(r.min.y, p.y)};
    r.max = {std::max(r.max.x, p.x), std::max(r.max.y, p.y)};
  }
  return r;
}

}  // namespace apsidon
