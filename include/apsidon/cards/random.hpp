#pragma once
#include <cstddef>
#include <cstdint>
#include <span>
#include <utility>

namespace apsidon {

/// Random numbers by a seed, the same on every platform: SplitMix64 (Steele, Lea and Flood, Fast splittable
/// pseudorandom number generators, 2014). For games, not for secrets.
class Random64 {
 public:
  /// The same seed gives the same numbers, everywhere.
  explicit constexpr Random64(std::uint64_t seed) : state_(seed) {}

  /// All 64 bits.
  constexpr std::uint64_t next() {
    std::uint64_t z = state_ += 0x9E3779B97F4A7C15u;
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9u;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBu;
    return z ^ (z >> 31);
  }
  /// A whole number from 0 to below `n`, all equally likely; 0 when n is 0.
  constexpr std::uint64_t below(std::uint64_t n) {
    if (n == 0) return 0;
    // Numbers of the last, incomplete round of n are drawn again.
    const std::uint64_t limit = ~std::uint64_t{0} - (~std::uint64_t{0} % n + 1) % n;
    std::uint64_t drawn = next();
    while (drawn > limit) drawn = next();
    return drawn % n;
  }
  /// From 0 to below 1, in steps of 2^-24.
  constexpr float unit() { return static_cast<float>(next() >> 40) * 0x1p-24f; }

 private:
  std::uint64_t state_;
};

/// Puts the items in an order in which all orders are equally likely, as far as 64 bits of seed go (Fisher
/// and Yates).
template <class T>
constexpr void shuffle(std::span<T> items, Random64& random) {
  for (std::size_t i = items.size(); i > 1; --i) {
    using std::swap;
    swap(items[i - 1], items[static_cast<std::size_t>(random.below(i))]);
  }
}

}  // namespace apsidon
