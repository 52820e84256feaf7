#pragma once
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

/// One slot of a formation.
struct FormationSlot {
  ZoneId zone = {};  ///< whose place it is
  Vec2 at = {};      ///< the middle of its card: x in card widths, y in card heights, from anywhere

  friend constexpr bool operator==(const FormationSlot&, const FormationSlot&) = default;
};

/// Slots that lie in a pattern, and which of them are neighbours. `names` are row and place from 1, "2-3":
/// the zones of a trellis are called "trellis-2-3".
struct Formation {
  std::vector<std::string> names = {};  ///< by slot, distinct
  std::vector<Vec2> at = {};            ///< by slot, as in FormationSlot
  std::vector<std::pair<std::size_t, std::size_t>> links =
      {};  ///< neighbours, the earlier slot first, sorted
  std::vector<std::pair<std::size_t, std::size_t>> waits = {};  ///< slots that wait: the first for the second

  friend bool operator==(const Formation&, const Formation&) = default;
};

/// Which slots of rows are neighbours.
enum class RowLinks : std::uint8_t {
  all,      ///< left and right, and in the next row those that lie less than a slot aside
  between,  ///< only those of the next row
};

// Gaps are how slots lie apart, each [-1, 100]: x between those of a row, in card widths, y between rows, in
// card heights. Negative ones overlap. All throw Error when a count is out of its range or a gap is.

/// Rows of so many slots each, [0, 1000], centred one below the other.
[[nodiscard]] APSIDON_CORE_EXPORT Formation formation_of_rows(const std::vector<int>& counts,
                                                              Vec2 gaps = {0.15f, 0.15f},
                                                              RowLinks links = RowLinks::all);
/// Rows of 1, 2, … slots, [1, 100] rows. The neighbours of a slot are the two below it, that cover it where
/// rows overlap.
[[nodiscard]] APSIDON_CORE_EXPORT Formation formation_of_pyramid(int rows, Vec2 gaps = {0.15f, -0.5f});
/// A lattice on its corner: rows of 1, 2, … `side`, … 2, 1 slots, [1, 100]. Neighbours lie along the
/// diagonals; rows reach between the slots of the next, so that no two cards overlap.
[[nodiscard]] APSIDON_CORE_EXPORT Formation formation_of_diamond(int side, Vec2 gaps = {1.15f, -0.46f});
/// Slots around a circle, [1, 1000], the first at the top, clockwise; neighbours follow each other.
[[nodiscard]] APSIDON_CORE_EXPORT Formation formation_of_ring(int count, Vec2 gaps = {0.15f, 0.15f});

/// The same, each slot waiting for its neighbours of the next row; `upward`: of the row before. In a pyramid
/// that is: for the two below it. O(links).
[[nodiscard]] APSIDON_CORE_EXPORT Formation with_waits(Formation formation, bool upward = false);

}  // namespace apsidon
