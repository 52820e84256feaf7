#include "apsidon/play/options.hpp"

#include <fmt/format.h>

#include <cmath>

#include "geometry/options.hpp"

namespace apsidon {

void check(const PlayfieldOptions& o) {
  check(o.feel);
  check(o.thresholds);
  check(o.drag);
  check(o.hover);
  geometry_detail::check_range("playfield: corner radius", o.corner_radius, 0, 0.5);
  if (!std::isfinite(o.start_time)) {
    throw Error(fmt::format("playfield: start time is {}: a finite number is expected", o.start_time));
  }
}

}  // namespace apsidon
