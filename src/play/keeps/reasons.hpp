#pragma once
// Named reasons, as gates and switches go by. Not installed.
#include <algorithm>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace apsidon::play_detail {

/// Invariant: a reason is held once, however often it is given; those that last are held.
class Reasons {
 public:
  /// `lasts`: from round to round, as it was said last. Returns whether the reason is a new one.
  bool give(std::string_view reason, bool lasts = false) {
    std::erase(lasting_, reason);
    if (lasts) lasting_.emplace_back(reason);
    if (has(reason)) return false;
    held_.emplace_back(reason);
    return true;
  }
  /// Returns whether the reason was held.
  bool release(std::string_view reason) {
    std::erase(lasting_, reason);
    return std::erase(held_, reason) > 0;
  }
  /// A round ends, and with it all reasons but those that last.
  void end_round() { held_ = lasting_; }
  [[nodiscard]] std::span<const std::string> lasting() const { return lasting_; }
  [[nodiscard]] bool any() const { return !held_.empty(); }
  [[nodiscard]] bool has(std::string_view reason) const {
    return std::find(held_.begin(), held_.end(), reason) != held_.end();
  }
  /// In the order in which they were given.
  [[nodiscard]] std::span<const std::string> all() const { return held_; }

 private:
  std::vector<std::string> held_ = {};
  std::vector<std::string> lasting_ = {};  // of these
};

}  // namespace apsidon::play_detail
