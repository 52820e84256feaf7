#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/rect.hpp"

namespace apsidon {

/// Where and how one card shows at one moment.
struct Pose {
  Vec2 centre = {};      ///< middle of the card, logical px
  float rotation = 0;    ///< radians, clockwise
  float scale = 1;       ///< factor on the card's size, >= 0
  float flip = 0;        ///< radians; 0 shows the face, pi the back, pi/2 is edge-on
  float opacity = 1;     ///< 0 (unseen) to 1
  float brightness = 1;  ///< factor on the colours, >= 0
  float lift = 0;        ///< height above the table in card widths, >= 0: a higher card throws a wider shadow
  float flip_axis = 0;   ///< radians; the axis of the flip in the card's frame, clockwise from its vertical

  friend constexpr bool operator==(const Pose&, const Pose&) = default;
};

/// Whether a pose with this flip shows the face. Changes exactly at the edge-on moments.
[[nodiscard]] APSIDON_CORE_EXPORT bool shows_face(float flip);

/// Whether every number of the pose is finite.
[[nodiscard]] APSIDON_CORE_EXPORT bool is_finite(const Pose& pose);

/// The angle by which the side that shows is turned away from the viewer: 0 lying flat, ±pi/2 edge-on.
[[nodiscard]] APSIDON_CORE_EXPORT float tilt_of_shown_side(float flip);

}  // namespace apsidon
