#pragma once
// What the bench has changed, put into the files that it came from.
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace apsidon::tool {

struct SavedKnobs {
  std::string text;                        ///< of the file, with what could be put into it
  std::vector<std::string> left_out = {};  ///< sentences about what could not
};

/// The text of a table file with what has changed of its zones, of its plans' margins and gaps, and of the
/// faces of its cards: from how the file reads now, `before`. All else that it says stays to the letter; a
/// file that has become another table's stays as it is.
SavedKnobs with_knobs(const std::string& text, const TableSetup& before, const TableSetup& now);

}  // namespace apsidon::tool
