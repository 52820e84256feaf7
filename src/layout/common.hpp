#pragma once
// Shared by the layouts; not installed.
#include <fmt/format.h>

#include <cmath>
#include <numbers>
#include <string_view>

#include "apsidon/geometry/error.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon::layout_detail {

inline void check_range(std::string_view layout, std::string_view option, float value, float least,
                        float most) {
  if (!(value >= least && value <= most)) {
    throw Error(fmt::format("{}: {} is {}: {} to {} is expected", layout, option, value, least, most));
  }
}

/// A card lying flat with its middle at `centre`.
inline Pose flat_pose(Vec2 centre, LaidCard card) {
  constexpr float pi = std::numbers::pi_v<float>;
  return {.centre = centre, .rotation = card.sideways ? pi / 2 : 0, .flip = card.face_up ? 0 : pi};
}

/// Strips that share the length `room`: as preferred where it suffices, narrowed evenly toward the least, and
/// below that, crowded, in proportion. A strip is `least_factor * least + preferred_factor * preferred`.
struct StripFactors {
  float least = 0;
  float preferred = 1;
  bool crowded = false;
};

inline StripFactors squeeze(float room, float all_preferred, float all_least) {
  if (all_preferred <= room) return {};
  if (all_least <= room) {
    const float t = (room - all_least) / (all_preferred - all_least);
    return {.least = 1 - t, .preferred = t};
  }
  return {.least = std::fmax(room, 0.0f) / all_least, .preferred = 0, .crowded = true};
}

/// The middle of the first of several cards that start at the near edge; centred where the area is too small
/// for one.
inline float first_middle(float area_min, float area_max, float length) {
  const float room = area_max - area_min - length;
  return room >= 0 ? area_min + length / 2 : (area_min + area_max) / 2;
}

}  // namespace apsidon::layout_detail
