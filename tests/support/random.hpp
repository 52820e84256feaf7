#pragma once
// Choices for generated cases.
#include <cstddef>
#include <cstdint>
#include <functional>
#include <random>
#include <utility>

namespace apsidon::test {

/// A source of numbers for one case: what it gives depends on the seed, or on the bytes that it is made from,
/// alone.
class Random {
 public:
  explicit Random(std::uint64_t seed)
      : next_([engine = std::mt19937_64(seed)]() mutable { return engine(); }) {}
  explicit Random(std::function<std::uint64_t()> next) : next_(std::move(next)) {}

  /// 0 to below `end`.
  std::size_t below(std::size_t end) { return static_cast<std::size_t>(next_() % end); }
  int between(int low, int high) {
    return low + static_cast<int>(below(static_cast<std::size_t>(high - low + 1)));
  }
  float uniform(float low, float high) {
    return low + (high - low) * static_cast<float>(static_cast<double>(next_() >> 11) / 9007199254740992.0);
  }
  bool chance(float share) { return uniform(0, 1) < share; }

 private:
  std::function<std::uint64_t()> next_;
};

}  // namespace apsidon::test
