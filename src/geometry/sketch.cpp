#include "apsidon/geometry/sketch.hpp"

#include <fmt/format.h>

#include <cmath>
#include <iterator>

namespace apsidon {
namespace {

// Adding zero turns a rounded -0 into 0, which would otherwise make two equal sketches differ.
double hundredths(float v) { return std::round(double{v} * 100) / 100 + 0.0; }

void append(std::string& out, Vec2 p) {
  fmt::format_to(std::back_inserter(out), " {} {}", hundredths(p.x), hundredths(p.y));
}

}  // namespace

Sketch::~Sketch() = default;

void TextSketch::line(std::string_view layer, Vec2 from, Vec2 to) {
  text_.append(layer).append(" line");
  append(text_, from);
  append(text_, to);
  text_ += '\n';
}

void TextSketch::box(std::string_view layer, const Rect& box) {
  text_.append(layer).append(" box");
  append(text_, box.min);
  append(text_, box.max);
  text_ += '\n';
}

void TextSketch::quad(std::string_view layer, const Quad& quad) {
  text_.append(layer).append(" quad");
  for (const Vec2 corner : quad.corners) append(text_, corner);
  text_ += '\n';
}

void TextSketch::point(std::string_view layer, Vec2 at) {
  text_.append(layer).append(" point");
  append(text_, at);
  text_ += '\n';
}

void TextSketch::label(std::string_view layer, Vec2 at, std::string_view text) {
  text_.append(layer).append(" label");
  append(text_, at);
  text_.append(" ").append(text);
  text_ += '\n';
}

}  // namespace apsidon
