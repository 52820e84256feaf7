#pragma once
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/layout/layout.hpp"

namespace apsidon {

enum class PlanKind { across, down, zone, space };

/// Where the parts of an `across` or `down` lie when they leave room along its direction.
enum class Justify { start, centre, end, spread };

/// One node of a plan: a zone, a fixed space, or parts side by side (`across`) or one below the other
/// (`down`).
struct PlanNode {
  PlanKind kind = PlanKind::space;
  std::vector<PlanNode> parts = {};  ///< of across and down
  ZoneId zone = {};                  ///< of zone
  float space = 0;    ///< of space: its length along the parent's direction, card widths, [0, 1000]
  float gap = 0.15f;  ///< between parts, card widths, [0, 100]
  float share =
      0;  ///< of what is left along the parent's direction; with all shares 0 the parent justifies, [0, 1000]
  Justify justify = Justify::centre;

  friend bool operator==(const PlanNode&, const PlanNode&) = default;
};

/// Short ways to write a node; set the other members afterwards where they differ.
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode across(std::vector<PlanNode> parts, float gap = 0.15f);
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode down(std::vector<PlanNode> parts, float gap = 0.15f);
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode zone(ZoneId id, float share = 0);
[[nodiscard]] APSIDON_CORE_EXPORT PlanNode space(float card_widths);

/// How zones are arranged in the window.
struct Plan {
  std::string name = {};    ///< "wide"; for people
  PlanNode root = {};       ///< fills the window less its margin
  float margin = 16;        ///< around everything, px, [0, 10000]
  float aspect = 5.0f / 7;  ///< width of a card over its height, [0.05, 20]
  float largest_width = 0;  ///< cards get no wider than this, px; 0: no limit

  friend bool operator==(const Plan&, const Plan&) = default;
};

/// How a zone lies in its area and how much it must be able to hold.
struct ZonePlace {
  Layout layout = SlotLayout{};
  int longest = 1;  ///< the most cards for which the plan keeps room, [0, 100000]

  friend bool operator==(const ZonePlace&, const ZonePlace&) = default;
};

/// Throws Error when a number is out of its range, an across or down has no parts, or a zone is unknown (not
/// in `places`), named twice, or missing.
APSIDON_CORE_EXPORT void check(const Plan& plan, std::span<const ZonePlace> places);

struct PlanResult {
  Size card = {};            ///< upright, px, a whole number of device pixels
  Size unsnapped_card = {};  ///< the largest that fits, in steps of 1/128 px
  bool fits = false;         ///< whether the card is at least one device pixel in both directions

  friend bool operator==(const PlanResult&, const PlanResult&) = default;
};

/// Finds the largest card with which every zone at its longest and its least strips fits the window, and the
/// area of every zone with it. `places` and `areas` are by ZoneId - 1 and equally long; the areas of all
/// zones are written. A window smaller in neither direction never gives smaller unsnapped cards. Bisection in
/// at most 28 steps, each O(nodes); allocates nothing. A window or ratio that is not finite counts as empty
/// and 1.
APSIDON_CORE_EXPORT PlanResult solve(const Plan& plan, std::span<const ZonePlace> places, Size window,
                                     float pixel_ratio, std::span<Rect> areas);

/// The plan of several whose unsnapped card is the largest in this window; the first of equals. `plans` is
/// not empty.
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t best_plan(std::span<const Plan> plans,
                                                        std::span<const ZonePlace> places, Size window);

}  // namespace apsidon
