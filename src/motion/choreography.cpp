#include "apsidon/motion/choreography.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"

namespace apsidon {

void check(const Choreography& c, std::string_view what) {
  check(c.glide, what);
  if (!(c.stagger >= 0 && c.stagger <= 60)) {
    throw Error(fmt::format("{} stagger is {}: 0 to 60 is expected", what, c.stagger));
  }
  if (!(c.longest >= 0 && c.longest <= 600)) {
    throw Error(fmt::format("{} longest is {}: 0 to 600 is expected", what, c.longest));
  }
  for (const Cue& cue : c.cues) {
    if (cue.name.empty()) throw Error(fmt::format("{} has a cue without a name: a name is expected", what));
    if (!(cue.at >= 0 && cue.at <= 1)) {
      throw Error(fmt::format("{} cue '{}' is at {}: 0 to 1 is expected", what, cue.name, cue.at));
    }
  }
}

double departure(const Choreography& c, const Traveller& t) {
  if (c.by == StaggerBy::distance) {
    return t.farthest > 0 ? double{std::min(c.stagger, c.longest)} * double{t.distance / t.farthest} : 0;
  }
  const double apart = t.of > 1
                           ? std::min(double{c.stagger}, double{c.longest} / static_cast<double>(t.of - 1))
                           : double{c.stagger};
  return apart * static_cast<double>(t.place);
}

}  // namespace apsidon
