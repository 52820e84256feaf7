#include "apsidon/files/read_file.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <fstream>
#include <system_error>

#include "files/reader.hpp"

namespace apsidon {

Result<std::string> read_file(const std::filesystem::path& file) {
  const auto refused = [&](ProblemCode code, std::string message) {
    return Problem{.code = code, .file = file.string(), .message = std::move(message)};
  };
  std::error_code error;
  const auto kind = std::filesystem::status(file, error).type();
  if (kind == std::filesystem::file_type::directory)
    return refused(ProblemCode::cannot_read, "this is a folder: a file is expected");
  // Of a pipe or a device nobody knows whether it ends.
  const bool there =
      kind != std::filesystem::file_type::not_found && kind != std::filesystem::file_type::none;
  if (there && kind != std::filesystem::file_type::regular)
    return refused(ProblemCode::cannot_read, "this is a pipe or a device: a file is expected");
  std::ifstream in(file, std::ios::binary);
  if (!there || !in)
    return refused(ProblemCode::cannot_read, "the file cannot be read: check its path and its permissions");
  // A file may grow while it is read: one byte more than it has shows that.
  const auto size = std::filesystem::file_size(file, error);
  std::string text(error || size > most_file_bytes ? most_file_bytes + 1 : static_cast<std::size_t>(size) + 1,
                   '\0');
  in.read(text.data(), static_cast<std::streamsize>(text.size()));
  const auto got = static_cast<std::size_t>(in.gcount());
  if (got == text.size()) {
    return refused(ProblemCode::too_large,
                   got > most_file_bytes
                       ? fmt::format("the file has more than {} bytes: fewer are expected", most_file_bytes)
                       : "the file grows while it is read: one that is complete is expected");
  }
  text.resize(got);
  return text;
}

Result<std::filesystem::path> other_file(const std::filesystem::path& folder, const std::string& name,
                                         OtherFiles others) {
  if (others == OtherFiles::anywhere) return folder / name;
  const auto refused = [&](std::string_view why) {
    return Problem{.code = ProblemCode::outside,
                   .file = name,
                   .message = fmt::format("'{}' {}: a name within the folder is expected",
                                          files_detail::shown(name), why)};
  };
  const std::filesystem::path path(name);
  if (path.is_absolute()) return refused("is an absolute path");
  if (std::find(path.begin(), path.end(), "..") != path.end()) return refused("leads out of the folder");
  std::error_code error;
  const auto base = std::filesystem::weakly_canonical(folder.empty() ? "." : folder, error);
  if (error) return refused("cannot be followed");
  const auto real = std::filesystem::weakly_canonical(base / path, error);
  if (error) return refused("cannot be followed");
  if (std::mismatch(base.begin(), base.end(), real.begin(), real.end()).first != base.end())
    return refused("is a link that leads out of the folder");
  return folder / path;
}

}  // namespace apsidon
