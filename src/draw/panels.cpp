#include "draw/panels.hpp"

#include <algorithm>

#include "apsidon/geometry/box.hpp"

namespace apsidon::draw_detail {
namespace {

constexpr double least_text = 12;  // px; never smaller outside a card

/// Words as large as the panel allows, but legible, and narrowed to its width.
Lettering lettering(const Rect& area, Typeface typeface, double share, double most) {
  return {.typeface = typeface,
          .size = std::clamp(double{area.height()} * share, least_text, most),
          .largest_width = std::max(double{area.width()} - 12, 8.0),
          .level = true};
}

void ground(cairo_t* cr, const Rect& r, double radius, Colour colour) {
  rounded_box(cr, double{r.min.x}, double{r.min.y}, double{r.width()}, double{r.height()}, radius);
  fill(cr, colour);
}

void rim(cairo_t* cr, const Rect& r, double radius, Colour colour) {
  rounded_box(cr, double{r.min.x} + 0.5, double{r.min.y} + 0.5, double{r.width()} - 1, double{r.height()} - 1,
              radius);
  stroke(cr, colour, 1);
}

/// A button has its tone in its ground, on which words have to be light; else they have it themselves.
Colour colour_of_words(const FramePanel& panel) {
  if (panel.kind == PanelKind::button) return rgb(0xFFFFFF);
  return panel.tone == PanelTone::good  ? palette::aqua
         : panel.tone == PanelTone::bad ? palette::coral
                                        : palette::caption;
}

void words(cairo_t* cr, const FramePanel& panel, const Lettering& how) {
  const Colour full = colour_of_words(panel);
  const Colour colour = panel.off ? faded(full, 0.4) : full;
  const Vec2 middle = panel.area.centre();
  text_centred(cr, panel.text, double{middle.x}, double{middle.y}, how, colour);
}

/// A bar with its words beside it where there is room, else without.
void draw_bar(cairo_t* cr, const FramePanel& panel) {
  const Rect& a = panel.area;
  Rect bar = a;
  const Lettering how{.size = std::clamp(double{a.height()} * 0.8, least_text, 16.0)};
  if (!panel.text.empty() && double{a.height()} >= least_text && a.width() > 160) {
    const Extent words = text_left(cr, panel.text, double{a.min.x}, double{a.centre().y} + how.size * 0.34,
                                   how, palette::caption);
    bar.min.x += static_cast<float>(words.width) + 12;
  }
  const float height = std::min(bar.height(), 12.0f);
  bar = {{bar.min.x, bar.centre().y - height / 2}, {bar.max.x, bar.centre().y + height / 2}};
  const double radius = double{height} / 2;
  ground(cr, bar, radius, rgb(0x06140F, 0.5));
  const Rect full = filled(bar, panel.fill);
  if (full.width() >= height) ground(cr, full, radius, palette::gold);
  rim(cr, bar, radius, faded(palette::glass, 0.35));
}

Colour button_of(PanelTone tone) {
  return tone == PanelTone::good ? rgb(0x2E7A5C) : tone == PanelTone::bad ? rgb(0x8A3B2B) : rgb(0x2C5A4B);
}

}  // namespace

void draw_glow(cairo_t* cr, const Rect& r, double radius) {
  constexpr int steps = 4;
  for (int i = 0; i < steps; ++i) {
    const Rect wider = grown(r, static_cast<float>(i));
    rounded_box(cr, double{wider.min.x}, double{wider.min.y}, double{wider.width()}, double{wider.height()},
                radius + i);
    stroke(cr, faded(palette::gold, 0.9 * (steps - i) / steps), 1.2);
  }
}

void draw_badge(cairo_t* cr, std::string_view text, double w, double h) {
  const double rim = std::max(h * 0.06, 1.0);
  rounded_box(cr, rim / 2, rim / 2, w - rim, h - rim, (h - rim) / 2);
  set_colour(cr, palette::plum);
  cairo_fill_preserve(cr);
  stroke(cr, palette::paper, rim);
  const Lettering how{.size = h * 0.62, .bold = true, .largest_width = w - h * 0.3, .level = true};
  text_centred(cr, text, w / 2, h / 2, how, palette::paper);
}

void draw_panel(cairo_t* cr, const FramePanel& panel) {
  const Rect& a = panel.area;
  if (a.width() < 4 || a.height() < 4) return;
  const double round = std::min(double{a.height()}, double{a.width()}) / 2;
  const double radius = panel.round ? round : std::min(round, 8.0);
  if (panel.glows) draw_glow(cr, a, radius);
  if (panel.overlay && panel.kind != PanelKind::button && panel.kind != PanelKind::caption) {
    ground(cr, a, radius, rgb(0x06140F, 0.94));
    rim(cr, a, radius, faded(palette::glass, 0.45));
  }
  switch (panel.kind) {
    case PanelKind::caption:
      return words(cr, panel, lettering(a, Typeface::serif, 0.6, 30));
    case PanelKind::counter:
      if (!panel.overlay) ground(cr, a, radius, rgb(0x06140F, 0.35));
      return words(cr, panel, lettering(a, Typeface::plain, 0.5, 18));
    case PanelKind::button:
      ground(cr, a, radius, panel.off ? rgb(0x2C5A4B, 0.45) : button_of(panel.tone));
      rim(cr, a, radius, panel.focus ? palette::gold : faded(palette::glass, 0.5));
      return words(cr, panel, lettering(a, Typeface::plain, 0.5, 18));
    case PanelKind::bar:
      return draw_bar(cr, panel);
    case PanelKind::box:
      return words(cr, panel, lettering(a, Typeface::plain, 0.5, 18));
  }
}

}  // namespace apsidon::draw_detail
