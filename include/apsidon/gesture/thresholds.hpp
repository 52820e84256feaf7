#pragma once
#include "apsidon/core_export.hpp"

namespace apsidon {

/// What makes a tap, a drag, a flick. A pen is as exact as a mouse.
struct GestureThresholds {
  float mouse_slop = 4;             ///< px from where it went down, beyond which a press is a drag, [0, 1000]
  float touch_slop = 10;            ///< the same for fingers
  double long_press_seconds = 0.5;  ///< [0.05, 60]
  double double_tap_seconds = 0.3;  ///< between the ends of two taps, [0.05, 10]
  float double_tap_distance = 24;   ///< px between two taps, [0, 1000]; fingers: twice that
  float flick_speed = 900;          ///< px per second at its end that make a drag a flick, [1, 1000000]
  double flick_seconds = 0.08;      ///< over which the speed is measured, [0.005, 1]

  friend constexpr bool operator==(const GestureThresholds&, const GestureThresholds&) = default;
};

}  // namespace apsidon
