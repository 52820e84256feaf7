#include "apsidon/hit/hit_index.hpp"

#include <algorithm>
#include <cmath>

namespace apsidon {
namespace {

/// The point in the frame of the shape, whose middle is the origin.
std::optional<Vec2> to_frame(const HitShape& shape, Vec2 point) {
  const Pose& pose = shape.pose;
  if (!(pose.scale > 0)) return std::nullopt;
  const Vec2 away = point - pose.centre;
  Vec2 p = pose.rotation == 0 ? away : rotated(away, std::cos(pose.rotation), -std::sin(pose.rotation));
  p = p * (1 / pose.scale);
  if (pose.flip != 0) {
    // A flip narrows the shape across its axis; undo that by widening the distance from the axis.
    const float narrow = std::cos(tilt_of_shown_side(pose.flip));
    if (!(narrow > 1e-6f)) return std::nullopt;
    const Vec2 across{std::cos(pose.flip_axis), std::sin(pose.flip_axis)};
    p = p + across * (dot(p, across) * (1 / narrow - 1));
  }
  return p;
}

bool inside_rounded(Vec2 p, Size size, float radius) {
  const float hw = size.width / 2;
  const float hh = size.height / 2;
  if (!(p.x >= -hw && p.x < hw && p.y >= -hh && p.y < hh)) return false;
  const float r = std::clamp(radius, 0.0f, std::min(hw, hh));
  const float dx = std::abs(p.x) - (hw - r);
  const float dy = std::abs(p.y) - (hh - r);
  if (dx <= 0 || dy <= 0) return true;
  const float distance = dx * dx + dy * dy;
  // The edge rule on a round corner: only the one between the left and the top edge has its edge inside.
  return p.x < 0 && p.y < 0 ? distance <= r * r : distance < r * r;
}

}  // namespace

bool contains(const HitShape& shape, Vec2 point) {
  if (!shape.clip.contains(point)) return false;
  const auto p = to_frame(shape, point);
  return p && inside_rounded(*p, shape.size, shape.corner_radius);
}

void HitIndex::add(const HitShape& shape, std::uint32_t tag) {
  const float s = shape.pose.scale;
  const float reach =
      (shape.size.width * shape.size.width + shape.size.height * shape.size.height) / 4 * s * s;
  // A little more than exact: the circle only spares work, the shape decides.
  shapes_.push_back(
      {.centre = shape.pose.centre, .reach_squared = reach * 1.0001f, .tag = tag, .shape = shape});
}

std::optional<std::uint32_t> HitIndex::topmost(Vec2 point) const {
  for (std::size_t i = shapes_.size(); i-- > 0;) {
    const Entry& e = shapes_[i];
    const Vec2 away = point - e.centre;
    if (dot(away, away) <= e.reach_squared && contains(e.shape, point)) return e.tag;
  }
  return std::nullopt;
}

}  // namespace apsidon
