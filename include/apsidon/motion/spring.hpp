#pragma once
#include "apsidon/core_export.hpp"

namespace apsidon {

/// A damped spring that pulls to its goal, by the time of one swing and how it is damped. The distance x to
/// the goal follows x'' + 2 d w x' + w² x = 0 with w = 2π / period and d = damping; what is computed is its
/// exact solution.
struct Spring {
  float period = 0.4f;  ///< seconds of one undamped swing, [0.001, 60]
  float damping =
      0.8f;  ///< below 1 it overshoots, at 1 it arrives soonest without, above it creeps; [0.02, 20]

  friend constexpr bool operator==(const Spring&, const Spring&) = default;
};

/// Throws Error when a number is out of its range.
APSIDON_CORE_EXPORT void check(const Spring& spring);

}  // namespace apsidon
