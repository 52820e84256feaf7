#pragma once
#include <cstddef>
#include <filesystem>
#include <string>

#include "apsidon/files/other_files.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"

namespace apsidon {

/// The largest file that is read, bytes.
inline constexpr std::size_t most_file_bytes = std::size_t{64} << 20;

/// The bytes of a file. Folders, pipes, devices, files that grow while they are read and files of more than
/// `most_file_bytes` are refused.
[[nodiscard]] APSIDON_FILES_EXPORT Result<std::string> read_file(const std::filesystem::path& file);

/// The path of a file that another one in `folder` names. Refused when it leads out of the folder, by its
/// name or by a link, unless `others` says that it may.
[[nodiscard]] APSIDON_FILES_EXPORT Result<std::filesystem::path> other_file(
    const std::filesystem::path& folder, const std::string& name, OtherFiles others);

}  // namespace apsidon
