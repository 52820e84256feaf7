#include "apsidon/geometry/quad.hpp"

#include <array>
#include <cmath>

#include "geometry/shown.hpp"

namespace apsidon {
namespace {

/// How far away the viewer is, in card diagonals: near enough to see depth, far enough to stay calm.
constexpr float viewer_distance = 5;

}  // namespace

namespace geometry_detail {

void show_tilted(const Pose& pose, Size card, float tilt, Matrix& matrix, Quad& quad) {
  const auto [axis_sine, axis_cosine] = sin_cos(pose.flip_axis);
  const Vec2 axis{axis_sine, -axis_cosine};  // in the plane of the card
  const auto [sine, cosine] = sin_cos(pose.rotation);
  const float c = cosine * pose.scale;
  const float s = sine * pose.scale;
  const auto [tilt_sine, k] = sin_cos(tilt);
  // Rodrigues' formula, of points with z = 0: along the axis nothing shrinks, across it all by the cosine.
  const Vec2 x_to{k + (1 - k) * axis.x * axis.x, (1 - k) * axis.x * axis.y};
  const Vec2 y_to{(1 - k) * axis.x * axis.y, k + (1 - k) * axis.y * axis.y};
  const float hw = card.width / 2;
  const float hh = card.height / 2;
  const float distance = viewer_distance * 2 * std::sqrt(hw * hw + hh * hh);
  // Four corners at once: first how near each is, then where.
  const float xs[4] = {-hw, hw, hw, -hw};
  const float ys[4] = {-hh, -hh, hh, hh};
  float depth[4];
  for (std::size_t i = 0; i < 4; ++i) {
    depth[i] = distance / (distance - tilt_sine * (axis.x * ys[i] - axis.y * xs[i]));
  }
  for (std::size_t i = 0; i < 4; ++i) {
    const float near = distance > 0 ? depth[i] : 1;
    quad.corners[i] = pose.centre + rotated((x_to * xs[i] + y_to * ys[i]) * near, c, s);
  }
  const Vec2 across = rotated(x_to, c, s);
  const Vec2 down = rotated(y_to, c, s);
  matrix = {across.x, across.y, down.x, down.y, pose.centre.x, pose.centre.y};
}

}  // namespace geometry_detail

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
