#pragma once
#include <cstdint>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/rect.hpp"

namespace apsidon {

/// How a picture of a known size is fitted in a box, as CSS `object-fit`.
enum class Fit : std::uint8_t {
  contain,     ///< as large as fits, with its proportions
  cover,       ///< as small as covers the box, with its proportions
  fill,        ///< stretched to the box
  none,        ///< in its own size
  scale_down,  ///< the smaller of none and contain
  whole,  ///< the largest whole multiple of its own size that fits, on whole px, for pixel art; its own size
          ///< where none does
};

/// The part of a bar that is filled, from its left, for a share from 0 to 1; others are cut to that.
[[nodiscard]] constexpr Rect filled(const Rect& bar, float share) {
  const float cut = share > 0 ? (std::min)(share, 1.0f) : 0.0f;
  return {bar.min, {bar.min.x + bar.width() * cut, bar.max.y}};
}

}  // namespace apsidon
