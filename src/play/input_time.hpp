#pragma once
// From the table's clock to the time of the inputs. Not installed.
#include "apsidon/motion/clock.hpp"

namespace apsidon::play_detail {

/// The input time at which something is told that comes at `own` on the table's clock. While that clock
/// stands still, what needs no time on it is told at once.
inline double input_time(const Clock& clock, double own) {
  return clock.stands() ? clock.now() : clock.when(own);
}

}  // namespace apsidon::play_detail
