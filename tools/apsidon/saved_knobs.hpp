#pragma once
// What the bench has changed, put into the files that it came from.
#include <string>

#include "apsidon/apsidon.hpp"

namespace apsidon::tool {

/// The text of a table file with the zones' layouts and handling as they are in the set-up. All else that it
/// says stays as it is, in its order.
std::string with_knobs(const std::string& text, const TableSetup& setup);

}  // namespace apsidon::tool
