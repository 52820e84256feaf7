#pragma once
// A shape with all done that does not depend on the point. Not installed.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "apsidon/hit/hit_index.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::hit_detail {

struct Ready {
  Vec2 centre = {};
  float a = 0, b = 0, c = 0, d = 0;  // from a window's offset to the frame of the shape
  float half_width = -1;             // negative: no point is in it
  float half_height = 0;
  float radius = 0;

  [[nodiscard]] Vec2 to_frame(Vec2 point) const {
    const Vec2 away = point - centre;
    return {a * away.x + b * away.y, c * away.x + d * away.y};
  }

  [[nodiscard]] bool contains(Vec2 point) const {
    const Vec2 p = to_frame(point);
    if (!(p.x >= -half_width && p.x < half_width && p.y >= -half_height && p.y < half_height)) return false;
    const float dx = std::abs(p.x) - (half_width - radius);
    const float dy = std::abs(p.y) - (half_height - radius);
    if (dx <= 0 || dy <= 0) return true;
    const float distance = dx * dx + dy * dy;
    // The edge rule on a round corner: only the one between the left and the top edge has its edge inside.
    return p.x < 0 && p.y < 0 ? distance <= radius * radius : distance < radius * radius;
  }
};

inline Ready made_ready(const HitShape& shape) {
  const Pose& pose = shape.pose;
  Ready r{.centre = pose.centre};
  if (!(pose.scale > 0) || !std::isfinite(pose.scale + pose.rotation)) return r;
  const auto [sine, cosine] =
      geometry_detail::sin_cos_of_turns(pose.rotation * (0.5f / std::numbers::pi_v<float>));
  const float shrink = 1 / pose.scale;
  r.a = cosine * shrink;
  r.b = sine * shrink;
  r.c = -sine * shrink;
  r.d = cosine * shrink;
  const float tilt = tilt_of_shown_side(pose.flip);
  if (tilt != 0) {
    // A flip narrows the shape across its axis; undo that by widening the distance from the axis.
    const float narrow = std::cos(tilt);
    if (!(narrow > 1e-6f)) return r;
    const Vec2 across{std::cos(pose.flip_axis), std::sin(pose.flip_axis)};
    const float wider = 1 / narrow - 1;
    const Vec2 from_x{r.a, r.c};
    const Vec2 from_y{r.b, r.d};
    const Vec2 x = from_x + across * (dot(from_x, across) * wider);
    const Vec2 y = from_y + across * (dot(from_y, across) * wider);
    r.a = x.x;
    r.c = x.y;
    r.b = y.x;
    r.d = y.y;
  }
  r.half_width = shape.size.width / 2;
  r.half_height = shape.size.height / 2;
  r.radius = std::clamp(shape.corner_radius, 0.0f, std::max(std::min(r.half_width, r.half_height), 0.0f));
  return r;
}

/// Half of the upright box around the shape, with a little more than rounding takes away.
inline Vec2 reach_of(const Ready& r) {
  const float det = r.a * r.d - r.b * r.c;
  const float inverse = det != 0 ? 1 / det : 0;
  const float hw = std::max(r.half_width, 0.0f);
  const float x = (std::abs(r.d) * hw + std::abs(r.b) * r.half_height) * std::abs(inverse);
  const float y = (std::abs(r.c) * hw + std::abs(r.a) * r.half_height) * std::abs(inverse);
  return {x * 1.0001f + 0.01f, y * 1.0001f + 0.01f};
}

}  // namespace apsidon::hit_detail
