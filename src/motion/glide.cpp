#include "apsidon/motion/glide.hpp"

#include <fmt/format.h>

#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon {
namespace {

void check_range(std::string_view what, std::string_view option, float value, float least, float most) {
  if (!(value >= least && value <= most)) {
    throw Error(fmt::format("{} {} is {}: {} to {} is expected", what, option, value, least, most));
  }
}

}  // namespace

void check(const Glide& glide, std::string_view what) {
  check_range(what, "seconds", glide.seconds, 0, 60);
  check_range(what, "lift", glide.lift, 0, 10);
  check_range(what, "bend", glide.bend, -4, 4);
  check_range(what, "flip from", glide.flip_from, 0, 1);
  check_range(what, "flip to", glide.flip_to, glide.flip_from, 1);
  if (glide.spring) check(*glide.spring);
}

float travel_seconds(const Glide& glide) { return glide.spring ? glide.spring->period : glide.seconds; }

float share_of(const Effect& effect, float s) {
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
