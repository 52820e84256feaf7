#include "draw/stages.hpp"

#include <algorithm>
#include <cmath>

#include "apsidon/draw/paint.hpp"

namespace apsidon::draw_detail {
namespace {

/// An almond from (x, y) along an angle; blunt ones have their widest place further out.
void almond(cairo_t* cr, double x, double y, double angle, double length, double breadth, double blunt) {
  const Saved saved(cr);
  cairo_translate(cr, x, y);
  cairo_rotate(cr, angle);
  cairo_move_to(cr, 0, 0);
  cairo_curve_to(cr, length * 0.3, -breadth, length * blunt, -breadth, length, 0);
  cairo_curve_to(cr, length * blunt, breadth, length * 0.3, breadth, 0, 0);
  cairo_close_path(cr);
}

void stem(cairo_t* cr, double bottom, double top, double bend, const Ink& ink) {
  cairo_move_to(cr, 0, bottom);
  cairo_curve_to(cr, bend, bottom - (bottom - top) * 0.4, -bend, bottom - (bottom - top) * 0.7, 0, top);
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  stroke(cr, ink.stalk, 0.035);
}

void leaves(cairo_t* cr, int suit, double bottom, double top, const Ink& ink) {
  const int pairs = 1 + suit % 3;
  const double breadth = 0.05 + 0.022 * (suit % 4);
  const double rise = 0.35 + 0.18 * (suit % 5);
  for (int i = 0; i < pairs; ++i) {
    const double y = bottom + (top - bottom) * (0.25 + 0.6 * i / pairs);
    const double length = 0.3 - 0.06 * i;
    for (const double side : {-1.0, 1.0}) {
      almond(cr, 0, y, side > 0 ? -rise : pi + rise, length, breadth, suit % 2 == 0 ? 0.65 : 0.85);
      fill(cr, ink.stalk);
    }
  }
}

/// A seed: a drop, a bean or a disc, with the markings of its kind.
void draw_seed(cairo_t* cr, int suit, const Ink& ink) {
  const double breadth = 0.13 + 0.035 * (suit % 4);
  const double length = suit % 3 == 2 ? 2.4 * breadth : 0.62;
  almond(cr, 0, length / 2, -pi / 2, length, breadth * 1.35, suit % 2 == 0 ? 0.95 : 0.7);
  fill(cr, ink.main);
  const int stripes = 1 + (suit * 2) % 5;
  for (int i = 0; i < stripes; ++i) {
    const double x = (i - (stripes - 1) / 2.0) * breadth * 0.5;
    cairo_move_to(cr, x, length * 0.18);
    cairo_curve_to(cr, x * 1.6, 0, x * 1.4, -length * 0.1, x * 0.5, -length * 0.26);
  }
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  stroke(cr, ink.paper, 0.02);
}

void draw_sprout(cairo_t* cr, int suit, const Ink& ink) {
  stem(cr, 0.42, -0.16, 0.05 * (suit % 3 - 1), ink);
  const double rise = 0.25 + 0.12 * (suit % 4);
  for (const double side : {-1.0, 1.0}) {
    almond(cr, 0, -0.14, side > 0 ? -rise : pi + rise, 0.4, 0.1 + 0.025 * (suit % 4),
           suit % 2 == 0 ? 0.7 : 0.95);
    fill(cr, ink.main);
  }
  almond(cr, 0, -0.14, -pi / 2, 0.2, 0.045, 0.6);
  fill(cr, ink.stalk);
}

void draw_bloom(cairo_t* cr, int suit, const Ink& ink) {
  stem(cr, 0.48, -0.1, 0.06, ink);
  leaves(cr, suit, 0.46, 0.0, ink);
  const int petals = 4 + suit % 7;
  const double length = 0.36;
  const double breadth = std::min(0.17, 1.25 / petals) * (suit % 3 == 1 ? 0.7 : 1);
  for (int i = 0; i < petals; ++i) {
    almond(cr, 0, -0.16, 2 * pi * i / petals - pi / 2, length, breadth, suit % 2 == 0 ? 0.95 : 0.6);
    fill(cr, ink.main);
  }
  for (int i = 0; i < petals; ++i) {
    almond(cr, 0, -0.16, 2 * pi * i / petals - pi / 2, length, breadth, suit % 2 == 0 ? 0.95 : 0.6);
  }
  stroke(cr, ink.paper, 0.014);
  circle(cr, 0, -0.16, 0.1);
  fill(cr, ink.paper);
  circle(cr, 0, -0.16, 0.065);
  fill(cr, ink.stalk);
}

}  // namespace

void draw_stage(cairo_t* cr, const Stage& stage, const std::string& plant, const std::string& name,
                const Ink& ink, double w, double h) {
  const bool narrow = w < double{compact_width};
  {
    const Saved saved(cr);
    const double size = narrow ? std::min(w, h) * 0.86 : std::min(w * 0.86, h * 0.56);
    cairo_translate(cr, w / 2, narrow ? h / 2 : h * 0.49);
    cairo_scale(cr, size, size);
    if (stage.rank == 0) {
      draw_seed(cr, stage.suit, ink);
    } else if (stage.rank + 1 < stage.ranks) {
      draw_sprout(cr, stage.suit, ink);
    } else {
      draw_bloom(cr, stage.suit, ink);
    }
  }
  if (narrow) return;
  const double size = std::clamp(0.155 * w, 12.0, 40.0);
  text_centred(cr, plant, w / 2, 0.12 * h,
               {.typeface = Typeface::serif, .size = size, .bold = true, .largest_width = 0.86 * w},
               ink.main);
  text_centred(cr, name, w / 2, 0.895 * h,
               {.typeface = Typeface::serif, .size = size * 0.86, .largest_width = 0.86 * w}, ink.stalk);
}

}  // namespace apsidon::draw_detail
