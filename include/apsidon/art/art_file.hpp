#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "apsidon/art/art.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"

namespace apsidon {

// Art as JSON, version 1. docs/art.md describes it, data/schemas/art.schema.json is its JSON Schema.

/// The art in a file; names of pictures stay relative to it.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Art> load_art(const std::filesystem::path& file);
/// The same from a text in memory; `file` is used in problems.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Art> parse_art(std::string_view text,
                                                         const std::filesystem::path& file);
/// The art as a file's text; read again, it gives the same art.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_art(const Art& art);

}  // namespace apsidon
