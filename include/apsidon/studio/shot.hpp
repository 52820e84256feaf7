#pragma once
#include <string>

#include "apsidon/play/frame.hpp"

namespace apsidon {

/// A frame that was taken of a table.
struct Shot {
  Frame frame = {};          ///< as it was
  double seconds = 0;        ///< of a film: when it shows
  std::string caption = {};  ///< of a contact sheet
};

}  // namespace apsidon
