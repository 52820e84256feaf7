#pragma once
#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// Something that can be hit: a rounded box in a pose.
struct HitShape {
  Pose pose = {};           ///< where, and how turned
  Size size = {};           ///< upright, px
  float corner_radius = 0;  ///< px, at scale 1; at most half the shorter side counts
  Rect clip = everywhere;   ///< no point outside of it is in the shape

  friend constexpr bool operator==(const HitShape&, const HitShape&) = default;
};

/// Whether the point is in the shape, turned, scaled and narrowed by its flip as the pose has it. Left and
/// top edges, in the shape's own frame, are inside; right and bottom edges outside. Edge-on, scaled to
/// nothing, or not finite: never.
[[nodiscard]] APSIDON_CORE_EXPORT bool contains(const HitShape& shape, Vec2 point);

/// Of which kinds a shape is, and which kinds a query asks for: bits that the client gives a meaning.
using HitKinds = std::uint32_t;
/// Shapes of every kind.
inline constexpr HitKinds all_kinds = ~HitKinds{0};

/// Shapes from back to front, asked which of them lie at a point. Lazy: while much moves, a query looks
/// through the middles from the front, and nothing is kept up to date; when it has looked at many without a
/// change, it makes a grid; what moves then lies beside the grid until there is too much of it. Queries are
/// not const for that, and allocate nothing once the storage has grown.
class APSIDON_CORE_EXPORT HitIndex {
 public:
  HitIndex();
  /// O(shapes).
  HitIndex(const HitIndex&);
  /// O(1)
  HitIndex(HitIndex&&) noexcept;
  /// O(1) of what may be moved, else O(shapes).
  HitIndex& operator=(HitIndex) noexcept;
  ~HitIndex();

  /// Forgets all shapes, and keeps its storage.
  void clear();
  /// Makes storage for so many.
  void reserve(std::size_t shapes);
  /// Adds a shape in front of all others and gives its place, from 0. `tag` is what queries give back.
  std::size_t add(const HitShape& shape, std::uint32_t tag, HitKinds kinds = 1);
  /// The shape at a place gets another pose. O(1).
  void move(std::size_t place, const Pose& pose);
  /// So do as many shapes from a place on. O(poses), and faster than one by one.
  void move(std::size_t first, std::span<const Pose> poses);
  [[nodiscard]] std::size_t size() const;  ///< how many shapes

  /// The tag of the foremost shape at this point.
  [[nodiscard]] std::optional<std::uint32_t> topmost(Vec2 point, HitKinds kinds = all_kinds);
  /// The tags of all shapes at this point, from the front, at the end of `out`. O(shapes).
  void all(Vec2 point, std::vector<std::uint32_t>& out, HitKinds kinds = all_kinds) const;
  /// The tags of all shapes that have a point of the rectangle in their box, from the front; round corners
  /// and clips are not looked at. O(shapes).
  void in_rect(const Rect& rect, std::vector<std::uint32_t>& out, HitKinds kinds = all_kinds) const;
  /// The tag of the shape whose box is nearest to the point, no farther than `slop` px; the foremost of
  /// equals; one that has the point before all others. O(shapes).
  [[nodiscard]] std::optional<std::uint32_t> nearest(Vec2 point, float slop, HitKinds kinds = all_kinds);

 private:
  struct APSIDON_CORE_NO_EXPORT Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon
