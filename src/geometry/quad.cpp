#include "apsidon/geometry/quad.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/shown.hpp"
#include "geometry/shown_card.hpp"

namespace apsidon {

geometry_detail::Shown geometry_detail::shown(const Pose& pose, Size card) {
  Shown out;
  geometry_detail::show(pose, card, out.matrix, out.corners);
  return out;
}

Quad corners(const Pose& pose, Size card) { return geometry_detail::shown(pose, card).corners; }

Matrix matrix_of(const Pose& pose) { return geometry_detail::shown(pose, {}).matrix; }

std::array<float, 4> corner_weights(const Quad& quad) {
  const auto& c = quad.corners;
  const Vec2 first = c[2] - c[0];
  const Vec2 second = c[3] - c[1];
  const float area = first.x * second.y - first.y * second.x;
  constexpr float flat = 1e-4f;  // px², of a card that is seen from its edge
  if (!(std::abs(area) > flat)) return {1, 1, 1, 1};
  const Vec2 between = c[1] - c[0];
  // The shares of the diagonals at which they cross.
  const float a = (between.x * second.y - between.y * second.x) / area;
  const float b = (between.x * first.y - between.y * first.x) / area;
  const auto weight = [](float share) { return 0.5f / std::clamp(share, 1e-3f, 1.0f); };
  return {weight(1 - a), weight(1 - b), weight(a), weight(b)};
}

Vec2 point_in(const Quad& quad, Vec2 share) {
  const auto w = corner_weights(quad);
  // A weight is how near a corner is; its share of the point goes by how far it is.
  const float of[4] = {(1 - share.x) * (1 - share.y) / w[0], share.x * (1 - share.y) / w[1],
                       share.x * share.y / w[2], (1 - share.x) * share.y / w[3]};
  Vec2 sum;
  float all = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    sum = sum + quad.corners[i] * of[i];
    all += of[i];
  }
  return all > 0 ? sum * (1 / all) : quad.corners[0];
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
