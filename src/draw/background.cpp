#include "draw/background.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace apsidon::draw_detail {

void draw_background(cairo_t* cr, Size window) {
  const double w = double{window.width};
  const double h = double{window.height};
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
    cairo_arc(cr, w / 2 + i * bay, bay * 0.5, bay / 2, std::numbers::pi, 2 * std::numbers::pi);
  }
  stroke(cr, faded(palette::glass, 0.035), 1.5);
}

}  // namespace apsidon::draw_detail
