#pragma once
// Properties over generated cases. The seed of a failing case is printed by RapidCheck; RC_PARAMS="seed=…"
// repeats it.
#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cstdint>
#include <functional>
#include <random>
#include <string>

namespace apsidon::test {

/// A source of numbers for one case: what it gives depends on the seed alone.
class Random {
 public:
  explicit Random(std::uint64_t seed) : engine_(seed) {}
  /// 0 to below `end`.
  std::size_t below(std::size_t end) { return static_cast<std::size_t>(engine_() % end); }
  int between(int low, int high) {
    return low + static_cast<int>(below(static_cast<std::size_t>(high - low + 1)));
  }
  float uniform(float low, float high) {
    return low + (high - low) * static_cast<float>(static_cast<double>(engine_() >> 11) / 9007199254740992.0);
  }
  bool chance(float share) { return uniform(0, 1) < share; }

 private:
  std::mt19937_64 engine_;
};

/// Runs the check, which fails by RC_ASSERT, for 100 generated seeds, `cases` of its own choosing from each.
void for_all(const std::string& what, int cases, const std::function<void(Random&)>& property);

}  // namespace apsidon::test
