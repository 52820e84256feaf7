#include "apsidon/motion/glide.hpp"

#include <cmath>

#include "geometry/options.hpp"
#include "geometry/sin_cos.hpp"
#include "motion/fields.hpp"
#include "motion/inside.hpp"

namespace apsidon {

float motion_detail::travel_seconds(const Glide& glide) {
  return glide.spring ? glide.spring->period : glide.seconds;
}

float motion_detail::share_of(const Effect& effect, float s) {
  if (!(s > 0 && s < 1)) return 0;
  const float rest = 1 - s;
  switch (effect.kind) {
    case EffectKind::swing:
      // Comes in from rest and dies away, scaled to a peak of 1.
      return 6.75f * s * rest * rest * geometry_detail::sin_cos_of_turns(effect.swings * s).sine;
    case EffectKind::pulse: {
      const float wave =
          geometry_detail::sin_cos_of_turns(std::max(std::round(effect.swings), 1.0f) * s).cosine;
      return (1 - wave) / 2;
    }
    case EffectKind::kick:
      return 28.935185f * s * s * rest * rest * rest;
  }
  return 0;
}

}  // namespace apsidon
