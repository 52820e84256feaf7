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

/// The stored position of a card whose middle is at a point of the window: the inverse of the layout.
[[nodiscard]] APSIDON_CORE_EXPORT Vec2 free_position(const LayoutInput& in, const LaidCard& card,
                                                     Vec2 middle);

}  // namespace apsidon
