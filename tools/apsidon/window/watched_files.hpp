#pragma once
// Files that somebody may be editing.
#include <chrono>
#include <filesystem>
#include <string>
#include <vector>

namespace apsidon::tool {

class WatchedFiles {
 public:
  /// Empty names, and names of no file, are left out.
  explicit WatchedFiles(const std::vector<std::string>& files);
  /// Watches one more.
  void add(const std::string& file);
  /// Whether one of them was written since the last call; looked at twice a second.
  [[nodiscard]] bool changed();
  /// What has been written until now is known already.
  void pass_over_changes();

 private:
  struct File {
    std::filesystem::path path;
    std::filesystem::file_time_type written;
  };

  std::vector<File> files_ = {};
  std::chrono::steady_clock::time_point next_ = {};
};

}  // namespace apsidon::tool
