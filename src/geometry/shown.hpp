#pragma once
// A pose as it shows: matrix and corners at once, with one sine and cosine. Not installed.
#include <Eigen/Core>
#include <numbers>

#include "apsidon/geometry/quad.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::geometry_detail {

/// Of a card that is tilted, with its perspective.
void show_tilted(const Pose& pose, Size card, float tilt, Matrix& matrix, Quad& corners);

inline float turns_of(float radians) { return radians * (0.5f / std::numbers::pi_v<float>); }
inline SinCos sin_cos(float radians) { return sin_cos_of_turns(turns_of(radians)); }

inline bool lies_flat(float flip) { return flip == 0 || flip == std::numbers::pi_v<float>; }
/// As `apsidon::shows_face`, quicker for the usual.
inline bool shows_its_face(float flip) { return lies_flat(flip) ? flip == 0 : shows_face(flip); }

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

  /// Written in place: what is returned and copied is read before it has left the processor's hands.
  void show(const Pose& pose, SinCos rotation, Matrix& matrix, Quad& corners) const {
    const float c = rotation.cosine * pose.scale;
    const float s = rotation.sine * pose.scale;
    Eigen::Map<Eight>(&corners.corners[0].x) =
        (corner_cosines_ * c + corner_sines_ * s) + (firsts_ * pose.centre.x + seconds_ * pose.centre.y);
    matrix = {c, s, -s, c, pose.centre.x, pose.centre.y};
  }

 private:
  using Eight = Eigen::Array<float, 8, 1>;
  static_assert(sizeof(Quad) == 8 * sizeof(float));

  Eight corner_cosines_, corner_sines_;
  const Eight firsts_{{1, 0, 1, 0, 1, 0, 1, 0}};
  const Eight seconds_{{0, 1, 0, 1, 0, 1, 0, 1}};
};

inline void show(const Pose& pose, Size card, Matrix& matrix, Quad& corners) {
  const float tilt = tilt_of_shown_side(pose.flip);
  if (tilt != 0) return show_tilted(pose, card, tilt, matrix, corners);
  FlatCard(card).show(pose, sin_cos(pose.rotation), matrix, corners);
}

}  // namespace apsidon::geometry_detail
