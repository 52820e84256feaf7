#include "apsidon/play/handling.hpp"

#include "geometry/options.hpp"

namespace apsidon {

using geometry_detail::check_range;

void check(const DragOptions& o) {
  check_range("drag: above the finger", o.above_finger, 0, 4);
  check_range("drag: opacity of a copy", o.copy_opacity, 0, 1);
}

void check(const HoverOptions& o) {
  check_range("hover: seconds in", o.in_seconds, 0, 10);
  check_range("hover: seconds out", o.out_seconds, 0, 10);
  check_range("hover: margin", o.margin, 0, 100);
  check_range("zoom: seconds", o.zoom_seconds, 0, 60);
  check_range("zoom: size", o.zoom, 1, 20);
  check_range("zoom: gap", o.zoom_gap, 0, 1000);
}

}  // namespace apsidon
