#pragma once
// Inputs that wait for their time. Not installed.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <utility>
#include <vector>

#include "apsidon/geometry/limits.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// Invariant: inputs come out in order of their times, those of equal times as they came in; a pointer is
/// claimed from a press that is used until it is let go.
class Inbox {
 public:
  void put(AnyInput input) {
    if (std::holds_alternative<KeyInput>(input)) ++keys_;
    waiting_.push_back({time_of(input), ++last_, std::move(input)});
    std::push_heap(waiting_.begin(), waiting_.end(), comes_later);
  }
  /// One that is to be taken when a performance has ended, after those that were put behind it before.
  void put_behind(PerformanceId performance, AnyInput input) {
    behind_.emplace_back(performance, std::move(input));
  }
  /// The performance has ended: what was put behind it is due now.
  void release_behind(PerformanceId performance, double now) {
    for (auto& [after, input] : behind_) {
      if (after != performance) continue;
      std::visit([&](auto& i) { i.time = now; }, input);
      put(std::move(input));
    }
    std::erase_if(behind_, [&](const auto& waits) { return waits.first == performance; });
  }
  /// Of another round or snapshot only what waits for a performance that runs there is left.
  template <class Runs>
  void keep_behind(Runs runs) {
    std::erase_if(behind_, [&](const auto& waits) { return !runs(waits.first); });
  }
  /// When the first wants to be taken; infinity when none waits.
  [[nodiscard]] double due() const {
    return waiting_.empty() ? std::numeric_limits<double>::infinity() : waiting_.front().time;
  }
  AnyInput take() {
    std::pop_heap(waiting_.begin(), waiting_.end(), comes_later);
    AnyInput first = std::move(waiting_.back().input);
    waiting_.pop_back();
    if (std::holds_alternative<KeyInput>(first)) --keys_;
    return first;
  }
  /// The first, if it is of this kind; null otherwise.
  template <class Kind>
  [[nodiscard]] const Kind* first() const {
    return waiting_.empty() ? nullptr : std::get_if<Kind>(&waiting_.front().input);
  }
  /// Whether a key waits.
  [[nodiscard]] bool has_key() const { return keys_ > 0; }
  [[nodiscard]] std::size_t size() const { return waiting_.size() + behind_.size(); }

  void claim(std::uint32_t pointer) {
    if (!claims(pointer) && claimed_.size() < most_pointers) claimed_.push_back(pointer);
  }
  void release(std::uint32_t pointer) { std::erase(claimed_, pointer); }
  [[nodiscard]] bool claims(std::uint32_t pointer) const {
    return std::find(claimed_.begin(), claimed_.end(), pointer) != claimed_.end();
  }
  void release_all() { claimed_.clear(); }

 private:
  struct Waiting {
    double time;
    std::uint64_t number;  // of equal times the first comes first
    AnyInput input;
  };
  static bool comes_later(const Waiting& a, const Waiting& b) {
    return std::pair(a.time, a.number) > std::pair(b.time, b.number);
  }

  std::vector<Waiting> waiting_ = {};  // a heap: the first is to be taken next
  std::vector<std::pair<PerformanceId, AnyInput>> behind_ = {};
  std::uint64_t last_ = 0;
  std::size_t keys_ = 0;
  std::vector<std::uint32_t> claimed_ = {};
};

}  // namespace apsidon::play_detail
