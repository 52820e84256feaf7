#pragma once
// What the targets that need several things take them from.
#include <fuzzer/FuzzedDataProvider.h>

#include <cmath>
#include <filesystem>
#include <limits>
#include <string>
#include <string_view>
#include <utility>

#include <unistd.h>

namespace apsidon::fuzz {

/// A float of any kind: mostly one that a table may have, now and then any bits, or one at an edge.
inline float any_float(FuzzedDataProvider& from) {
  switch (from.ConsumeIntegralInRange(0, 9)) {
    case 0:
      return from.PickValueInArray({0.0f, -0.0f, 1e-38f, 3e38f, -3e38f, 1e7f, -1e7f,
                                    std::numeric_limits<float>::infinity(),
                                    std::numeric_limits<float>::quiet_NaN()});
    case 1:
      return from.ConsumeFloatingPoint<float>();
    default:
      return from.ConsumeFloatingPointInRange(-200.0f, 200.0f);
  }
}

/// Two files in one: what is before the line "----", and what is after it.
inline std::pair<std::string, std::string> two_files(std::string_view text) {
  constexpr std::string_view between = "\n----\n";
  const std::size_t at = text.find(between);
  if (at == std::string_view::npos) return {std::string(text), std::string(text)};
  return {std::string(text.substr(0, at)), std::string(text.substr(at + between.size()))};
}

/// A folder of this process's own, which goes with it.
class OwnFolder {
 public:
  OwnFolder() : path_(std::filesystem::temp_directory_path() / ("apsidon-fuzz-" + std::to_string(getpid()))) {
    std::filesystem::create_directories(path_);
  }
  OwnFolder(const OwnFolder&) = delete;
  OwnFolder& operator=(const OwnFolder&) = delete;
  ~OwnFolder() {
    std::error_code error;
    std::filesystem::remove_all(path_, error);
  }
  [[nodiscard]] const std::filesystem::path& path() const { return path_; }

 private:
  std::filesystem::path path_;
};

}  // namespace apsidon::fuzz
