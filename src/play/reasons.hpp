#pragma once
// Named reasons, as gates and switches go by. Not installed.
#include <algorithm>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace apsidon::play_detail {

/// Invariant: a reason is held once, however often it is given.
class Reasons {
 public:
  /// Returns whether the reason is a new one.
  bool give(std::string_view reason) {
    if (has(reason)) return false;
    held_.emplace_back(reason);
    return true;
  }
  /// Returns whether the reason was held.
  bool release(std::string_view reason) { return std::erase(held_, reason) > 0; }
  [[nodiscard]] bool any() const { return !held_.empty(); }
  [[nodiscard]] bool has(std::string_view reason) const {
    return std::find(held_.begin(), held_.end(), reason) != held_.end();
  }
  /// In the order in which they were given.
  [[nodiscard]] std::span<const std::string> all() const { return held_; }

 private:
  std::vector<std::string> held_ = {};
};

}  // namespace apsidon::play_detail
