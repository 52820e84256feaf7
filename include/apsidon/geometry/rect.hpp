#pragma once
#include <algorithm>

#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

/// A width and a height in logical pixels.
struct Size {
  float width = 0;   ///< px, or what the words beside it say
  float height = 0;  ///< likewise

  /// No area, also when one is NaN.
  [[nodiscard]] constexpr bool empty() const { return !(width > 0 && height > 0); }
  friend constexpr bool operator==(const Size&, const Size&) = default;
  /// Both times a factor.
  friend constexpr Size operator*(Size a, float s) { return {a.width * s, a.height * s}; }
};

/// A box with its edges along the axes. Kept by its edges, so that two boxes side by side share theirs
/// exactly: a point on the left or top edge is inside, on the right or bottom edge outside.
struct Rect {
  Vec2 min = {};  ///< top left
  Vec2 max = {};  ///< bottom right; a box with max <= min in a direction is empty

  friend constexpr bool operator==(const Rect&, const Rect&) = default;

  /// Negative where the corners are exchanged.
  [[nodiscard]] constexpr float width() const { return max.x - min.x; }
  [[nodiscard]] constexpr float height() const { return max.y - min.y; }     ///< likewise
  [[nodiscard]] constexpr Size size() const { return {width(), height()}; }  ///< both
  /// The middle.
  [[nodiscard]] constexpr Vec2 centre() const { return {(min.x + max.x) / 2, (min.y + max.y) / 2}; }
  /// No area, also when one is NaN.
  [[nodiscard]] constexpr bool empty() const { return !(max.x > min.x && max.y > min.y); }
  /// Whether a point lies in it: the left and upper edges belong to it, the others do not.
  [[nodiscard]] constexpr bool contains(Vec2 p) const {
    return min.x <= p.x && p.x < max.x && min.y <= p.y && p.y < max.y;
  }
};

/// The box that has every point.
inline constexpr Rect everywhere{{-1e30f, -1e30f}, {1e30f, 1e30f}};

/// The box of this size with its top left corner at `at`.
[[nodiscard]] constexpr Rect rect_at(Vec2 at, Size size) {
  return {at, {at.x + size.width, at.y + size.height}};
}

/// The box of this size around `centre`.
[[nodiscard]] constexpr Rect rect_around(Vec2 centre, Size size) {
  return rect_at({centre.x - size.width / 2, centre.y - size.height / 2}, size);
}

/// `r` with every edge moved outward by `by` px (inward when negative).
[[nodiscard]] constexpr Rect grown(Rect r, float by) {
  return {{r.min.x - by, r.min.y - by}, {r.max.x + by, r.max.y + by}};
}

/// The area that two boxes share, in px²; 0 when they do not meet.
[[nodiscard]] constexpr float overlap(Rect a, Rect b) {
  const float w = (std::min)(a.max.x, b.max.x) - (std::max)(a.min.x, b.min.x);
  const float h = (std::min)(a.max.y, b.max.y) - (std::max)(a.min.y, b.min.y);
  return w > 0 && h > 0 ? w * h : 0;
}

/// What the window leaves free, px: a phone's cut-outs.
struct Insets {
  float left = 0;    ///< from the left edge of the window, px
  float top = 0;     ///< from the upper edge, px
  float right = 0;   ///< from the right edge, px
  float bottom = 0;  ///< from the lower edge, px

  friend constexpr bool operator==(const Insets&, const Insets&) = default;
};

}  // namespace apsidon
