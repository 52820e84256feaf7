#include "draw/plants.hpp"

#include <cmath>

namespace apsidon::draw_detail {
namespace {

struct Point {
  double x, y;
};

Point along(Point p, double angle, double distance) {
  return {p.x + std::cos(angle) * distance, p.y + std::sin(angle) * distance};
}

/// A leaf from `root`, pointing to `angle` (0: right, clockwise), as a path.
void leaf(cairo_t* cr, Point root, double angle, double length, double width) {
  const Point tip = along(root, angle, length);
  const Point middle = along(root, angle, length * 0.45);
  const Point left = along(middle, angle - pi / 2, width * 0.66);
  const Point right = along(middle, angle + pi / 2, width * 0.66);
  cairo_move_to(cr, root.x, root.y);
  cairo_curve_to(cr, left.x, left.y, left.x, left.y, tip.x, tip.y);
  cairo_curve_to(cr, right.x, right.y, right.x, right.y, root.x, root.y);
  cairo_close_path(cr);
}

/// A quadratic curve, for stems that bend.
struct Stem {
  Point root, bend, tip;

  Point at(double t) const {
    const double s = 1 - t;
    return {s * s * root.x + 2 * s * t * bend.x + t * t * tip.x,
            s * s * root.y + 2 * s * t * bend.y + t * t * tip.y};
  }
  double angle(double t) const {
    const double dx = (1 - t) * (bend.x - root.x) + t * (tip.x - bend.x);
    const double dy = (1 - t) * (bend.y - root.y) + t * (tip.y - bend.y);
    return std::atan2(dy, dx);
  }
  void draw(cairo_t* cr, Colour colour, double width) const {
    cairo_move_to(cr, root.x, root.y);
    cairo_curve_to(cr, root.x + (bend.x - root.x) * 2 / 3, root.y + (bend.y - root.y) * 2 / 3,
                   tip.x + (bend.x - tip.x) * 2 / 3, tip.y + (bend.y - tip.y) * 2 / 3, tip.x, tip.y);
    cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
    stroke(cr, colour, width);
  }
};

/// A fern's frond along a stem: leaflets in pairs that shorten toward the tip.
void frond(cairo_t* cr, const Stem& stem, double breadth, int pairs, const Ink& ink) {
  stem.draw(cr, ink.main, breadth * 0.09);
  for (int i = 0; i < pairs; ++i) {
    const double share = static_cast<double>(i) / pairs;
    const double t = 0.2 + 0.78 * share;
    const double swell = std::sin(pi * (0.22 + 0.76 * (1 - share))) * 0.3 + (1 - share) * 0.7;
    const double length = breadth * 0.62 * swell;
    for (const double side : {-1.0, 1.0}) {
      leaf(cr, stem.at(t), stem.angle(t) + side * (1.12 - 0.3 * share), length, breadth * 0.8 / pairs);
    }
  }
  leaf(cr, stem.at(0.94), stem.angle(1), breadth * 0.2, breadth * 0.12);
  fill(cr, ink.main);
}

/// The brown head of a reed, on a stem that goes on above it as a needle.
void reed_head(cairo_t* cr, Point root, Point tip, double thickness, const Ink& ink) {
  const Point head_low{root.x + (tip.x - root.x) * 0.52, root.y + (tip.y - root.y) * 0.52};
  const Point head_high{root.x + (tip.x - root.x) * 0.86, root.y + (tip.y - root.y) * 0.86};
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  cairo_move_to(cr, root.x, root.y);
  cairo_line_to(cr, tip.x, tip.y);
  stroke(cr, ink.main, thickness * 0.26);
  cairo_move_to(cr, head_low.x, head_low.y);
  cairo_line_to(cr, head_high.x, head_high.y);
  stroke(cr, ink.main, thickness);
}

/// A blade of grass: a slender crescent.
void blade(cairo_t* cr, Point root, Point bend, Point tip, double width, Colour colour) {
  cairo_move_to(cr, root.x - width / 2, root.y);
  cairo_curve_to(cr, bend.x - width / 2, bend.y, bend.x - width / 4, bend.y, tip.x, tip.y);
  cairo_curve_to(cr, bend.x + width * 0.75, bend.y + width * 0.4, bend.x + width / 2, bend.y,
                 root.x + width / 2, root.y);
  cairo_close_path(cr);
  fill(cr, colour);
}

/// A poppy seen from the side: a cup of broad petals, the seed pod showing in it.
void cup(cairo_t* cr, Point base, double size, const Ink& ink) {
  const auto at = [&](double x, double y) { return Point{base.x + x * size, base.y + y * size}; };
  const auto curve = [&](Point a, Point b, Point c) { cairo_curve_to(cr, a.x, a.y, b.x, b.y, c.x, c.y); };
  const Point start = at(0, 0);
  cairo_move_to(cr, start.x, start.y);
  curve(at(-0.34, 0.0), at(-0.62, -0.26), at(-0.52, -0.58));
  curve(at(-0.47, -0.78), at(-0.3, -0.86), at(-0.17, -0.72));
  curve(at(-0.1, -0.86), at(0.1, -0.86), at(0.17, -0.72));
  curve(at(0.3, -0.86), at(0.47, -0.78), at(0.52, -0.58));
  curve(at(0.62, -0.26), at(0.34, 0.0), start);
  cairo_close_path(cr);
  fill(cr, ink.main);
  // Petal edges, and the pod, as gaps in the ink.
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  for (const double side : {-1.0, 1.0}) {
    const Point low = at(side * 0.06, -0.1);
    cairo_move_to(cr, low.x, low.y);
    curve(at(side * 0.26, -0.24), at(side * 0.27, -0.48), at(side * 0.19, -0.66));
  }
  stroke(cr, ink.paper, size * 0.055);
}

/// A marigold seen from above: a disc with a scalloped edge, ring in ring.
void rosette(cairo_t* cr, Point c, double radius, int petals, const Ink& ink) {
  const double bump = radius * std::sin(pi / petals) * 1.12;
  const double ring = radius - bump;
  circle(cr, c.x, c.y, ring);
  for (int i = 0; i < petals; ++i) {
    const Point p = along(c, 2 * pi * i / petals - pi / 2, ring);
    circle(cr, p.x, p.y, bump);
  }
  cairo_set_fill_rule(cr, CAIRO_FILL_RULE_WINDING);
  fill(cr, ink.main);
  const int inner = petals - 3;
  const double inner_ring = radius * 0.5;
  for (int i = 0; i < inner; ++i) {
    const double a = 2 * pi * i / inner - pi / 2;
    const Point p = along(c, a, inner_ring);
    cairo_new_sub_path(cr);
    cairo_arc(cr, p.x, p.y, radius * 0.19, a - 1.5, a + 1.5);
  }
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  stroke(cr, ink.paper, radius * 0.085);
  circle(cr, c.x, c.y, radius * 0.2);
  fill(cr, ink.paper);
}

void draw_fern(cairo_t* cr, double h, const Ink& ink) {
  for (const double reach : {-0.44, 0.44, -0.27, 0.27, 0.0}) {
    const double rise = 1 - std::abs(reach) * 0.95;
    const Stem stem{
        {reach * 0.06, 0}, {reach * 0.35, -h * rise * 0.75}, {reach, -h * (rise - std::abs(reach) * 0.25)}};
    frond(cr, stem, 0.27 - std::abs(reach) * 0.1, 9, ink);
  }
}

void draw_reeds(cairo_t* cr, double h, const Ink& ink) {
  blade(cr, {-0.05, 0}, {-0.16, -h * 0.5}, {-0.48, -h * 0.6}, 0.06, ink.stalk);
  blade(cr, {0.06, 0}, {0.18, -h * 0.45}, {0.46, -h * 0.5}, 0.06, ink.stalk);
  blade(cr, {-0.02, 0}, {-0.1, -h * 0.6}, {-0.27, -h * 0.86}, 0.06, ink.stalk);
  blade(cr, {0.03, 0}, {0.12, -h * 0.6}, {0.3, -h * 0.9}, 0.06, ink.stalk);
  reed_head(cr, {-0.03, 0}, {-0.17, -h * 0.8}, 0.085, ink);
  reed_head(cr, {0.0, 0}, {0.02, -h}, 0.095, ink);
  reed_head(cr, {0.03, 0}, {0.2, -h * 0.7}, 0.085, ink);
}

void draw_poppies(cairo_t* cr, double h, const Ink& ink) {
  const Stem stems[] = {{{0, 0}, {0.03, -h * 0.4}, {0, -h * 0.72}},
                        {{-0.02, 0}, {-0.04, -h * 0.3}, {-0.27, -h * 0.5}},
                        {{0.02, 0}, {0.05, -h * 0.28}, {0.27, -h * 0.44}}};
  for (const Stem& stem : stems) stem.draw(cr, ink.stalk, 0.024);
  for (const double side : {-1.0, 1.0}) {
    for (int i = 0; i < 3; ++i) {
      leaf(cr, {side * 0.01, -h * 0.02 - i * h * 0.05}, -pi / 2 + side * (1.35 - i * 0.22), 0.34 - i * 0.06,
           0.09);
    }
  }
  fill(cr, ink.stalk);
  cup(cr, stems[1].tip, 0.3, ink);
  cup(cr, stems[2].tip, 0.27, ink);
  cup(cr, stems[0].tip, 0.38, ink);
}

void draw_marigolds(cairo_t* cr, double h, const Ink& ink) {
  struct Bloom {
    Point at;
    double radius;
  };
  const Bloom blooms[] = {{{-0.3, -h * 0.5}, 0.14},
                          {{0.31, -h * 0.46}, 0.13},
                          {{-0.15, -h * 0.82}, 0.13},
                          {{0.2, -h * 0.78}, 0.14},
                          {{0.0, -h * 0.58}, 0.18}};
  for (const Bloom& b : blooms) {
    const Stem stem{{b.at.x * 0.08, 0}, {b.at.x * 0.2, b.at.y * 0.6}, b.at};
    stem.draw(cr, ink.stalk, 0.024);
    const Point p = stem.at(0.45);
    leaf(cr, p, stem.angle(0.45) - 0.9, 0.17, 0.06);
    leaf(cr, stem.at(0.3), stem.angle(0.3) + 0.9, 0.17, 0.06);
    fill(cr, ink.stalk);
  }
  for (const Bloom& b : blooms) {
    circle(cr, b.at.x, b.at.y, b.radius * 1.07);
    fill(cr, ink.paper);
    rosette(cr, b.at, b.radius, 12, ink);
  }
}

}  // namespace

void draw_mark(cairo_t* cr, Plant plant, double x, double y, double size, const Ink& ink) {
  const Saved saved(cr);
  cairo_translate(cr, x, y);
  cairo_scale(cr, size, size);
  switch (plant) {
    case Plant::fern:
      frond(cr, {{0, 0.5}, {0, 0.1}, {0, -0.42}}, 0.92, 4, ink);
      break;
    case Plant::reed:
      blade(cr, {0, 0.5}, {-0.24, 0.3}, {-0.4, -0.16}, 0.14, ink.main);
      blade(cr, {0, 0.5}, {0.2, 0.3}, {0.4, 0.0}, 0.14, ink.main);
      reed_head(cr, {0, 0.46}, {0, -0.49}, 0.25, ink);
      break;
    case Plant::poppy: {
      const Stem stem{{0.06, 0.48}, {0.03, 0.3}, {0, 0.1}};
      stem.draw(cr, ink.main, 0.09);
      leaf(cr, {0.05, 0.44}, -0.75, 0.34, 0.16);
      fill(cr, ink.main);
      cup(cr, {0, 0.18}, 0.84, ink);
      break;
    }
    case Plant::marigold:
      rosette(cr, {0, 0}, 0.5, 10, ink);
      break;
  }
}

void draw_sprig(cairo_t* cr, Plant plant, double x, double y, double height, const Ink& ink) {
  const Saved saved(cr);
  cairo_translate(cr, x, y);
  cairo_scale(cr, height, height);
  switch (plant) {
    case Plant::fern:
      frond(cr, {{-0.05, 0.5}, {-0.1, 0.0}, {0.08, -0.45}}, 0.68, 7, ink);
      break;
    case Plant::reed:
      blade(cr, {0, 0.5}, {-0.17, 0.25}, {-0.28, -0.22}, 0.085, ink.stalk);
      blade(cr, {0, 0.5}, {0.14, 0.28}, {0.29, -0.06}, 0.085, ink.stalk);
      reed_head(cr, {0, 0.48}, {0.01, -0.5}, 0.17, ink);
      break;
    case Plant::poppy: {
      const Stem stem{{-0.03, 0.5}, {0.03, 0.3}, {0, -0.02}};
      stem.draw(cr, ink.stalk, 0.05);
      leaf(cr, {-0.02, 0.42}, -0.5, 0.28, 0.12);
      leaf(cr, {-0.02, 0.46}, pi + 0.6, 0.24, 0.1);
      fill(cr, ink.stalk);
      cup(cr, {0, 0.06}, 0.6, ink);
      break;
    }
    case Plant::marigold: {
      const Stem stem{{0.03, 0.5}, {-0.03, 0.3}, {0, -0.1}};
      stem.draw(cr, ink.stalk, 0.05);
      leaf(cr, {0.01, 0.4}, -0.55, 0.3, 0.12);
      leaf(cr, {0.01, 0.44}, pi + 0.55, 0.28, 0.11);
      fill(cr, ink.stalk);
      rosette(cr, {0, -0.2}, 0.3, 11, ink);
      break;
    }
  }
}

void draw_plant(cairo_t* cr, Plant plant, double x, double y, double width, double height, const Ink& ink) {
  const Saved saved(cr);
  cairo_translate(cr, x, y);
  cairo_scale(cr, width, width);
  const double h = height / width;
  switch (plant) {
    case Plant::fern:
      draw_fern(cr, h, ink);
      break;
    case Plant::reed:
      draw_reeds(cr, h, ink);
      break;
    case Plant::poppy:
      draw_poppies(cr, h, ink);
      break;
    case Plant::marigold:
      draw_marigolds(cr, h, ink);
      break;
  }
}

}  // namespace apsidon::draw_detail
