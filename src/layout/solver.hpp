#pragma once
// How much a plan needs, and how it shares a window. Not installed.
#include "apsidon/layout/plan.hpp"

namespace apsidon::layout_detail {

/// A length, and how fast it grows with the card's width.
struct Grown {
  float px = 0;
  float slope = 0;
};
struct Need {
  Grown width = {};
  Grown height = {};
};

/// What a plan needs for cards of this size, so that every zone at its longest has its least strips.
Need need_of(const Plan& plan, std::span<const ZonePlace> places, Size card);

/// Gives every zone and panel its area, `room` to the root and `window` to the overlays; lengths are whole
/// device pixels.
void arrange(const Plan& plan, std::span<const ZonePlace> places, Size card, float pixel_ratio,
             const Rect& room, const Rect& window, const PlanAreas& out);

}  // namespace apsidon::layout_detail
