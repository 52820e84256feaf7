#pragma once
// A pose as it shows: matrix and corners at once, with one sine and cosine. Not installed.
#include <numbers>

#include "apsidon/geometry/quad.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::geometry_detail {

/// Of a card that is tilted, with its perspective.
void show_tilted(const Pose& pose, Size card, float tilt, Matrix& matrix, Quad& corners);

inline float turns_of(float radians) { return radians * (0.5f / std::numbers::pi_v<float>); }
inline SinCos sin_cos(float radians) { return sin_cos_of_turns(turns_of(radians)); }

/// Of a card that lies flat, its rotation's sine and cosine given. Written in place: what is returned and
/// copied is read before it has left the processor's hands.
inline void show_flat(const Pose& pose, Size card, SinCos rotation, Matrix& matrix, Quad& corners) {
  const float c = rotation.cosine * pose.scale;
  const float s = rotation.sine * pose.scale;
  // Half the card's width and height as they lie in the window.
  const Vec2 across{c * (card.width / 2), s * (card.width / 2)};
  const Vec2 down{-s * (card.height / 2), c * (card.height / 2)};
  const Vec2 m = pose.centre;
  matrix = {c, s, -s, c, m.x, m.y};
  corners = {{m - across - down, m + across - down, m + across + down, m - across + down}};
}

inline void show(const Pose& pose, Size card, Matrix& matrix, Quad& corners) {
  const float tilt = tilt_of_shown_side(pose.flip);
  if (tilt != 0) return show_tilted(pose, card, tilt, matrix, corners);
  show_flat(pose, card, sin_cos(pose.rotation), matrix, corners);
}

}  // namespace apsidon::geometry_detail
