#pragma once
// A pose as it shows: matrix and corners at once, with one sine and cosine. Not installed.
#include <Eigen/Core>
#include <cmath>
#include <numbers>

#include "apsidon/geometry/quad.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::geometry_detail {

inline float turns_of(float radians) { return radians * (0.5f / std::numbers::pi_v<float>); }
inline SinCos sin_cos(float radians) { return sin_cos_of_turns(turns_of(radians)); }

/// What is left of an angle after whole turns, -0.5 to 0.5 turns.
inline float part_of_turn(float angle) {
  const float turns = turns_of(angle);
  constexpr float magic = 12582912.0f;  // adding and taking away 1.5 * 2^23 rounds to a whole number
  return std::abs(turns) < 4e6f ? turns - ((turns + magic) - magic) : 0;
}

/// Most cards do, on one side or the other.
inline bool lies_flat(float flip) { return flip == 0 || flip == std::numbers::pi_v<float>; }

inline bool shows_its_face(float flip) {
  if (lies_flat(flip)) return flip == 0;
  const float turned = std::abs(part_of_turn(flip));
  if (turned < 0.2499f || turned > 0.2501f) return turned < 0.25f;
  return std::cos(flip) >= 0;  // exactly at the edge
}

inline float tilt(float flip) {
  if (lies_flat(flip)) return 0;
  const float part = part_of_turn(flip);
  const float of_side = shows_its_face(flip) ? part : part > 0 ? part - 0.5f : part + 0.5f;
  return of_side * (2 * std::numbers::pi_v<float>);
}

/// The numbers of four points at once.
using Eight = Eigen::Array<float, 8, 1>;
static_assert(sizeof(Quad) == 8 * sizeof(float));

/// How a card of this size lies flat: its matrix and corners as sums of a sine, a cosine and the middle, so
/// that all numbers are done at once.
class FlatCard {
 public:
  explicit FlatCard(Size card) {
    const float w = card.width / 2;
    const float h = card.height / 2;
    corner_cosines_ << -w, -h, w, -h, w, h, -w, h;
    corner_sines_ << h, -w, h, w, -h, w, -h, -w;
  }

  /// Written in place, which avoids a store-forwarding stall.
  void show(const Pose& pose, SinCos rotation, Matrix& matrix, Quad& corners) const {
    const float c = rotation.cosine * pose.scale;
    const float s = rotation.sine * pose.scale;
    Eigen::Map<Eight>(&corners.corners[0].x) =
        (corner_cosines_ * c + corner_sines_ * s) + (firsts_ * pose.centre.x + seconds_ * pose.centre.y);
    matrix = {c, s, -s, c, pose.centre.x, pose.centre.y};
  }

 private:
  Eight corner_cosines_, corner_sines_;
  const Eight firsts_{{1, 0, 1, 0, 1, 0, 1, 0}};
  const Eight seconds_{{0, 1, 0, 1, 0, 1, 0, 1}};
};

/// How a card of this size shows while it flips, with its perspective.
class TiltedCard {
 public:
  explicit TiltedCard(Size card) {
    const float w = card.width / 2;
    const float h = card.height / 2;
    xs_ << -w, -w, w, w, w, w, -w, -w;
    ys_ << -h, -h, -h, -h, h, h, h, h;
    distance_ = viewer_distance * 2 * std::sqrt(w * w + h * h);
  }

  void show(const Pose& pose, SinCos rotation, SinCos tilted, SinCos flip_axis, Matrix& matrix,
            Quad& corners) const {
    const Vec2 axis{flip_axis.sine, -flip_axis.cosine};  // in the plane of the card
    const float c = rotation.cosine * pose.scale;
    const float s = rotation.sine * pose.scale;
    const float k = tilted.cosine;
    // Rodrigues' formula, of points with z = 0: along the axis nothing shrinks, across it all by the cosine.
    const float both = (1 - k) * axis.x * axis.y;
    const Vec2 across = rotated({k + (1 - k) * axis.x * axis.x, both}, c, s);
    const Vec2 down = rotated({both, k + (1 - k) * axis.y * axis.y}, c, s);
    matrix = {across.x, across.y, down.x, down.y, pose.centre.x, pose.centre.y};
    // All corners at once: where each would be without perspective, and how near it is.
    Eight from_middle =
        (xs_ * across.x + ys_ * down.x) * firsts_ + (xs_ * across.y + ys_ * down.y) * seconds_;
    if (distance_ > 0) from_middle *= distance_ / (distance_ - tilted.sine * (ys_ * axis.x - xs_ * axis.y));
    Eigen::Map<Eight>(&corners.corners[0].x) =
        from_middle + (firsts_ * pose.centre.x + seconds_ * pose.centre.y);
  }

 private:
  /// How far away the viewer is, in card diagonals: near enough to see depth, far enough to stay calm.
  static constexpr float viewer_distance = 5;

  Eight xs_, ys_;  // of the corners, each twice
  const Eight firsts_{{1, 0, 1, 0, 1, 0, 1, 0}};
  const Eight seconds_{{0, 1, 0, 1, 0, 1, 0, 1}};
  float distance_ = 0;
};

inline void show(const Pose& pose, Size card, Matrix& matrix, Quad& corners) {
  const float angle = tilt(pose.flip);
  if (angle == 0) return FlatCard(card).show(pose, sin_cos(pose.rotation), matrix, corners);
  TiltedCard(card).show(pose, sin_cos(pose.rotation), sin_cos(angle), sin_cos(pose.flip_axis), matrix,
                        corners);
}

}  // namespace apsidon::geometry_detail
