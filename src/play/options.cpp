#include "apsidon/play/options.hpp"

#include <fmt/format.h>

#include <cmath>

#include "apsidon/geometry/error.hpp"

namespace apsidon {

void check(const PlayfieldOptions& o) {
  check(o.feel);
  check(o.thresholds);
  check(o.drag);
  check(o.hover);
  if (!(o.corner_radius >= 0 && o.corner_radius <= 0.5f)) {
    throw Error(fmt::format("playfield: corner radius is {}: 0 to 0.5 is expected", o.corner_radius));
  }
  if (!std::isfinite(o.start_time)) {
    throw Error(fmt::format("playfield: start time is {}: a finite number is expected", o.start_time));
  }
}

}  // namespace apsidon
