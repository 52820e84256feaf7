#pragma once
// What the bench has changed, put into the files that it came from.
#include <string>

#include "apsidon/apsidon.hpp"

namespace apsidon::tool {

/// The text of a table file with the layouts and the handling of its zones that have changed: from how the
/// file reads now, `before`. All else that it says stays as it is, in its order.
std::string with_knobs(const std::string& text, const TableSetup& before, const TableSetup& now);

}  // namespace apsidon::tool
