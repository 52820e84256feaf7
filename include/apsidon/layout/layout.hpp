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

/// In which direction the cards of a layout follow one another, seen by the player toward whom they face.
enum class LayoutAxis : std::uint8_t { across, down };

/// How a card that is held over a zone finds its place among those that lie there.
enum class Inserts : std::uint8_t {
  on_top,   ///< none but the top
  in_line,  ///< before the card whose neutral middle lies behind it along the axis
  in_rows,  ///< likewise, in the nearest row
};

/// What a layout says of itself, and all that others ask of it. A layout of one's own says it in the same
/// words, and is in everything what it says.
struct LayoutTraits {
  std::string_view name = {};            ///< as in files
  LayoutAxis axis = LayoutAxis::across;  ///< along it cards follow one another, and a zone scrolls
  Inserts inserts = Inserts::in_line;    ///< what a card is dropped between
  bool strips = false;                   ///< of each card that is covered a strip shows, which checks measure
  std::size_t apart = 0;         ///< how many from the top lie apart, the others on each other; 0: all
  bool raises = true;            ///< what is hovered stands above what lies on it
  bool keeps_cells = false;      ///< each card lies in a cell of its own; one that comes gets the first free
  std::size_t cells = 0;         ///< how many cells there are; 0: as many as it takes
  bool keeps_positions = false;  ///< each card lies at its stored position, and is dropped where it is held
  bool squared = false;          ///< all cards lie on each other: a shuffle parts them in two halves
  bool previews_clear = false;   ///< a larger picture stands beside the whole zone, not beside its card
};

/// What a layout of one's own is made of. Poses come in as they would lie in the middle of the area, so that
/// one that is not written is a valid one. A zone that scrolls has `in.scrolls`, and shows its content moved
/// on by `in.offset`; how long it is the report says. They may not call back in.
struct CustomFunctions {
  /// Writes one pose per card; `poses` is as long as the cards of `in`. With none of `in.room` these are the
  /// neutral poses, else the resting ones.
  std::function<LayoutReport(const LayoutInput& in, std::span<Pose> poses)> lay_out;
  /// The smallest area that holds so many, for cards that face the bottom; in proportion to the card's size.
  std::function<Size(const LayoutNeed& need, Size card)> least_size;
  LayoutTraits traits = {};  ///< its name is that of the layout
  /// Before which place a card held at this point would come to lie, if not as `traits.inserts` says.
  std::function<std::size_t(const LayoutInput& in, std::span<const Pose> neutral, Vec2 point)> insertion = {};
};

/// A layout of one's own. Files have its name only: read again, its cards lie as in a spread until
/// `functions` are given. A pose of it that is not finite, or farther than 1e7 px from the window, becomes
/// the middle of the area.
struct CustomLayout {
  std::string name = "custom";  ///< not empty; the name in files, by which `bind` finds it
  std::shared_ptr<const CustomFunctions> functions = {};  ///< none: it lies as a spread

  friend bool operator==(const CustomLayout&, const CustomLayout&) = default;
};

/// Any of the layouts, as a zone keeps it.
using Layout = std::variant<SlotLayout, PileLayout, ColumnLayout, SpreadLayout, HandLayout, GridLayout,
                            RingLayout, FreeLayout, CustomLayout>;

/// Its name is valid as long as the layout.
[[nodiscard]] APSIDON_CORE_EXPORT LayoutTraits traits_of(const Layout& layout);

/// Throws Error when an option is out of its stated range.
APSIDON_CORE_EXPORT void check(const Layout& layout);
/// Writes one pose per card: `poses` is as long as the cards of `in`. O(cards).
APSIDON_CORE_EXPORT LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses);
/// The smallest area that holds so many at their least strips, for cards that face the bottom; in proportion
/// to the card's size.
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const Layout& layout, const LayoutNeed& need, Size card);
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
