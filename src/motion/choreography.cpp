#include "apsidon/motion/choreography.hpp"

#include <algorithm>

#include "geometry/options.hpp"
#include "motion/fields.hpp"
#include "motion/inside.hpp"

namespace apsidon {

double motion_detail::departure(const Choreography& c, const motion_detail::Traveller& t) {
  if (c.by == StaggerBy::distance) {
    return t.farthest > 0 ? double{std::min(c.stagger, c.longest)} * double{t.distance / t.farthest} : 0;
  }
  const double apart = t.of > 1
                           ? std::min(double{c.stagger}, double{c.longest} / static_cast<double>(t.of - 1))
                           : double{c.stagger};
  return apart * static_cast<double>(t.index);
}

}  // namespace apsidon
