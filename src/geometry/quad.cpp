#include "apsidon/geometry/quad.hpp"

#include <Eigen/Geometry>
#include <cmath>

namespace apsidon {
namespace {

/// How far away the viewer is, in card diagonals: near enough to see depth, far enough to stay calm.
constexpr float viewer_distance = 5;

Eigen::Vector3f flip_axis_of(const Pose& pose) {
  return {std::sin(pose.flip_axis), -std::cos(pose.flip_axis), 0};
}

}  // namespace

Quad corners(const Pose& pose, Size card) {
  const float hw = card.width / 2;
  const float hh = card.height / 2;
  std::array<Vec2, 4> local{Vec2{-hw, -hh}, Vec2{hw, -hh}, Vec2{hw, hh}, Vec2{-hw, hh}};
  const float tilt = tilt_of_shown_side(pose.flip);
  if (tilt != 0) {
    const float distance = viewer_distance * std::sqrt(card.width * card.width + card.height * card.height);
    const Eigen::AngleAxisf turn(tilt, flip_axis_of(pose));
    for (Vec2& p : local) {
      const Eigen::Vector3f turned = turn * Eigen::Vector3f(p.x, p.y, 0);
      const float depth = distance > 0 ? distance / (distance - turned.z()) : 1;
      p = {turned.x() * depth, turned.y() * depth};
    }
  }
  const float c = std::cos(pose.rotation) * pose.scale;
  const float s = std::sin(pose.rotation) * pose.scale;
  Quad out;
  for (std::size_t i = 0; i < 4; ++i) out.corners[i] = pose.centre + rotated(local[i], c, s);
  return out;
}

Matrix matrix_of(const Pose& pose) {
  Eigen::Matrix2f m = Eigen::Matrix2f::Identity();
  const float tilt = tilt_of_shown_side(pose.flip);
  if (tilt != 0) {
    // Across the axis everything shrinks by the cosine, along it nothing: m = k I + (1 - k) u u^T.
    const float k = std::cos(tilt);
    const Eigen::Vector2f axis = flip_axis_of(pose).head<2>();
    m = k * m + (1 - k) * axis * axis.transpose();
  }
  m = Eigen::Rotation2Df(pose.rotation).toRotationMatrix() * m * pose.scale;
  return {m(0, 0), m(1, 0), m(0, 1), m(1, 1), pose.centre.x, pose.centre.y};
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
