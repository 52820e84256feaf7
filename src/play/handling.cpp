#include "apsidon/play/handling.hpp"

#include <fmt/format.h>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

void check_range(const char* what, double value, double least, double most) {
  if (!(value >= least && value <= most)) {
    throw Error(fmt::format("{} is {}: {} to {} is expected", what, value, least, most));
  }
}

}  // namespace

void check(const DragOptions& o) {
  check_range("drag: above the finger", double{o.above_finger}, 0, 4);
  check_range("drag: opacity of a copy", double{o.copy_opacity}, 0, 1);
}

void check(const HoverOptions& o) {
  check_range("hover: seconds in", o.in_seconds, 0, 10);
  check_range("hover: seconds out", o.out_seconds, 0, 10);
  check_range("hover: margin", double{o.margin}, 0, 100);
  check_range("zoom: seconds", o.zoom_seconds, 0, 60);
  check_range("zoom: size", double{o.zoom}, 1, 20);
  check_range("zoom: gap", double{o.zoom_gap}, 0, 1000);
}

}  // namespace apsidon
