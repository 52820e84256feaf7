#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Cards in rows, filled from the left and the top, the whole block in the middle of the area. Where it does
/// not fit, rows and columns move together and cards overlap.
struct GridLayout {
  int columns = 0;    ///< cards a row; 0: as many as fit the width, [0, 10000]
  float gap = 0.14f;  ///< between cards, share of the card's width, [0, 4]
  float least_strip =
      0.2f;  ///< of an overlapped card, share of its width or height; below it is crowded, [0, 1]

  friend bool operator==(const GridLayout&, const GridLayout&) = default;
};

APSIDON_CORE_EXPORT void check(const GridLayout& layout);
APSIDON_CORE_EXPORT LayoutReport lay_out(const GridLayout& layout, const LayoutInput& in,
                                         std::span<Pose> poses);
/// Without overlap. A grid of 0 columns counts as nearly square.
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const GridLayout& layout, std::size_t cards, Size card);

}  // namespace apsidon
