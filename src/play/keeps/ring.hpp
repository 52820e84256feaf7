#pragma once
// A queue whose storage is used again. Not installed.
#include <cstddef>
#include <utility>
#include <vector>

namespace apsidon::play_detail {

/// First in, first out. What was taken out leaves its storage to what comes later.
template <class T>
class Ring {
 public:
  [[nodiscard]] std::size_t size() const { return count_; }
  [[nodiscard]] bool empty() const { return count_ == 0; }

  /// One more at the end, with what is left of another in it.
  T& next() {
    if (count_ == held_.size()) make_room();
    const std::size_t at = first_ + count_++;
    return held_[at < held_.size() ? at : at - held_.size()];
  }

  /// The first, which is in the ring no more and valid until one more comes; there has to be one.
  T& take() {
    T& first = held_[first_];
    first_ = first_ + 1 == held_.size() ? 0 : first_ + 1;
    --count_;
    return first;
  }

  void clear() { count_ = 0; }

 private:
  void make_room() {
    std::vector<T> larger(held_.empty() ? 16 : 2 * held_.size());
    for (std::size_t i = 0; i < count_; ++i) larger[i] = std::move(held_[(first_ + i) % held_.size()]);
    held_ = std::move(larger);
    first_ = 0;
  }

  std::vector<T> held_ = {};
  std::size_t first_ = 0;
  std::size_t count_ = 0;
};

}  // namespace apsidon::play_detail
