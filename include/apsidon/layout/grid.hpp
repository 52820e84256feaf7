#pragma once
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// How tracks of equal size share a length that has room left, as `justify-content` of CSS Box Alignment: in
/// the middle, at either end, or with the room between, around or evenly beside them. Where they do not fit,
/// between falls back to start, around and evenly to a safe centre.
enum class Distribute : std::uint8_t { start, centre, end, space_between, space_around, space_evenly };

/// Cards in rows, filled from the left and the top. Where the block does not fit its area, rows and columns
/// move together and cards overlap; a zone that scrolls keeps its gaps and goes on below.
struct GridLayout {
  int columns = 0;           ///< cards a row; 0: as many as fit the width, [0, 10000]
  int rows = 0;              ///< of fixed cells; 0: as many as it takes, [0, 10000]
  bool keeps_cells = false;  ///< each card lies in its own cell, and a cell whose card leaves stays empty
  float gap = 0.14f;         ///< between columns, share of the card's width, [0, 4]
  float row_gap = 0.14f;     ///< between rows, share of the card's width, [0, 4]
  Distribute across = Distribute::centre;  ///< the columns in the width
  Distribute down = Distribute::centre;    ///< the rows in the height
  bool safe = true;  ///< of a zone that scrolls: what is too long begins at its start, whatever its alignment
  float least_strip =
      0.2f;  ///< of an overlapped card, share of its width or height; below it is crowded, [0, 1]

  friend bool operator==(const GridLayout&, const GridLayout&) = default;
};

}  // namespace apsidon
