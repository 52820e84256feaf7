#pragma once
// The thresholds of gestures with their ranges. Not installed.
#include "apsidon/gesture/thresholds.hpp"
#include "geometry/options.hpp"

namespace apsidon {

/// Shows the visitor each number: one list for checking, reading and writing.
template <class V>
void fields(GestureThresholds& t, V& v) {
  v.number("mouse_slop", t.mouse_slop, 0, 1000);
  v.number("touch_slop", t.touch_slop, 0, 1000);
  v.number("long_press_seconds", t.long_press_seconds, 0.05, 60);
  v.number("double_tap_seconds", t.double_tap_seconds, 0.05, 10);
  v.number("double_tap_distance", t.double_tap_distance, 0, 1000);
  v.number("flick_speed", t.flick_speed, 1, 1'000'000);
  v.number("flick_seconds", t.flick_seconds, 0.005, 1);
}

/// Throws Error when a threshold is out of its range.
inline void check(const GestureThresholds& thresholds) {
  geometry_detail::check_options("gesture thresholds", thresholds);
}

}  // namespace apsidon
