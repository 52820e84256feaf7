#include "window/watched_files.hpp"

namespace apsidon::tool {
namespace {

std::filesystem::file_time_type written_at(const std::filesystem::path& path) {
  std::error_code error;
  const auto time = std::filesystem::last_write_time(path, error);
  return error ? std::filesystem::file_time_type{} : time;
}

}  // namespace

WatchedFiles::WatchedFiles(const std::vector<std::string>& files) {
  for (const std::string& file : files) add(file);
}

void WatchedFiles::add(const std::string& file) {
  std::error_code error;
  if (!file.empty() && std::filesystem::is_regular_file(file, error))
    files_.push_back({file, written_at(file)});
}

bool WatchedFiles::changed() {
  const auto now = std::chrono::steady_clock::now();
  if (now < next_) return false;
  next_ = now + std::chrono::milliseconds(500);
  bool any = false;
  for (File& file : files_) {
    const auto written = written_at(file.path);
    // A file that is not there for a moment is being written.
    if (written == std::filesystem::file_time_type{} || written == file.written) continue;
    file.written = written;
    any = true;
  }
  return any;
}

void WatchedFiles::pass_over_changes() {
  for (File& file : files_) file.written = written_at(file.path);
}

}  // namespace apsidon::tool
