#pragma once
// Random ways of cards, for tests.
#include <numbers>

#include "support/tables.hpp"

namespace apsidon::test {

inline Pose random_pose(Random& r) {
  return {.centre = {r.uniform(0, 1000), r.uniform(0, 1000)},
          .rotation = r.uniform(-4, 4),
          .scale = r.uniform(0.5f, 2),
          .flip = r.chance(0.5f) ? 0 : std::numbers::pi_v<float>};
}

inline Glide random_glide(Random& r) {
  Glide glide{.seconds = r.uniform(0.05f, 1),
              .curve = {r.uniform(0.1f, 0.9f), r.uniform(0, 1), r.uniform(0.1f, 0.9f), r.uniform(0, 1)},
              .lift = r.uniform(0, 1)};
  if (r.chance(0.5f)) {
    const float dampings[] = {r.uniform(0.2f, 0.95f), 1, r.uniform(1.05f, 2)};
    glide.spring = Spring{r.uniform(0.2f, 1), dampings[r.below(3)]};
  }
  if (r.chance(0.3f)) glide.bend = r.uniform(-0.5f, 0.5f);
  if (r.chance(0.3f)) {
    glide.flip_from = r.uniform(0, 0.4f);
    glide.flip_to = r.uniform(0.6f, 1);
  }
  return glide;
}

}  // namespace apsidon::test
