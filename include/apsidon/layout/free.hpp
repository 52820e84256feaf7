#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Each card lies where the table stores it: its `at`, from (0, 0), in the top left corner of the area, to
/// (1, 1), in the bottom right. Being shares of the area they survive a resize; what is outside of 0 to 1
/// lies at the edge.
struct FreeLayout {
  friend bool operator==(const FreeLayout&, const FreeLayout&) = default;
};

APSIDON_CORE_EXPORT void check(const FreeLayout& layout);
APSIDON_CORE_EXPORT LayoutReport lay_out(const FreeLayout& layout, const LayoutInput& in,
                                         std::span<Pose> poses);
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const FreeLayout& layout, const LayoutNeed& need,
                                                  Size card);

/// The stored position of a card whose middle is at a point of the window: the inverse of the layout.
[[nodiscard]] APSIDON_CORE_EXPORT Vec2 free_position(const LayoutInput& in, const LaidCard& card,
                                                     Vec2 middle);

}  // namespace apsidon
