#include "draw/background.hpp"

#include <algorithm>
#include <cmath>
#include <memory>

namespace apsidon::draw_detail {

namespace {

/// The night: lighter behind the middle of the table.
void draw_night(cairo_t* cr, double w, double h) {
  const std::unique_ptr<cairo_pattern_t, decltype(&cairo_pattern_destroy)> night(
      cairo_pattern_create_radial(w / 2, h * 0.42, 0, w / 2, h * 0.42, std::hypot(w / 2, h * 0.58)),
      &cairo_pattern_destroy);
  const auto stop = [&](double at, Colour c) {
    cairo_pattern_add_color_stop_rgb(night.get(), at, c.r, c.g, c.b);
  };
  stop(0, palette::night_middle);
  stop(0.45, mixed(palette::night_middle, palette::night_edge, 0.25));
  stop(1, palette::night_edge);
  cairo_set_source(cr, night.get());
  cairo_paint(cr);
}

/// The same onto pixels: so even a gradient is drawn small and enlarged, which takes a sixth of the time of
/// drawing it large, where a resize waits for it.
void draw_night_in_pixels(cairo_t* cr, double w, double h) {
  constexpr double smaller = 4;
  const std::unique_ptr<cairo_surface_t, decltype(&cairo_surface_destroy)> small(
      cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(w / smaller) + 1,
                                 static_cast<int>(h / smaller) + 1),
      &cairo_surface_destroy);
  const Canvas on(cairo_create(small.get()));
  cairo_scale(on.get(), 1 / smaller, 1 / smaller);
  draw_night(on.get(), w, h);
  const Saved saved(cr);
  cairo_scale(cr, smaller, smaller);
  cairo_set_source_surface(cr, small.get(), 0, 0);
  cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_BILINEAR);
  cairo_pattern_set_extend(cairo_get_source(cr), CAIRO_EXTEND_PAD);
  cairo_paint(cr);
}

}  // namespace

void draw_background(cairo_t* cr, Size window) {
  if (window.empty()) return;
  const double w = double{window.width};
  const double h = double{window.height};
  const bool pixels = cairo_surface_get_type(cairo_get_target(cr)) == CAIRO_SURFACE_TYPE_IMAGE;
  pixels ? draw_night_in_pixels(cr, w, h) : draw_night(cr, w, h);

  // The panes: bars an equal distance apart, symmetric about the middle, and the arcs of the roof.
  const double bay = std::max(std::min(w, h) / 4, 60.0);
  const int bays = static_cast<int>(std::ceil(w / bay / 2)) + 1;
  for (int i = -bays; i <= bays; ++i) {
    cairo_move_to(cr, w / 2 + (i + 0.5) * bay, 0);
    cairo_line_to(cr, w / 2 + (i + 0.5) * bay, h);
  }
  for (double y = h - bay * 0.5; y > bay; y -= bay * 1.5) {
    cairo_move_to(cr, 0, y);
    cairo_line_to(cr, w, y);
  }
  stroke(cr, faded(palette::glass, 0.045), 1.5);
  for (int i = -bays; i <= bays; ++i) {
    cairo_new_sub_path(cr);
    cairo_arc(cr, w / 2 + i * bay, bay * 0.5, bay / 2, pi, 2 * pi);
  }
  stroke(cr, faded(palette::glass, 0.035), 1.5);
}

}  // namespace apsidon::draw_detail
