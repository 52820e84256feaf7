#pragma once
// Pictures fitted in boxes. Not installed.
#include "apsidon/geometry/box.hpp"

namespace apsidon::geometry_detail {

/// A picture in a box.
struct Fitted {
  Rect box = {};     ///< where the whole picture lies, px; may reach beyond the area
  Rect shown = {};   ///< the part of it that is in the area, px
  Rect source = {};  ///< which part of the picture that is, in the picture's own units

  friend constexpr bool operator==(const Fitted&, const Fitted&) = default;
};

/// Fits a picture in an area, placed by shares of the room that it leaves, as CSS `object-position` with
/// percentages: (0, 0) at the top left, (0.5, 0.5) in the middle. A picture or area that is empty or not
/// finite gives empty boxes in the area's middle. O(1).
[[nodiscard]] APSIDON_CORE_EXPORT Fitted fit_in(const Rect& area, Size picture, Fit fit,
                                                Vec2 position = {0.5f, 0.5f});

}  // namespace apsidon::geometry_detail
