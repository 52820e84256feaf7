#include <pango/pango.h>
#include <algorithm>

#include <array>
#include <cmath>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/draw/paint.hpp"
#include "draw/card_art.hpp"
#include "draw/spots.hpp"
#include "draw/stages.hpp"

namespace apsidon::draw_detail {
namespace {

void draw_sprigs(cairo_t* cr, const SuitStyle& style, int count, double w, double h) {
  const double height = count > 10   ? 0.17 * w
                        : count == 2 ? 0.36 * w
                        : count == 3 ? 0.31 * w
                        : count <= 6 ? 0.28 * w
                                     : 0.235 * w;
  // The field lies between the two corner marks and keeps clear of both.
  const double reach_x = count <= 6 ? 0.225 * w : 0.215 * w;
  const double reach_y = 0.385 * h - height * 0.3;
  for (const Spot& spot : spots_of(count)) {
    draw_sprig(cr, style.plant, w / 2 + spot.x * reach_x, h / 2 + spot.y * reach_y, height, style.ink);
  }
}

/// A clay pot with its rim, the soil line at (x, y).
void draw_pot(cairo_t* cr, double x, double y, double w, double h, const Ink& ink) {
  const Colour clay = palette::clay;
  cairo_move_to(cr, x - w * 0.42, y + h * 0.2);
  cairo_line_to(cr, x - w * 0.3, y + h);
  cairo_line_to(cr, x + w * 0.3, y + h);
  cairo_line_to(cr, x + w * 0.42, y + h * 0.2);
  fill(cr, clay);
  rounded_box(cr, x - w / 2, y, w, h * 0.26, h * 0.05);
  fill(cr, mixed(clay, ink.paper, 0.14));
  cairo_move_to(cr, x - w * 0.42, y + h * 0.29);
  cairo_line_to(cr, x + w * 0.42, y + h * 0.29);
  stroke(cr, mixed(clay, rgb(0x000000), 0.3), h * 0.045);
}

/// A glass bell over (x, y), its base line there.
void draw_bell(cairo_t* cr, double x, double y, double w, double h, const Ink& ink) {
  const Colour line = mixed(ink.main, ink.paper, 0.25);
  const double top = y - h;
  cairo_move_to(cr, x - w / 2, y);
  cairo_line_to(cr, x - w / 2, top + w * 0.5);
  cairo_curve_to(cr, x - w / 2, top + w * 0.12, x - w * 0.26, top, x, top);
  cairo_curve_to(cr, x + w * 0.26, top, x + w / 2, top + w * 0.12, x + w / 2, top + w * 0.5);
  cairo_line_to(cr, x + w / 2, y);
  cairo_close_path(cr);
  set_colour(cr, faded(ink.main, 0.06));
  cairo_fill_preserve(cr);
  stroke(cr, line, w * 0.022);
  circle(cr, x, top - w * 0.05, w * 0.05);
  fill(cr, line);
  rounded_box(cr, x - w * 0.55, y, w * 1.1, w * 0.07, w * 0.03);
  fill(cr, line);
  cairo_move_to(cr, x - w * 0.39, top + w * 0.56);
  cairo_curve_to(cr, x - w * 0.39, top + w * 0.3, x - w * 0.3, top + w * 0.19, x - w * 0.2, top + w * 0.13);
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  stroke(cr, faded(line, 0.45), w * 0.02);
}

/// An arched window of a glasshouse with its panes; the sill at (x, y).
void draw_arch(cairo_t* cr, double x, double y, double w, double h, const Ink& ink) {
  const Colour line = mixed(ink.main, ink.paper, 0.35);
  const double spring = y - h + w / 2;  // where the arch begins
  const auto outline = [&] {
    cairo_new_sub_path(cr);
    cairo_move_to(cr, x - w / 2, y);
    cairo_line_to(cr, x - w / 2, spring);
    cairo_arc(cr, x, spring, w / 2, pi, 2 * pi);
    cairo_line_to(cr, x + w / 2, y);
    cairo_close_path(cr);
  };
  outline();
  fill(cr, faded(ink.main, 0.08));
  {
    const Saved saved(cr);
    outline();
    cairo_clip(cr);
    for (const double share : {-0.167, 0.167}) {
      cairo_move_to(cr, x + share * w, y);
      cairo_line_to(cr, x + share * w, spring);
    }
    for (double at = spring; at < y; at += w / 3) {
      cairo_move_to(cr, x - w / 2, at);
      cairo_line_to(cr, x + w / 2, at);
    }
    for (const double angle : {-150.0, -120.0, -90.0, -60.0, -30.0}) {
      const double a = angle * pi / 180;
      cairo_move_to(cr, x + std::cos(a) * w / 6, spring + std::sin(a) * w / 6);
      cairo_line_to(cr, x + std::cos(a) * w / 2, spring + std::sin(a) * w / 2);
    }
    cairo_new_sub_path(cr);
    cairo_arc(cr, x, spring, w / 6, pi, 2 * pi);
    stroke(cr, faded(line, 0.4), w * 0.014);
  }
  outline();
  stroke(cr, line, w * 0.028);
  rounded_box(cr, x - w * 0.52, y, w * 1.04, w * 0.06, w * 0.02);
  fill(cr, line);
}

/// Fine roots spreading down from (x, y).
void draw_roots(cairo_t* cr, double x, double y, double size, const Ink& ink) {
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  for (const double spread : {-0.5, -0.24, 0.02, 0.27, 0.52}) {
    cairo_move_to(cr, x, y);
    cairo_curve_to(cr, x + spread * size * 0.25, y + size * 0.28, x + spread * size * 0.9, y + size * 0.16,
                   x + spread * size, y + size * (0.5 - std::abs(spread) * 0.4));
  }
  stroke(cr, ink.stalk, size * 0.035);
}

/// The lowest rank is a single plant with its roots; the highest three stand in a pot, under glass, in an
/// arch.
void draw_specimen(cairo_t* cr, const SuitStyle& style, int from_top, double w, double h) {
  const double x = w / 2;
  switch (from_top) {
    case 2:
      draw_plant(cr, style.plant, x, h * 0.64, w * 0.6, h * 0.44, style.ink);
      draw_pot(cr, x, h * 0.63, w * 0.34, h * 0.19, style.ink);
      break;
    case 1:
      draw_bell(cr, x, h * 0.8, w * 0.5, h * 0.6, style.ink);
      draw_plant(cr, style.plant, x, h * 0.8, w * 0.44, h * 0.5, style.ink);
      break;
    case 0:
      draw_arch(cr, x, h * 0.83, w * 0.53, h * 0.68, style.ink);
      draw_plant(cr, style.plant, x, h * 0.68, w * 0.5, h * 0.44, style.ink);
      draw_pot(cr, x, h * 0.67, w * 0.29, h * 0.16, style.ink);
      break;
    default:
      draw_roots(cr, x, h * 0.7, w * 0.32, style.ink);
      draw_sprig(cr, style.plant, x, h * 0.46, w * 0.68, style.ink);
      break;
  }
}

/// Letters that go below the line, as J and Q, are as high as the others.
void draw_corner(cairo_t* cr, const SuitStyle& style, const std::string& rank, double w) {
  const double x = 0.14 * w;
  text_centred(cr, rank, x, 0.142 * w,
               {.typeface = Typeface::serif,
                .size = 0.29 * w,
                .bold = true,
                .largest_width = 0.2 * w,
                .largest_height = 0.24 * w},
               style.ink.main);
  draw_mark(cr, style.plant, x, 0.332 * w, 0.15 * w, style.ink);
}

/// Rank and suit side by side along the top, where they stay visible in a strip, and one large mark.
void draw_compact(cairo_t* cr, const SuitStyle& style, const std::string& rank, double w, double h) {
  text_centred(cr, rank, 0.3 * w, 0.225 * w,
               {.typeface = Typeface::serif,
                .size = 0.48 * w,
                .bold = true,
                .largest_width = 0.44 * w,
                .largest_height = 0.385 * w},
               style.ink.main);
  draw_mark(cr, style.plant, 0.745 * w, 0.225 * w, 0.33 * w, style.ink);
  draw_mark(cr, style.plant, 0.43 * w, 0.42 * w + (h - 0.42 * w) / 2, 0.62 * w, style.ink);  // in a hand, too
}

void draw_paper(cairo_t* cr, double w, double h, double radius) {
  rounded_box(cr, 0, 0, w, h, radius);
  const std::unique_ptr<cairo_pattern_t, decltype(&cairo_pattern_destroy)> light(
      cairo_pattern_create_linear(0, 0, w * 0.3, h), &cairo_pattern_destroy);
  const Colour low = mixed(palette::paper, palette::rim, 0.16);
  cairo_pattern_add_color_stop_rgb(light.get(), 0, palette::paper.r, palette::paper.g, palette::paper.b);
  cairo_pattern_add_color_stop_rgb(light.get(), 0.6, palette::paper.r, palette::paper.g, palette::paper.b);
  cairo_pattern_add_color_stop_rgb(light.get(), 1, low.r, low.g, low.b);
  cairo_set_source(cr, light.get());
  cairo_fill(cr);
}

/// One device pixel, whatever the scale; drawn inside the card.
void draw_rim(cairo_t* cr, double w, double h, double radius, Colour colour) {
  double px = 1;
  double unused = 0;
  cairo_device_to_user_distance(cr, &px, &unused);
  px = std::clamp(std::hypot(px, unused), 0.1, 1.0);
  rounded_box(cr, px / 2, px / 2, w - px, h - px, radius - px / 2);
  stroke(cr, colour, px);
}

/// The commonest colours of suits as inks that stand beside one another on paper, and any other that has a
/// name in CSS or is "#rrggbb".
std::optional<Colour> colour_named(const std::string& name) {
  if (name == "green") return palette::green;
  if (name == "orange") return palette::orange;
  if (name == "red") return palette::red;
  if (name == "black") return palette::black;
  PangoColor found{};
  if (name.empty() || !pango_color_parse(&found, name.c_str())) return std::nullopt;
  return Colour{found.red / 65535.0, found.green / 65535.0, found.blue / 65535.0};
}

/// A joker: its name, and rays of light in its colour.
void draw_joker(cairo_t* cr, const Deck& deck, FaceId face, double w, double h) {
  Colour ink = palette::plum;
  for (const Joker& joker : deck.options().jokers) {
    if (joker.name == deck.text(face)) ink = colour_named(joker.colour).value_or(ink);
  }
  for (int suit = 0; suit < deck.suit_count(); ++suit) {
    if (deck.colour_of(deck.face(suit, 0)) == deck.colour_of(face)) ink = style_of(deck, suit).ink.main;
  }
  constexpr int rays = 12;
  for (int i = 0; i < rays; ++i) {
    const double a = 2 * pi * i / rays;
    cairo_move_to(cr, w / 2 + std::cos(a) * w * 0.12, h / 2 + std::sin(a) * w * 0.12);
    cairo_line_to(cr, w / 2 + std::cos(a) * w * (i % 2 == 0 ? 0.32 : 0.24),
                  h / 2 + std::sin(a) * w * (i % 2 == 0 ? 0.32 : 0.24));
  }
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  stroke(cr, ink, 0.03 * w);
  circle(cr, w / 2, h / 2, 0.075 * w);
  fill(cr, ink);
  const Lettering how{.typeface = Typeface::serif, .size = 0.2 * w, .bold = true, .largest_width = 0.84 * w};
  text_centred(cr, deck.text(face), w / 2, 0.15 * h, how, ink);
  const Saved saved(cr);
  cairo_translate(cr, w, h);
  cairo_rotate(cr, pi);
  text_centred(cr, deck.text(face), w / 2, 0.15 * h, how, ink);
}

}  // namespace

SuitStyle style_of(const Deck& deck, int suit) {
  const auto& suits = deck.options().suits;
  const Suit& s = suits[static_cast<std::size_t>(suit)];
  SuitStyle style;
  static constexpr std::array<std::string_view, 4> names{"fern", "reed", "poppy", "marigold"};
  const auto known = std::find(names.begin(), names.end(), s.name);
  const auto index = known != names.end() ? known - names.begin() : suit % 4;
  style.plant = static_cast<Plant>(index);
  static constexpr std::array<Colour, 4> by_index{palette::green, palette::orange, palette::slate,
                                                  palette::wine};
  // Count the colours in the order in which they first appear, unless they are the glasshouse's own.
  std::size_t colour = 0;
  for (int i = 0; i < suit; ++i) {
    const bool first = std::none_of(suits.begin(), suits.begin() + i, [&](const Suit& before) {
      return before.colour == suits[static_cast<std::size_t>(i)].colour;
    });
    if (first && suits[static_cast<std::size_t>(i)].colour != s.colour) ++colour;
    if (suits[static_cast<std::size_t>(i)].colour == s.colour) break;
  }
  const Colour main = colour_named(s.colour).value_or(by_index[colour % by_index.size()]);
  const bool blooms = style.plant == Plant::poppy || style.plant == Plant::marigold;
  style.ink = {.main = main,
               .stalk = blooms ? palette::stalk : mixed(main, palette::paper, 0.12),
               .paper = palette::paper};
  return style;
}

void draw_face(cairo_t* cr, const Deck& deck, FaceId face, double w, double h, double radius) {
  draw_blank(cr, w, h, radius);
  if (!deck.has(face)) {
    text_centred(cr, "?", w / 2, h / 2, {.typeface = Typeface::serif, .size = 0.5 * w}, palette::rim);
    return;
  }
  if (deck.is_joker(face)) return draw_joker(cr, deck, face, w, h);
  const SuitStyle style = style_of(deck, deck.suit_of(face));
  const int rank = deck.rank_of(face);
  const std::string& name = deck.options().ranks[static_cast<std::size_t>(rank)];
  const auto& ranks = deck.options().ranks;
  if (std::all_of(ranks.begin(), ranks.end(), [](const std::string& r) { return r.size() > 3; })) {
    const int suit = deck.suit_of(face);
    return draw_stage(cr, {.rank = rank, .ranks = deck.rank_count(), .suit = suit},
                      deck.options().suits[static_cast<std::size_t>(suit)].name, name, style.ink, w, h);
  }
  const std::string mark = rank_mark(deck, rank);
  if (w < double{compact_width}) return draw_compact(cr, style, mark, w, h);
  draw_corner(cr, style, mark, w);
  {
    const Saved saved(cr);
    cairo_translate(cr, w, h);
    cairo_rotate(cr, pi);
    draw_corner(cr, style, mark, w);
  }
  const int from_top = deck.rank_count() - 1 - rank;
  const int count = sprigs_of(name, rank);
  constexpr int most_sprigs = 30;
  if (from_top > 2 && count != 1 && count <= most_sprigs) {
    draw_sprigs(cr, style, count, w, h);  // of a rank 0 none
  } else {
    draw_specimen(cr, style, from_top > 2 ? 3 : from_top, w, h);
  }
}

void draw_blank(cairo_t* cr, double w, double h, double radius) {
  draw_paper(cr, w, h, radius);
  draw_rim(cr, w, h, radius, palette::rim);
}

void draw_name(cairo_t* cr, const std::string& name, double w, double h, double radius) {
  draw_paper(cr, w, h, radius);
  draw_rim(cr, w, h, radius, palette::coral);
  const auto dash = name.find('-');
  const Lettering how{
      .typeface = Typeface::serif, .size = std::max(0.22 * w, 9.0), .bold = true, .largest_width = 0.86 * w};
  if (dash == std::string::npos) return text_centred(cr, name, w / 2, h / 2, how, palette::wine);
  text_centred(cr, name.substr(0, dash), w / 2, h * 0.42, how, palette::wine);
  text_centred(cr, name.substr(dash + 1), w / 2, h * 0.42 + how.size * 1.3, how, palette::wine);
}

void draw_back(cairo_t* cr, double w, double h, double radius) {
  rounded_box(cr, 0, 0, w, h, radius);
  fill(cr, palette::plum);
  const double inset = 0.075 * w;
  {
    const Saved saved(cr);
    rounded_box(cr, inset, inset, w - 2 * inset, h - 2 * inset, std::max(radius - inset * 0.6, 0.0));
    cairo_clip(cr);
    // Panes: a lattice on the diagonals, laid so that a crossing is in the middle and the edges are alike.
    const double pane = (w - 2 * inset) / 5;
    for (int i = -12; i <= 12; ++i) {
      const double at = w / 2 + i * pane;
      cairo_move_to(cr, at - h, h / 2 - h);
      cairo_line_to(cr, at + h, h / 2 + h);
      cairo_move_to(cr, at - h, h / 2 + h);
      cairo_line_to(cr, at + h, h / 2 - h);
    }
    stroke(cr, faded(palette::plum_line, 0.42), 0.009 * w);
    for (int row = -10; row <= 10; ++row) {
      for (int column = -6; column <= 6; ++column) {
        if ((row + column) % 2 != 0) continue;
        circle(cr, w / 2 + column * pane / 2 * 1.0, h / 2 + row * pane / 2 * 1.0, 0.011 * w);
      }
    }
    fill(cr, faded(palette::plum_line, 0.55));
  }
  rounded_box(cr, inset, inset, w - 2 * inset, h - 2 * inset, std::max(radius - inset * 0.6, 0.0));
  stroke(cr, faded(palette::plum_line, 0.8), 0.012 * w);
  // The seed-head: a disc of fine rays, each with its seed.
  const double r = 0.235 * w;
  circle(cr, w / 2, h / 2, r * 1.16);
  fill(cr, palette::plum);
  circle(cr, w / 2, h / 2, r * 1.16);
  stroke(cr, faded(palette::plum_line, 0.8), 0.012 * w);
  const Colour light = rgb(0xEAD9D3);
  const int rays = w < double{compact_width} ? 10 : 16;
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  for (int i = 0; i < rays; ++i) {
    const double a = 2 * pi * i / rays;
    cairo_move_to(cr, w / 2 + std::cos(a) * r * 0.2, h / 2 + std::sin(a) * r * 0.2);
    cairo_line_to(cr, w / 2 + std::cos(a) * r * 0.82, h / 2 + std::sin(a) * r * 0.82);
  }
  stroke(cr, faded(light, 0.75), 0.009 * w);
  for (int i = 0; i < rays; ++i) {
    const double a = 2 * pi * i / rays;
    circle(cr, w / 2 + std::cos(a) * r * 0.9, h / 2 + std::sin(a) * r * 0.9, r * 0.085);
    const double b = a + pi / rays;
    circle(cr, w / 2 + std::cos(b) * r * 0.58, h / 2 + std::sin(b) * r * 0.58, r * 0.05);
  }
  circle(cr, w / 2, h / 2, r * 0.17);
  fill(cr, light);
  draw_rim(cr, w, h, radius, mixed(palette::plum, rgb(0x000000), 0.35));
}

Shadow flat_shadow(double w) {
  Frame frame;
  frame.items.push_back({.size = {static_cast<float>(w), static_cast<float>(w)}});
  std::vector<Shadow> shadows;
  shadows_of(frame, shadows);
  return shadows.front();
}

double shadow_reach(const Shadow& shadow) { return double{shadow.blur} / 2 + 1; }

void draw_shadow(cairo_t* cr, double w, double h, double radius, const Shadow& shadow) {
  const double half = double{shadow.blur} / 2;
  // One for every px and a half, so that no step is seen in a wide one.
  const int layers = std::clamp(static_cast<int>(half / 0.75), 10, 60);
  // Boxes from large to small, each adding a little: together they fall off smoothly.
  for (int i = 0; i < layers; ++i) {
    const double grow = half * (1 - 2.0 * (i + 0.5) / layers);
    rounded_box(cr, -grow, -grow, w + 2 * grow, h + 2 * grow, radius + std::max(grow, 0.0));
    fill(cr, rgb(0x04100C, 1 - std::pow(1 - double{shadow.opacity}, 1.0 / layers)));
  }
}

}  // namespace apsidon::draw_detail
