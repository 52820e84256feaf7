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

/// What a spring has made of its start: distance = from start distance * `of_distance` + start velocity *
/// `of_velocity`, and likewise its velocity.
struct SpringShares {
  float of_distance = 1;
  float of_velocity = 0;           ///< seconds
  float velocity_of_distance = 0;  ///< 1 / seconds
  float velocity_of_velocity = 1;
};

/// At `seconds` after its start, >= 0; exact to 1e-6 of the start's distance. The same bits on every machine.
[[nodiscard]] APSIDON_CORE_EXPORT SpringShares shares_of(const Spring& spring, float seconds);

/// After how many seconds a spring that starts at this distance with this velocity (a second) stays nearer
/// than `nearness`, > 0. Known at the start, from the envelope of its solution.
[[nodiscard]] APSIDON_CORE_EXPORT float settle_seconds(const Spring& spring, float distance, float velocity,
                                                       float nearness);

}  // namespace apsidon
