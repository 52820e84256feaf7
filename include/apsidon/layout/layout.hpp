#pragma once
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <variant>

#include "apsidon/layout/column.hpp"
#include "apsidon/layout/free.hpp"
#include "apsidon/layout/grid.hpp"
#include "apsidon/layout/hand.hpp"
#include "apsidon/layout/pile.hpp"
#include "apsidon/layout/ring.hpp"
#include "apsidon/layout/slot.hpp"
#include "apsidon/layout/spread.hpp"

namespace apsidon {

/// In which direction the cards of a layout follow one another, seen by the player toward whom they face:
/// along it a zone scrolls, and what is inserted comes before the card whose neutral middle lies behind it.
enum class LayoutAxis : std::uint8_t { across, down };

/// What a layout of one's own is made of; see laid.hpp for what the functions have to do. Poses come in as
/// they would lie in the middle of the area, so that one that is not written is a valid one. A zone that
/// scrolls has `in.scrolls`, and shows its content moved on by `in.offset`; how long it is the report says.
/// They may not call back in.
struct CustomFunctions {
  std::function<LayoutReport(const LayoutInput& in, std::span<Pose> poses)> lay_out;
  std::function<Size(const LayoutNeed& need, Size card)> least_size;
  LayoutAxis axis = LayoutAxis::across;
};

/// A layout of one's own. Files have its name only: read again, its cards lie as in a spread until
/// `functions` are given.
struct CustomLayout {
  std::string name = "custom";
  std::shared_ptr<const CustomFunctions> functions = {};

  friend bool operator==(const CustomLayout&, const CustomLayout&) = default;
};

APSIDON_CORE_EXPORT void check(const CustomLayout& layout);
/// A pose that is not finite, or farther than 1e7 px from the window, becomes the middle of the area.
APSIDON_CORE_EXPORT LayoutReport lay_out(const CustomLayout& layout, const LayoutInput& in,
                                         std::span<Pose> poses);
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const CustomLayout& layout, const LayoutNeed& need,
                                                  Size card);

/// Any of the layouts, as a zone keeps it.
using Layout = std::variant<SlotLayout, PileLayout, ColumnLayout, SpreadLayout, HandLayout, GridLayout,
                            RingLayout, FreeLayout, CustomLayout>;

/// "slot", "pile", "column", "spread", "hand", "grid", "ring", "free", or the name of a layout of one's own.
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(const Layout& layout);

/// Of a column and a grid down, of a layout of one's own what it says, of others across.
[[nodiscard]] APSIDON_CORE_EXPORT LayoutAxis axis_of(const Layout& layout);

APSIDON_CORE_EXPORT void check(const Layout& layout);
APSIDON_CORE_EXPORT LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses);
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const Layout& layout, const LayoutNeed& need, Size card);
/// The area in which so many cards have the strips that they prefer; at least as large as `least_size`.
[[nodiscard]] APSIDON_CORE_EXPORT Size preferred_size(const Layout& layout, const LayoutNeed& need,
                                                      Size card);

/// The pose of the only card of a zone: where the outline of an empty zone is drawn.
[[nodiscard]] APSIDON_CORE_EXPORT Pose lone_pose(const Layout& layout, const Rect& area, Size card,
                                                 Facing facing = Facing::bottom);

/// `pose` with the card's top left corner moved to the nearest device pixel, when it lies upright and flat;
/// any other pose as it is. `pixel_ratio`: device pixels in a logical one, > 0.
[[nodiscard]] APSIDON_CORE_EXPORT Pose snapped(const Pose& pose, Size card, float pixel_ratio);
/// The same, but what lies within the area stays there: by the device pixel on the other side, or, where the
/// area has no room for a step, as it is.
[[nodiscard]] APSIDON_CORE_EXPORT Pose snapped(const Pose& pose, Size card, float pixel_ratio,
                                               const Rect& area);

}  // namespace apsidon
