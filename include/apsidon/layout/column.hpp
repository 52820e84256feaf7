#pragma once
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// Cards one below the other, toward the player, each covering the one before but for a strip. With more
/// cards than fit, all strips narrow evenly toward their least. Raising a card widens its strip, so that one
/// can look into a covered stretch. A card that lies sideways shows the same share of its turned height.
struct ColumnLayout {
  float open_strip = 0.31f;           ///< of a card that lies face up, share of the card's height, [0, 1]
  float covered_strip = 0.12f;        ///< of a card that lies face down, share of the height, [0, 1]
  float least_open_strip = 0.18f;     ///< below this the column is crowded, [0, open_strip]
  float least_covered_strip = 0.05f;  ///< [0, covered_strip]
  float look_strip = 0.5f;  ///< of the raised card, where that is wider, share of the height, [0, 1]

  friend bool operator==(const ColumnLayout&, const ColumnLayout&) = default;
};

}  // namespace apsidon
