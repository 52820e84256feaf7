#include "apsidon/geometry/sketch.hpp"

#include <fmt/format.h>

#include <cmath>
#include <iterator>

namespace apsidon {
namespace {

// Adding zero turns a rounded -0 into 0, which would otherwise make two equal sketches differ.
double hundredths(float v) { return std::round(double{v} * 100) / 100 + 0.0; }

/// How many points a mark has.
std::size_t points_of(SketchMark::Kind kind) {
  switch (kind) {
    case SketchMark::Kind::line:
    case SketchMark::Kind::box:
      return 2;
    case SketchMark::Kind::quad:
      return 4;
    case SketchMark::Kind::point:
    case SketchMark::Kind::label:
      break;
  }
  return 1;
}

}  // namespace

std::string text_of(const Sketch& sketch) {
  static constexpr std::array<std::string_view, 5> kinds{"line", "box", "quad", "point", "label"};
  std::string out;
  for (const SketchMark& mark : sketch.marks) {
    out += mark.layer + ' ' + std::string(kinds[static_cast<std::size_t>(mark.kind)]);
    for (std::size_t i = 0; i < points_of(mark.kind); ++i)
      fmt::format_to(std::back_inserter(out), " {} {}", hundredths(mark.at[i].x), hundredths(mark.at[i].y));
    if (mark.kind == SketchMark::Kind::label) out += ' ' + mark.text;
    out += '\n';
  }
  return out;
}

}  // namespace apsidon
