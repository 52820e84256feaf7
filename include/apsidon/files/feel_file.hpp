#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/motion/feel.hpp"

namespace apsidon {

// Feels as JSON, version 1. docs/files.md describes them, data/schemas/feel.schema.json is their JSON Schema.
// What a file does not say is as in `Feel{}`.

/// Reads a feel file.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Feel> load_feel(const std::filesystem::path& file);
/// The same from a text in memory; `file` is used in problems.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Feel> parse_feel(std::string_view text,
                                                           const std::filesystem::path& file);
/// The feel as a file's text; read again, it gives the same feel.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_feel(const Feel& feel);

}  // namespace apsidon
