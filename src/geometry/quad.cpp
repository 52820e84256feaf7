#include "apsidon/geometry/quad.hpp"

#include <algorithm>

#include "geometry/shown.hpp"

namespace apsidon {

Quad corners(const Pose& pose, Size card) {
  Matrix matrix;
  Quad out;
  geometry_detail::show(pose, card, matrix, out);
  return out;
}

Matrix matrix_of(const Pose& pose) {
  Matrix out;
  Quad quad;
  geometry_detail::show(pose, {}, out, quad);
  return out;
}

Rect bounds(const Quad& quad) {
  Rect r{quad.corners[0], quad.corners[0]};
  for (const Vec2 p : quad.corners) {
    r.min = {std::min(r.min.x, p.x), std::min(r.min.y, p.y)};
    r.max = {std::max(r.max.x, p.x), std::max(r.max.y, p.y)};
  }
  return r;
}

}  // namespace apsidon
