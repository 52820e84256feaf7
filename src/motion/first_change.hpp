#pragma once
// When something that is either so or so changes for the first time. Not installed.
#include <limits>

namespace apsidon::motion_detail {

/// The time of what does not happen.
inline constexpr double never = std::numeric_limits<double>::infinity();

/// The first moment after `begin`, up to `end`, at which `side` is another than at `begin`, to the last bit
/// of time; `never` when there is none. It is looked for in so many steps: what changes twice within one is
/// passed over.
template <class Side>
double first_change(double begin, double end, int steps, const Side& side) {
  const bool first = side(begin);
  double low = begin;
  for (int i = 1; i <= steps; ++i) {
    double high = begin + (end - begin) * i / steps;
    if (side(high) == first) {
      low = high;
      continue;
    }
    for (;;) {
      const double middle = (low + high) / 2;
      if (middle <= low || middle >= high) return high;
      (side(middle) == first ? low : high) = middle;
    }
  }
  return never;
}

}  // namespace apsidon::motion_detail
