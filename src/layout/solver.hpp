#pragma once
// How much a plan needs, and how it shares a window. Not installed.
#include "apsidon/layout/plan.hpp"

namespace apsidon::layout_detail {

/// Where a plan's results go, as `solve` is told.
struct PlanAreas {
  std::span<Rect> areas = {};
  std::span<Rect> panels = {};
  std::span<const char> empty = {};
};

/// A side of the table as the plan has it: left and right are exchanged where that is mirrored.
[[nodiscard]] constexpr Facing side_in(const Plan& plan, Facing side) {
  if (!plan.mirrored) return side;
  if (side == Facing::left) return Facing::right;
  return side == Facing::right ? Facing::left : side;
}

/// A length, and how fast it grows with the card's width.
struct Grown {
  float px = 0;
  float slope = 0;
};
struct Need {
  Grown width = {};
  Grown height = {};
};

/// What each zone takes at its longest, for one size of card: `min` at its least strips, `max` at those it
/// prefers, both as width and height. Kept by zone, in the storage where the areas will be.
void measure_zones(std::span<const ZoneLayout> places, Size card, std::span<Rect> sizes);
/// Only `min`, for the search for the card.
void measure_least(std::span<const ZoneLayout> places, Size card, std::span<Rect> sizes);

/// Slots of a formation lie as far apart as the largest of them asks.
float factor_of(const PlanNode& formation, std::span<const ZoneLayout> places);
/// The box around them; x in card widths, y in card heights.
Rect extent_of(const PlanNode& node, std::span<const ZoneLayout> places);

/// What a plan needs for cards of this size, so that every zone at its longest has its least strips. `units`
/// are sizes as measured for the card of width 1 of the plan, or empty: then they are measured here.
Need need_of(const Plan& plan, std::span<const ZoneLayout> places, Size card, std::span<const Rect> units);

/// Gives every zone and panel its area, `room` to the root and `window` to the overlays; lengths are whole
/// device pixels. `out.areas` comes with the sizes of all zones for this card in it.
void arrange(const Plan& plan, std::span<const ZoneLayout> places, Size card, float pixel_ratio,
             const Rect& room, const Rect& window, const PlanAreas& out);

}  // namespace apsidon::layout_detail
