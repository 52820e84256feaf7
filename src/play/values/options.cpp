#include "apsidon/play/options.hpp"

#include "apsidon/play/input.hpp"
#include "geometry/options.hpp"
#include "gesture/fields.hpp"
#include "play/values/fields.hpp"

namespace apsidon {

void check(const PlayfieldOptions& o) {
  using geometry_detail::check_range;
  check(o.feel);
  check(o.thresholds);
  check(o.drag);
  check(o.hover);
  check_range("playfield: corner radius", o.corner_radius, 0, 0.5);
  check_range("playfield: window width", o.window.width, 0, most_input_px);
  check_range("playfield: window height", o.window.height, 0, most_input_px);
  check_range("playfield: pixel ratio", o.pixel_ratio, least_pixel_ratio, most_pixel_ratio);
  for (const float inset : {o.insets.left, o.insets.top, o.insets.right, o.insets.bottom})
    check_range("playfield: inset", inset, 0, most_input_px);
  check_range("playfield: most undos", static_cast<double>(o.most_undos), 1, 1e15);
  check_range("playfield: start time", o.start_time, -most_input_seconds, most_input_seconds);
}

}  // namespace apsidon
