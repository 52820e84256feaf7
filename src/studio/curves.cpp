#include "apsidon/studio/curves.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "draw/background.hpp"
#include "draw/card_art.hpp"
#include "motion/spring_shares.hpp"

namespace apsidon {
namespace {

using namespace draw_detail;

constexpr int samples = 600;
constexpr std::array<Colour, 6> inks{rgb(0xE3B64A), rgb(0xA9E8DF), rgb(0xF2765B),
                                     rgb(0xC9A3F2), rgb(0x9BD770), rgb(0xF2A7C3)};

/// A part of the picture with its own scale.
struct Chart {
  Rect box;
  float seconds;
  float low, high;

  [[nodiscard]] Vec2 at(float t, float value) const {
    return {box.min.x + box.width() * t / seconds, box.max.y - box.height() * (value - low) / (high - low)};
  }
};

/// A step that makes about `parts` parts: 1, 2 or 5 times a power of ten.
float nice_step(float range, int parts) {
  const float rough = range / static_cast<float>(parts);
  const float power = std::pow(10.0f, std::floor(std::log10(std::max(rough, 1e-6f))));
  for (const float factor : {1.0f, 2.0f, 5.0f}) {
    if (power * factor >= rough) return power * factor;
  }
  return power * 10;
}

std::string tick(float value) {
  std::string text = fmt::format("{:.3f}", std::abs(value) < 1e-5f ? 0 : value);
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text;
}

void draw_grid(cairo_t* cr, const Chart& c, const std::string& title, bool with_times) {
  rounded_box(cr, double{c.box.min.x} - 8, double{c.box.min.y} - 8, double{c.box.width()} + 16,
              double{c.box.height()} + 16, 8);
  fill(cr, rgb(0x06140F, 0.35));
  const float step = nice_step(c.high - c.low, 5);
  for (float v = std::ceil(c.low / step) * step; v <= c.high + step * 1e-3f; v += step) {
    const Vec2 from = c.at(0, v);
    const bool strong = std::abs(v) < step / 100 || std::abs(v - 1) < step / 100;
    cairo_move_to(cr, double{from.x}, std::round(double{from.y}) + 0.5);
    cairo_line_to(cr, double{c.box.max.x}, std::round(double{from.y}) + 0.5);
    stroke(cr, faded(palette::glass, strong ? 0.35 : 0.12), 1);
    text_centred(cr, tick(v), double{c.box.min.x} - 34, double{from.y}, {.size = 13}, palette::caption);
  }
  const float time_step = nice_step(c.seconds, 8);
  for (float t = 0; t <= c.seconds * 1.001f; t += time_step) {
    const double x = std::round(double{c.at(t, c.low).x}) + 0.5;
    cairo_move_to(cr, x, double{c.box.min.y});
    cairo_line_to(cr, x, double{c.box.max.y});
    stroke(cr, faded(palette::glass, 0.12), 1);
    if (with_times) {
      text_centred(cr, tick(t) + " s", x, double{c.box.max.y} + 22, {.size = 13}, palette::caption);
    }
  }
  text_left(cr, title, double{c.box.min.x}, double{c.box.min.y} - 16,
            {.typeface = Typeface::serif, .size = 16}, palette::caption);
}

void draw_line(cairo_t* cr, const Chart& c, const PlottedCurve& curve, bool speed, Colour ink) {
  const Saved saved(cr);
  cairo_rectangle(cr, double{c.box.min.x} - 2, double{c.box.min.y} - 6, double{c.box.width()} + 8,
                  double{c.box.height()} + 12);
  cairo_clip(cr);
  const float length = facts_of(curve).settles;
  for (int i = 0; i <= samples; ++i) {
    const float t = c.seconds * static_cast<float>(i) / samples;
    const EasedValue p = point_of(curve, std::min(t, length));
    const Vec2 at = c.at(t, speed ? (t > length ? 0 : std::clamp(p.slope, c.low, c.high)) : p.value);
    if (i == 0) {
      cairo_move_to(cr, double{at.x}, double{at.y});
    } else {
      cairo_line_to(cr, double{at.x}, double{at.y});
    }
  }
  cairo_set_line_join(cr, CAIRO_LINE_JOIN_ROUND);
  stroke(cr, ink, 2.5);
}

}  // namespace

EasedValue point_of(const PlottedCurve& curve, float seconds) {
  if (curve.spring) {
    const auto s = motion_detail::shares_of(*curve.spring, seconds);
    return {1 - s.of_distance, -s.velocity_of_distance};
  }
  const EasedValue eased = curve.easing.at(seconds / curve.seconds);
  return {eased.value, eased.slope / curve.seconds};
}

CurveFacts facts_of(const PlottedCurve& curve) {
  CurveFacts facts;
  facts.settles = curve.spring ? motion_detail::settle_seconds(*curve.spring, 1, 0, 1e-3f) : curve.seconds;
  for (int i = 0; i <= samples * 4; ++i) {
    const EasedValue p = point_of(curve, facts.settles * static_cast<float>(i) / (samples * 4));
    facts.overshoot = std::max(facts.overshoot, p.value - 1);
    if (std::abs(p.slope) < 1e6f) facts.fastest = std::max(facts.fastest, std::abs(p.slope));
  }
  if (facts.overshoot < 1e-5f) facts.overshoot = 0;
  return facts;
}

Picture plot_curves(std::span<const PlottedCurve> curves, Size size, float pixel_ratio) {
  if (curves.empty()) throw Error("curves: none: at least one is expected");
  Picture picture(size, pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  cairo_t* cr = canvas.get();
  draw_background(cr, size);

  float seconds = 0;
  float low = 0;
  float high = 1;
  float fastest = 0;
  float slowest = 0;
  for (const PlottedCurve& curve : curves) {
    const CurveFacts facts = facts_of(curve);
    seconds = std::max(seconds, facts.settles);
    for (int i = 0; i <= samples; ++i) {
      const EasedValue p = point_of(curve, facts.settles * static_cast<float>(i) / samples);
      low = std::min(low, p.value);
      high = std::max(high, p.value);
      if (std::abs(p.slope) > 1e4f) continue;
      fastest = std::max(fastest, p.slope);
      slowest = std::min(slowest, p.slope);
    }
  }
  seconds = std::max(seconds, 1e-3f);
  const float margin = (high - low) * 0.06f;
  const float speed_margin = std::max((fastest - slowest) * 0.08f, 0.05f);

  // Down the picture: names, value, speed, and a strip of cards for each curve.
  const float left = 84;
  const float right = size.width - 40;
  const float names = 26 * static_cast<float>(curves.size()) + 40;
  const float strip = std::min(64.0f, 200 / static_cast<float>(curves.size()));
  const float strips = strip * static_cast<float>(curves.size());
  const float room = std::max(size.height - names - strips - 180, 60.0f);
  const Chart value{
      {{left, names + 26}, {right, names + 26 + room * 0.66f}}, seconds, low - margin, high + margin};
  const float speed_top = value.box.max.y + 52;
  const Chart speed{{{left, speed_top}, {right, speed_top + room * 0.34f}},
                    seconds,
                    slowest - speed_margin,
                    fastest + speed_margin};
  draw_grid(cr, value, "value: share of the way", false);
  draw_grid(cr, speed, "speed: shares of the way per second", true);
  for (std::size_t i = 0; i < curves.size(); ++i) {
    const Colour ink = inks[i % inks.size()];
    draw_line(cr, value, curves[i], false, ink);
    draw_line(cr, speed, curves[i], true, ink);
    const double y = 34 + 26 * static_cast<double>(i);
    cairo_move_to(cr, double{left}, y);
    cairo_line_to(cr, double{left} + 26, y);
    stroke(cr, ink, 3);
    const CurveFacts facts = facts_of(curves[i]);
    const Extent name =
        text_left(cr, curves[i].name, double{left} + 38, y + 5, {.size = 16, .bold = true}, palette::caption);
    text_left(cr,
              fmt::format("{} {:.2f} s, overshoot {:.1f} %, at most {:.2f} a second",
                          curves[i].spring ? "settles in" : "takes", facts.settles, facts.overshoot * 100,
                          facts.fastest),
              double{left} + 52 + name.width, y + 5, {.size = 14}, faded(palette::caption, 0.8));
  }

  // Where a card is at equal times: close together where it is slow.
  const float strips_top = size.height - strips - 24;
  for (std::size_t i = 0; i < curves.size(); ++i) {
    const float card_h = strip * 0.72f;
    const float card_w = card_h * 5 / 7;
    const float y = strips_top + strip * static_cast<float>(i);
    const float length = facts_of(curves[i]).settles;
    constexpr int cards = 14;
    for (int k = 0; k <= cards; ++k) {
      const EasedValue p = point_of(curves[i], length * static_cast<float>(k) / cards);
      const float way = ((right - left) * 0.92f - card_w) / std::max(high, 1.0f);
      const float x = left + (right - left) * 0.04f + way * p.value;
      rounded_box(cr, double{x}, double{y}, double{card_w}, double{card_h}, double{card_w} * 0.1);
      set_colour(cr, k == cards ? palette::paper : faded(palette::paper, 0.14));
      cairo_fill_preserve(cr);
      stroke(cr, faded(inks[i % inks.size()], k == cards ? 1.0 : 0.65), 1.5);
    }
  }
  return picture;
}

}  // namespace apsidon
