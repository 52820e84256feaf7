#pragma once
// Inputs that wait for their time. Not installed.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <utility>
#include <vector>

#include "apsidon/play/input.hpp"

namespace apsidon::play_detail {

/// Invariant: inputs come out in order of their times, those of equal times as they came in; a pointer is
/// claimed from a press that is used until it is let go.
class Inbox {
 public:
  void put(Input input) {
    const auto later = [](double time, const Input& other) { return time < time_of(other); };
    waiting_.insert(std::upper_bound(begin(), waiting_.end(), time_of(input), later), std::move(input));
  }
  /// When the first wants to be taken; infinity when none waits.
  [[nodiscard]] double due() const {
    return empty() ? std::numeric_limits<double>::infinity() : time_of(waiting_[first_]);
  }
  Input take() {
    Input first = std::move(waiting_[first_++]);
    if (empty()) {
      waiting_.clear();
      first_ = 0;
    }
    return first;
  }
  /// The first, if it is of this kind; null otherwise.
  template <class Kind>
  [[nodiscard]] const Kind* first() const {
    return empty() ? nullptr : std::get_if<Kind>(&waiting_[first_]);
  }
  /// Whether a key waits.
  [[nodiscard]] bool has_key() {
    return std::any_of(begin(), waiting_.end(),
                       [](const Input& input) { return std::holds_alternative<KeyInput>(input); });
  }

  void claim(std::uint32_t pointer) {
    if (!claims(pointer)) claimed_.push_back(pointer);
  }
  void release(std::uint32_t pointer) { std::erase(claimed_, pointer); }
  [[nodiscard]] bool claims(std::uint32_t pointer) const {
    return std::find(claimed_.begin(), claimed_.end(), pointer) != claimed_.end();
  }
  void release_all() { claimed_.clear(); }

 private:
  [[nodiscard]] bool empty() const { return first_ == waiting_.size(); }
  [[nodiscard]] std::vector<Input>::iterator begin() {
    return waiting_.begin() + static_cast<std::ptrdiff_t>(first_);
  }

  std::vector<Input> waiting_ = {};  // its storage is used again
  std::size_t first_ = 0;
  std::vector<std::uint32_t> claimed_ = {};
};

}  // namespace apsidon::play_detail
