#include "apsidon/studio/sheets.hpp"

#include <algorithm>
#include <cmath>

#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/box.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/background.hpp"
#include "draw/card_art.hpp"
#include "geometry/fit_in.hpp"

namespace apsidon {
namespace {

using namespace draw_detail;

constexpr double page_margin = 24;
constexpr double title_height = 40;
constexpr double caption_height = 24;

/// Cells of equal shape in a box: the number of columns that makes them largest.
struct Cells {
  std::size_t columns = 1;
  double width = 0;
  double height = 0;
};

Cells largest_cells(std::size_t count, double aspect, double w, double h, double gap) {
  Cells best;
  for (std::size_t columns = 1; columns <= count; ++columns) {
    const std::size_t rows = (count + columns - 1) / columns;
    const double by_width = (w - gap * static_cast<double>(columns - 1)) / static_cast<double>(columns);
    const double by_height =
        ((h - gap * static_cast<double>(rows - 1)) / static_cast<double>(rows) - caption_height) * aspect;
    const double width = std::max(std::min(by_width, by_height), 1.0);
    if (width > best.width) best = {.columns = columns, .width = width, .height = width / aspect};
  }
  return best;
}

/// The back of all, those of the suits where they differ, and the jokers.
std::vector<ShownCard> extras_of(const Deck& deck) {
  std::vector<ShownCard> extras{{.face_up = false}};
  for (int suit = 0; deck.options().suit_backs && suit < deck.suit_count(); ++suit)
    extras.push_back({.face = deck.face(suit, 0), .face_up = false});
  for (int i = 0; i < deck.joker_count(); ++i) extras.push_back({.face = deck.joker(i)});
  return extras;
}

/// As large as fits with the art's proportions; of pixel art a whole multiple where one fits.
Size proof_card(const Gallery* gallery, double room_w, double room_h, float pixel_ratio) {
  const Size own = gallery && !gallery->art().card.empty() ? gallery->art().card : Size{5, 7};
  const double times = std::min(room_w / double{own.width}, room_h / double{own.height});
  const double device = std::floor(times * double{pixel_ratio});
  if (gallery && gallery->art().sampling == Sampling::nearest && device >= 1)
    return own * static_cast<float>(device / double{pixel_ratio});
  const auto whole = [](double px) { return static_cast<float>(std::max(std::floor(px), 1.0)); };
  const float w = whole(double{own.width} * times);
  return {w, whole(double{w} * double{own.height} / double{own.width})};
}

void draw_title(cairo_t* cr, const std::string& title) {
  text_left(cr, title, page_margin, page_margin + 22, {.typeface = Typeface::serif, .size = 24, .bold = true},
            palette::caption);
}

}  // namespace

Picture contact_sheet(std::span<const Shot> shots, const Deck& deck, const std::string& title, Size size,
                      float pixel_ratio, const Gallery* gallery) {
  if (shots.empty()) throw Error("contact sheet: no shots: at least one is expected");
  Picture sheet(size, pixel_ratio);
  const Canvas canvas = canvas_on(sheet);
  cairo_t* cr = canvas.get();
  set_colour(cr, mixed(palette::night_edge, rgb(0x000000), 0.35));
  cairo_paint(cr);
  draw_title(cr, title);

  // Windows of one shape fill their cells; others are fitted in cells that suit upright and wide ones alike.
  const Size window = shots.front().frame.window;
  const bool alike =
      std::all_of(shots.begin(), shots.end(), [&](const Shot& s) { return s.frame.window == window; });
  const double own = window.height > 0 ? double{window.width} / double{window.height} : 1;
  const double aspect = alike ? own : 1.25;
  const double top = page_margin + title_height;
  constexpr double gap = 16;
  const Cells cells = largest_cells(shots.size(), aspect, double{size.width} - 2 * page_margin,
                                    double{size.height} - top - page_margin, gap);
  // The block of shots is centred below the title; its rows are filled from the left.
  const double block =
      cells.width * static_cast<double>(cells.columns) + gap * static_cast<double>(cells.columns - 1);
  const double left = (double{size.width} - block) / 2;
  const double rows = static_cast<double>((shots.size() + cells.columns - 1) / cells.columns);
  const double height = rows * (cells.height + caption_height) + (rows - 1) * gap;
  const double first = top + std::max((double{size.height} - top - page_margin - height) / 2, 0.0);
  Painter painter(deck, gallery);
  for (std::size_t i = 0; i < shots.size(); ++i) {
    const double x = left + static_cast<double>(i % cells.columns) * (cells.width + gap);
    const double y = first + static_cast<double>(i / cells.columns) * (cells.height + caption_height + gap);
    Frame frame = shots[i].frame;
    const Rect cell = rect_at({static_cast<float>(x), static_cast<float>(y)},
                              {static_cast<float>(cells.width), static_cast<float>(cells.height)});
    const Rect box = geometry_detail::fit_in(cell, frame.window, Fit::contain).box;
    // Twice as fine as it will show, and then reduced: small cards stay legible.
    const double shrink = double{box.width()} / std::max(double{frame.window.width}, 1.0);
    frame.pixel_ratio = static_cast<float>(std::clamp(2 * shrink * double{pixel_ratio}, 0.05, 4.0));
    const Picture shot = painter.paint(frame);
    const Saved saved(cr);
    rounded_box(cr, double{box.min.x}, double{box.min.y}, double{box.width()}, double{box.height()}, 6);
    cairo_clip_preserve(cr);
    cairo_translate(cr, double{box.min.x}, double{box.min.y});
    cairo_scale(cr, double{box.width()} / shot.width(), double{box.height()} / shot.height());
    cairo_set_source_surface(cr, shot.surface(), 0, 0);
    cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_BEST);
    cairo_fill(cr);
    cairo_reset_clip(cr);
    cairo_identity_matrix(cr);
    cairo_scale(cr, double{pixel_ratio}, double{pixel_ratio});
    text_left(cr, shots[i].caption, x + 2, y + cells.height + 17, {.size = 14}, palette::caption);
  }
  return sheet;
}

Picture proof_sheet(const Deck& deck, Size size, float pixel_ratio, const Gallery* gallery) {
  Picture sheet(size, pixel_ratio);
  const Canvas canvas = canvas_on(sheet);
  cairo_t* cr = canvas.get();
  draw_background(cr, size);
  draw_title(cr, deck.options().name.empty() ? "Deck" : deck.options().name);

  const double top = page_margin + title_height;
  // Backs and jokers follow the ranks, a column as long as there are suits.
  const std::vector<ShownCard> extras = extras_of(deck);
  const int extra_columns = (static_cast<int>(extras.size()) + deck.suit_count() - 1) / deck.suit_count();
  const double columns = deck.rank_count() + extra_columns;
  const double rows = deck.suit_count();
  constexpr double gap = 10;
  const double room_w = (double{size.width} - 2 * page_margin - gap * (columns - 1)) / columns;
  const double room_h = (double{size.height} - top - page_margin - gap * (rows - 1)) / rows - caption_height;
  const Size card_size = proof_card(gallery, room_w, room_h, pixel_ratio);
  const double w = double{card_size.width};
  const double h = double{card_size.height};
  const double left = std::floor((double{size.width} - columns * w - (columns - 1) * gap) / 2);
  const double block = rows * (h + caption_height) + (rows - 1) * gap;
  const double first = std::floor(top + std::max((double{size.height} - top - page_margin - block) / 2, 0.0));
  const auto card = [&](int column, int row, ShownCard view, const std::string& name) {
    const Saved saved(cr);
    cairo_translate(cr, left + column * (w + gap), first + row * (h + caption_height + gap));
    {
      const Saved moved(cr);
      const Shadow shadow = flat_shadow(w);
      cairo_translate(cr, double{shadow.offset.x}, double{shadow.offset.y});
      draw_shadow(cr, w, h, 0.07 * w, shadow);
    }
    view.box = rect_at({0, 0}, card_size);
    const Picture drawn = paint_card(deck, view, pixel_ratio, gallery);
    {
      const Saved scaled(cr);
      cairo_scale(cr, 1 / double{pixel_ratio}, 1 / double{pixel_ratio});
      cairo_set_source_surface(cr, drawn.surface(), 0, 0);
      cairo_paint(cr);
    }
    text_centred(cr, name, w / 2, h + 14, {.size = 13, .largest_width = w + gap - 2}, palette::caption);
  };
  for (int suit = 0; suit < deck.suit_count(); ++suit) {
    for (int rank = 0; rank < deck.rank_count(); ++rank) {
      const FaceId face = deck.face(suit, rank);
      card(rank, suit, {.face = face}, deck.text(face));
    }
  }
  for (int i = 0; i < static_cast<int>(extras.size()); ++i) {
    const ShownCard& extra = extras[static_cast<std::size_t>(i)];
    const bool of_suit = !extra.face_up && extra.face != hidden_face;
    const std::string name =
        extra.face_up && extra.face ? deck.text(extra.face)
        : of_suit ? deck.options().suits[static_cast<std::size_t>(deck.suit_of(extra.face))].name + " back"
                  : "back";
    card(deck.rank_count() + i / deck.suit_count(), i % deck.suit_count(), extra, name);
  }
  return sheet;
}

}  // namespace apsidon
