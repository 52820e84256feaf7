#pragma once
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// Something that can be hit: a rounded box in a pose.
struct HitShape {
  Pose pose = {};
  Size size = {};           ///< upright, px
  float corner_radius = 0;  ///< px, at scale 1; at most half the shorter side counts
  Rect clip = everywhere;   ///< no point outside of it is in the shape

  friend constexpr bool operator==(const HitShape&, const HitShape&) = default;
};

/// Whether the point is in the shape, turned, scaled and narrowed by its flip as the pose has it. Left and
/// top edges, in the shape's own frame, are inside; right and bottom edges outside. Edge-on, scaled to
/// nothing, or not finite: never.
[[nodiscard]] APSIDON_CORE_EXPORT bool contains(const HitShape& shape, Vec2 point);

/// Shapes from back to front, asked which one a point lies on. A scan from the front that turns a point into
/// a shape's frame only where the circle around the shape has it: with everything moving nothing is faster,
/// as there is nothing to keep up to date.
class APSIDON_CORE_EXPORT HitIndex {
 public:
  void clear() { shapes_.clear(); }
  void reserve(std::size_t shapes) { shapes_.reserve(shapes); }
  /// Adds a shape in front of all others. `tag` is given back by queries.
  void add(const HitShape& shape, std::uint32_t tag);
  [[nodiscard]] std::size_t size() const { return shapes_.size(); }

  /// The tag of the foremost shape at this point. O(shapes).
  [[nodiscard]] std::optional<std::uint32_t> topmost(Vec2 point) const;

 private:
  struct Entry {
    Vec2 centre = {};
    float reach_squared = 0;  ///< of the circle around the shape
    std::uint32_t tag = 0;
    HitShape shape = {};
  };
  std::vector<Entry> shapes_;
};

}  // namespace apsidon
