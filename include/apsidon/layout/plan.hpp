#pragma once
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/layout/formation.hpp"
#include "apsidon/layout/layout.hpp"
#include "apsidon/layout/panel_id.hpp"

namespace apsidon {

/// A length that is fixed, that grows with the cards, or both.
struct Length {
  float cards = 0;  ///< card widths, [0, 1000]
  float px = 0;     ///< logical px, [0, 100000]

  friend constexpr bool operator==(const Length&, const Length&) = default;
};

/// What a node of a plan is.
enum class PlanKind : std::uint8_t { across, down, zone, panel, space, formation, layers };

/// Where the parts of an `across` or `down` lie when they leave room along its direction.
enum class Justify : std::uint8_t { start, centre, end, spread };

/// How a part lies across its parent's direction: over the whole of it, or no larger than it prefers.
enum class Cross : std::uint8_t { stretch, start, centre, end };

/// Where a part lies in a box that is larger.
struct Placement {
  Align across = Align::centre;  ///< from left to right
  Align down = Align::centre;    ///< from top to bottom

  friend constexpr bool operator==(const Placement&, const Placement&) = default;
};

/// One node of a plan: a zone, a panel, a fixed space, slots in formation, parts side by side (`across`), one
/// below the other (`down`), or one over another (`layers`), the last on top.
struct PlanNode {
  PlanKind kind = PlanKind::space;         ///< what it is; it says which of the others count
  std::vector<PlanNode> parts = {};        ///< of across, down and layers
  ZoneId zone = {};                        ///< of zone
  PanelId panel = {};                      ///< of panel
  std::vector<FormationSlot> places = {};  ///< of formation: its slots
  Length width = {};                       ///< of panel: its least width
  Length height = {};                      ///< of panel: its least height
  Length space = {};                       ///< of space: its length along the parent's direction
  Length gap = {.cards = 0.15f};           ///< of across and down: between parts
  float share =
      0;  ///< of what is left along the parent's direction; with all shares 0 the parent justifies, [0, 1000]
  Length least = {};                  ///< along the parent's direction, no shorter
  std::optional<Length> most = {};    ///< along the parent's direction, no longer, unless it needs to be
  Justify justify = Justify::centre;  ///< of across and down, where all shares are 0
  Cross cross = Cross::stretch;       ///< across the parent's direction
  std::optional<Placement> place =
      {};  ///< of a part of layers: no larger than it prefers, there; else over the whole

  friend bool operator==(const PlanNode&, const PlanNode&) = default;
};

// Short ways to write a node; set the other members afterwards where they differ. Gaps and spaces in card
// widths.
/// Parts side by side.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode across(std::vector<PlanNode> parts, float gap = 0.15f);
/// Parts one below the other.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode down(std::vector<PlanNode> parts, float gap = 0.15f);
/// Parts one over another, the last on top.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode layers(std::vector<PlanNode> parts);
/// A part of layers that lies there.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode placed(PlanNode part, Align across, Align down);
/// The place of a zone; `share`: of what is left.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode zone(ZoneId id, float share = 0);
/// The place of a panel, at least so wide and high.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode panel(PanelId id, Length width, Length height, float share = 0);
/// Nothing, of this length.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode space(float card_widths);
/// The slots of a formation, as `TableSetup::add_formation` gives them.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode formation(std::vector<FormationSlot> places, float share = 0);
/// Seats around a table with `middle` between them: the first at the bottom, the others clockwise: left,
/// along the top, and right. Two sit face to face. `facings` says where each looks from.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode seats(std::vector<PlanNode> seats, PlanNode middle,
                                                 float gap = 0.3f);
/// For each of so many seats of `seats`: from which side it looks.
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<Facing> facings(std::size_t seats);

/// What an overlay does with presses.
enum class OverlayHits : std::uint8_t {
  own,   ///< it takes those on it
  all,   ///< and keeps all others from what lies below
  none,  ///< it lets all through
};

/// A panel that lies above zones and other panels, in the window less its insets; other panels may lie in it.
/// It is there whenever it is not hidden.
struct Overlay {
  PanelId panel = {};                   ///< which one
  Length width = {};                    ///< no wider than the window has room
  Length height = {};                   ///< no higher than the window has room
  Align across = Align::centre;         ///< where it lies, from left to right
  Align down = Align::centre;           ///< where it lies, from top to bottom
  OverlayHits hits = OverlayHits::own;  ///< what it does with presses
  PlanNode inside = {};                 ///< panels, spaces, and lists of them
  Length padding = {.px = 16};          ///< around what lies inside

  friend bool operator==(const Overlay&, const Overlay&) = default;
};

/// How zones and panels are arranged in the window.
struct Plan {
  std::string name = {};               ///< "wide"; for people
  PlanNode root = {};                  ///< fills the window less its insets and its margin
  std::vector<Overlay> overlays = {};  ///< the last on top
  float margin = 16;                   ///< around everything, px, [0, 10000]
  float aspect = 5.0f / 7;             ///< width of a card over its height, [0.05, 20]
  float largest_width = 0;             ///< cards get no wider than this, px; 0: no limit, [0, 1000000]
  /// For pixel art, the size of a card's picture: cards are a whole multiple of it in device pixels, the
  /// largest that fits, and have its proportions; where not even one does they are as large as fits. Empty:
  /// any size.
  Size whole_multiples_of = {};
  /// Left and right are exchanged, for right-to-left and left-handed tables: all areas, and zones that face
  /// one of the two. Within their zones cards lie as ever, as their corner marks do.
  bool mirrored = false;

  friend bool operator==(const Plan&, const Plan&) = default;
};

/// How a zone lies in its area and how much it must be able to hold.
struct ZoneLayout {
  Layout kind = SlotLayout{};  ///< in which way its cards lie
  int longest = 1;             ///< the most cards for which the plan keeps room, [0, 100000]
  int longest_covered = 0;  ///< how many of these lie face down, [0, longest]: where strips are by the side
  Facing facing = Facing::bottom;  ///< where the lower edges of its cards point
  float factor = 1;                ///< its cards' size, times that of the table, [0.05, 20]
  bool sideways = false;           ///< cards may lie sideways there: room is kept for that
  bool scrolls = false;            ///< room is kept for one card; the others are reached by scrolling
  std::optional<Facing> off_table =
      {};  ///< it has no place in the plan, but one beyond this edge of the window
  bool gives_up =
      false;  ///< while it is empty its area is a point and its place its neighbours'; cards keep their size
  bool snaps = true;  ///< upright cards rest on whole device pixels; without it as exactly as they are laid

  friend bool operator==(const ZoneLayout&, const ZoneLayout&) = default;
};

/// Throws Error when a number is out of its range.
APSIDON_CORE_EXPORT void check(const ZoneLayout& layout);

/// Throws Error when a number is out of its range, an across or down has no parts, or a zone is unknown (not
/// in `zones`), named twice, or missing unless it is off the table; likewise for panels, `panels` of which
/// there are, except that one may be missing.
APSIDON_CORE_EXPORT void check(const Plan& plan, std::span<const ZoneLayout> zones, std::size_t panels = 0);

/// The window that a plan is solved for. What is not finite or negative counts as 0; such a ratio as 1.
struct PlanWindow {
  Size size = {};         ///< logical px
  Insets insets = {};     ///< kept free of cards and panels: a notch, bars of the system
  float pixel_ratio = 1;  ///< device pixels per logical px

  friend constexpr bool operator==(const PlanWindow&, const PlanWindow&) = default;
};

/// How large cards are where a plan was solved.
struct PlanResult {
  Size card = {};  ///< upright, px, a whole number of device pixels; of a plan with `whole_multiples_of` such
                   ///< a multiple
  Size unsnapped_card = {};  ///< the largest that fits, in steps of 1/128 px
  bool fits = false;         ///< whether the card is at least one device pixel in both directions

  friend bool operator==(const PlanResult&, const PlanResult&) = default;
};

/// Finds the largest card with which every zone at its longest and its least strips fits the window, and all
/// areas with it; what is left widens strips as far as they prefer, and goes to shares then. A window smaller
/// in neither direction never gives smaller unsnapped cards. What a plan needs is convex in the card's width,
/// so Newton's method comes down to the answer in a few steps, each O(nodes); allocates nothing. `areas` by
/// ZoneId - 1, as long as the zones; `panels` by PanelId - 1, where a panel that the plan does not show gets
/// an empty box; both are written whole. `empty`, by ZoneId - 1, says which zones hold nothing now.
APSIDON_CORE_EXPORT PlanResult solve(const Plan& plan, std::span<const ZoneLayout> zones,
                                     const PlanWindow& window, std::span<Rect> areas,
                                     std::span<Rect> panels = {}, std::span<const char> empty = {});

/// The plan of several whose unsnapped card is the largest in this window; the first of equals. `current`
/// stays unless another's card is larger by more than 4%, so that a window that is being dragged does not
/// flicker between two. `plans` is not empty.
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t best_plan(std::span<const Plan> plans,
                                                        std::span<const ZoneLayout> zones,
                                                        const PlanWindow& window,
                                                        std::optional<std::size_t> current = std::nullopt);

}  // namespace apsidon
