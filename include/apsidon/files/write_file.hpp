#pragma once
#include <filesystem>
#include <string_view>

#include "apsidon/files_export.hpp"

namespace apsidon {

/// Writes a file whole or not at all: whatever happens meanwhile, a full disk, an interrupt or a crash, the
/// name stands for what it stood for before, or for all of the new bytes, and nothing else is left behind. A
/// link is followed; what is no file, as /dev/stdout, is written to as it is. Throws Error with the reason
/// when it cannot be written.
APSIDON_FILES_EXPORT void write_file(const std::filesystem::path& file, std::string_view bytes);

}  // namespace apsidon
