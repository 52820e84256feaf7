#include "apsidon/draw/draw_sketch.hpp"

#include <algorithm>
#include <array>

#include "draw/canvas.hpp"

namespace apsidon {
using namespace draw_detail;

namespace {

/// A colour by the layer's name, the same in every picture.
Colour colour_of(std::string_view layer) {
  // Those that a playfield draws are far apart from one another.
  if (layer == "areas") return rgb(0xFFD166);
  if (layer == "panels") return rgb(0xFFA94D);
  if (layer == "hits") return rgb(0xFF8FA3);
  if (layer == "neutral") return rgb(0x54284A);
  if (layer == "strips") return rgb(0x74C0FC);
  if (layer == "insertion") return rgb(0x2F9E44);
  if (layer == "ids") return rgb(0xFFFFFF);
  static constexpr std::array<Colour, 3> colours{rgb(0x8EE3F5), rgb(0xB9F18C), rgb(0xD9B8FF)};
  std::size_t sum = 0;
  for (const char c : layer) sum = sum * 31 + static_cast<unsigned char>(c);
  return colours[sum % colours.size()];
}

void draw_label(cairo_t* cr, const SketchMark& mark, double width) {
  // A dark ground keeps the words legible on paper and on green alike.
  const Lettering how{.size = 12, .bold = true};
  constexpr double height = 18;
  const Saved saved(cr);
  cairo_push_group(cr);
  const Extent extent = text_left(cr, mark.text, 4, 13, how, colour_of(mark.layer));
  cairo_pattern_t* words = cairo_pop_group(cr);
  // Above its point, so that it does not cover what begins there; inside the picture all the same.
  const double x = std::clamp(double{mark.at[0].x}, 0.0, std::max(width - extent.width - 8, 0.0));
  cairo_translate(cr, x, std::max(double{mark.at[0].y} - height - 1, 0.0));
  rounded_box(cr, 0, 0, extent.width + 8, height, 3);
  fill(cr, rgb(0x06140F, 0.8));
  cairo_set_source(cr, words);
  cairo_paint(cr);
  cairo_pattern_destroy(words);
}

void draw_mark(cairo_t* cr, const SketchMark& mark, double width) {
  const Colour colour = colour_of(mark.layer);
  const Vec2 from = mark.at[0];
  const Vec2 to = mark.at[1];
  switch (mark.kind) {
    case SketchMark::Kind::line:
      cairo_move_to(cr, double{from.x}, double{from.y});
      cairo_line_to(cr, double{to.x}, double{to.y});
      return stroke(cr, colour, 1.5);
    case SketchMark::Kind::box:
      cairo_rectangle(cr, double{from.x} + 0.5, double{from.y} + 0.5, double{to.x - from.x} - 1,
                      double{to.y - from.y} - 1);
      return stroke(cr, colour, 1);
    case SketchMark::Kind::quad:
      polygon(cr, Quad{mark.at});
      return stroke(cr, faded(colour, 0.9), 1);
    case SketchMark::Kind::point:
      circle(cr, double{from.x}, double{from.y}, 2.5);
      return fill(cr, colour);
    case SketchMark::Kind::label:
      return draw_label(cr, mark, width);
  }
}

}  // namespace

void draw_sketch(const Sketch& sketch, Picture& picture) {
  const Canvas canvas = canvas_on(picture);
  const double width = static_cast<double>(picture.width()) / double{picture.pixel_ratio()};
  for (const SketchMark& mark : sketch.marks) draw_mark(canvas.get(), mark, width);
}

}  // namespace apsidon
