#include "apsidon/draw/picture_sketch.hpp"

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

}  // namespace

struct PictureSketch::Impl {
  Canvas canvas;
  double width;
};

PictureSketch::PictureSketch(Picture& picture)
    : impl_(std::make_unique<Impl>(
          Impl{canvas_on(picture), static_cast<double>(picture.width()) / double{picture.pixel_ratio()}})) {}
PictureSketch::~PictureSketch() = default;

void PictureSketch::line(std::string_view layer, Vec2 from, Vec2 to) {
  cairo_t* cr = impl_->canvas.get();
  cairo_move_to(cr, double{from.x}, double{from.y});
  cairo_line_to(cr, double{to.x}, double{to.y});
  stroke(cr, colour_of(layer), 1.5);
}

void PictureSketch::box(std::string_view layer, const Rect& b) {
  cairo_t* cr = impl_->canvas.get();
  cairo_rectangle(cr, double{b.min.x} + 0.5, double{b.min.y} + 0.5, double{b.width()} - 1,
                  double{b.height()} - 1);
  stroke(cr, colour_of(layer), 1);
}

void PictureSketch::quad(std::string_view layer, const Quad& q) {
  polygon(impl_->canvas.get(), q);
  stroke(impl_->canvas.get(), faded(colour_of(layer), 0.9), 1);
}

void PictureSketch::point(std::string_view layer, Vec2 at) {
  circle(impl_->canvas.get(), double{at.x}, double{at.y}, 2.5);
  fill(impl_->canvas.get(), colour_of(layer));
}

void PictureSketch::label(std::string_view layer, Vec2 at, std::string_view text) {
  cairo_t* cr = impl_->canvas.get();
  // A dark ground keeps the words legible on paper and on green alike.
  const Lettering how{.size = 12, .bold = true};
  constexpr double height = 18;
  const Saved saved(cr);
  cairo_push_group(cr);
  const Extent extent = text_left(cr, text, 4, 13, how, colour_of(layer));
  cairo_pattern_t* words = cairo_pop_group(cr);
  // Above its point, so that it does not cover what begins there; inside the picture all the same.
  const double x = std::clamp(double{at.x}, 0.0, std::max(impl_->width - extent.width - 8, 0.0));
  cairo_translate(cr, x, std::max(double{at.y} - height - 1, 0.0));
  rounded_box(cr, 0, 0, extent.width + 8, height, 3);
  fill(cr, rgb(0x06140F, 0.8));
  cairo_set_source(cr, words);
  cairo_paint(cr);
  cairo_pattern_destroy(words);
}

}  // namespace apsidon
