#pragma once
// Layouts as JSON. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/layout/plan.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

/// A word, "pile", or an object with that kind and its options.
Layout layout_from(const Node& node);
/// Throws Error for a layout of one's own, which no file can hold.
nlohmann::ordered_json json_of(const Layout& layout);

/// A float by its shortest decimal digits: 0.62 rather than 0.6200000047683716.
nlohmann::ordered_json decimal(float value);

}  // namespace apsidon::files_detail
