#include "apsidon/motion/choreography.hpp"

#include <fmt/format.h>

#include "apsidon/geometry/error.hpp"

namespace apsidon {

void check(const Choreography& c, std::string_view what) {
  check(c.glide, what);
  if (!(c.stagger >= 0 && c.stagger <= 60)) {
    throw Error(fmt::format("{} stagger is {}: 0 to 60 is expected", what, c.stagger));
  }
  for (const Cue& cue : c.cues) {
    if (cue.name.empty()) throw Error(fmt::format("{} has a cue without a name: a name is expected", what));
    if (!(cue.at >= 0 && cue.at <= 1)) {
      throw Error(fmt::format("{} cue '{}' is at {}: 0 to 1 is expected", what, cue.name, cue.at));
    }
  }
}

double departure(const Choreography& c, std::size_t place, float distance, float farthest) {
  if (c.by == StaggerBy::order) return double{c.stagger} * static_cast<double>(place);
  return farthest > 0 ? double{c.stagger} * double{distance / farthest} : 0;
}

}  // namespace apsidon
