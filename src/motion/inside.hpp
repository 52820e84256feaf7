#pragma once
// What is asked of ways, effects and choreographies by who moves cards by them. Not installed.
#include "apsidon/motion/choreography.hpp"

namespace apsidon::motion_detail {

/// The time of the way: the stated one, or one period of the spring, after which what is left is small.
[[nodiscard]] float travel_seconds(const Glide& glide);

/// The share of its height that an effect has after this share of its time; 0 outside of 0 to 1.
[[nodiscard]] float share_of(const Effect& effect, float of_time);

/// A card among those that move together.
struct Traveller {
  std::size_t index = 0;  ///< in their order, from 0
  std::size_t of = 1;     ///< how many they are
  float distance = 0;     ///< to its goal
  float farthest = 0;     ///< the largest of those distances
};

/// The seconds after which a card leaves.
[[nodiscard]] double departure(const Choreography& choreography, const Traveller& traveller);

}  // namespace apsidon::motion_detail
