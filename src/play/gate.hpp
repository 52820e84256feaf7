#pragma once
// What opens and closes input. Not installed.
#include <algorithm>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace apsidon::play_detail {

/// Invariant: open exactly while no reason holds it; a reason is held once, however often it is given.
class Gate {
 public:
  /// Returns whether the reason is a new one.
  bool close(std::string_view reason) {
    if (closed_for(reason)) return false;
    reasons_.emplace_back(reason);
    return true;
  }
  void open(std::string_view reason) { std::erase(reasons_, reason); }
  [[nodiscard]] bool is_open() const { return reasons_.empty(); }
  [[nodiscard]] bool closed_for(std::string_view reason) const {
    return std::find(reasons_.begin(), reasons_.end(), reason) != reasons_.end();
  }
  /// In the order in which they were given.
  [[nodiscard]] std::span<const std::string> reasons() const { return reasons_; }

 private:
  std::vector<std::string> reasons_ = {};
};

}  // namespace apsidon::play_detail
