#pragma once
#include <string_view>
#include <variant>

#include "apsidon/layout/column.hpp"
#include "apsidon/layout/grid.hpp"
#include "apsidon/layout/hand.hpp"
#include "apsidon/layout/pile.hpp"
#include "apsidon/layout/slot.hpp"

namespace apsidon {

/// Any of the layouts, as a zone keeps it.
using Layout = std::variant<SlotLayout, PileLayout, ColumnLayout, HandLayout, GridLayout>;

/// "slot", "pile", "column", "hand" or "grid".
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(const Layout& layout);

APSIDON_CORE_EXPORT void check(const Layout& layout);
APSIDON_CORE_EXPORT LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses);
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const Layout& layout, std::size_t cards, Size card);

/// The pose of the only card of a zone: where the outline of an empty zone is drawn.
[[nodiscard]] APSIDON_CORE_EXPORT Pose lone_pose(const Layout& layout, const Rect& area, Size card);

/// `pose` with the card's top left corner moved to the nearest device pixel, when it lies upright and flat;
/// any other pose as it is. `pixel_ratio`: device pixels in a logical one, > 0.
[[nodiscard]] APSIDON_CORE_EXPORT Pose snapped(const Pose& pose, Size card, float pixel_ratio);

}  // namespace apsidon
