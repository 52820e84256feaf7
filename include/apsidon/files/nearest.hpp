#pragma once
#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "apsidon/files_export.hpp"

namespace apsidon {

/// The name that differs least from a mistyped one, by insertions, deletions, exchanges and swaps of
/// neighbours; the first of equals; nothing when all differ in more than half of their letters. O(names ·
/// length²).
[[nodiscard]] APSIDON_FILES_EXPORT std::optional<std::string> nearest_name(
    std::string_view mistyped, std::span<const std::string> names);

}  // namespace apsidon
