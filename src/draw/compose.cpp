#include "apsidon/draw/compose.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <numbers>

#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/box.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/card_art.hpp"

namespace apsidon {
namespace {

using namespace draw_detail;

/// Draws one face, or for a hidden one the back, as large as a cell.
using DrawCard = std::function<void(cairo_t* cr, FaceId face)>;

ComposedSheet sheet_of(const Deck& deck, Size card, const std::string& name, const DrawCard& draw_card) {
  if (!(card.width >= 1 && card.height >= 1 && card.width <= 2000 && card.height <= 2000)) {
    throw Error(fmt::format("sheet: a card of {}x{} px: 1 to 2000 in either direction are expected",
                            card.width, card.height));
  }
  const Size cell{std::floor(card.width), std::floor(card.height)};
  // Two pixels apart, so that no card takes a soft edge from its neighbour when it is made smaller.
  constexpr float gap = 2;
  const int extra = deck.joker_count() + 1;  // the back is the last
  const int columns = deck.rank_count();
  const int extra_rows = (extra + columns - 1) / columns;
  const auto length = [&](float size, int count) { return gap + (size + gap) * static_cast<float>(count); };
  const Size whole{length(cell.width, columns), length(cell.height, deck.suit_count() + extra_rows)};
  if (whole.width > 16384 || whole.height > 16384) {
    throw Error(
        fmt::format("sheet: {}x{} px: at most 16384 in either direction are expected; make the card smaller",
                    whole.width, whole.height));
  }
  ComposedSheet out{Picture(whole), Art{.card = cell}};
  out.art.sheets.push_back(
      {.picture = name, .columns = columns, .cell = cell, .margin = {gap, gap}, .spacing = {gap, gap}});
  const Canvas canvas = canvas_on(out.picture);
  const auto place = [&](int column, int row, FaceId face) {
    const Vec2 at{length(cell.width, column), length(cell.height, row)};
    const Saved saved(canvas.get());
    cairo_translate(canvas.get(), double{at.x}, double{at.y});
    cairo_rectangle(canvas.get(), 0, 0, double{cell.width}, double{cell.height});
    cairo_clip(canvas.get());
    draw_card(canvas.get(), face);
    return PicturePart{.picture = name, .part = rect_at(at, cell)};
  };
  for (int suit = 0; suit < deck.suit_count(); ++suit) {
    for (int rank = 0; rank < deck.rank_count(); ++rank) (void)place(rank, suit, deck.face(suit, rank));
  }
  for (int i = 0; i < extra; ++i) {
    const FaceId face = i < deck.joker_count() ? deck.joker(i) : hidden_face;
    const PicturePart part = place(i % columns, deck.suit_count() + i / columns, face);
    if (face) {
      out.art.parts[deck.text(face)] = part;
    } else {
      out.art.back = part;
    }
  }
  return out;
}

/// Makes cards by a recipe.
class Cook {
 public:
  Cook(const Deck& deck, const Recipe& recipe, const std::filesystem::path& folder,
       std::vector<std::string>* missing)
      : deck_(deck), recipe_(recipe), drawings_({}, folder), missing_(missing) {}

  void draw(cairo_t* cr, FaceId face) {
    const double w = double{recipe_.card.width};
    const double h = double{recipe_.card.height};
    const std::string text = deck_.text(face);
    if (face == hidden_face) {
      if (!fit(cr, recipe_.back, {w / 2, h / 2}, {w, h}, Fit::cover)) draw_back(cr, w, h, 0.07 * w);
      return;
    }
    const bool joker = deck_.is_joker(face);
    const std::string suit =
        joker ? text : deck_.options().suits[static_cast<std::size_t>(deck_.suit_of(face))].name;
    const std::string rank =
        joker ? text : deck_.options().ranks[static_cast<std::size_t>(deck_.rank_of(face))];
    const std::string frame = found(recipe_.frames, text, found(recipe_.frames, suit, recipe_.frame));
    if (!fit(cr, frame, {w / 2, h / 2}, {w, h}, Fit::fill)) draw_blank(cr, w, h, 0.07 * w);
    const std::string middle = found(recipe_.middles, text, "");
    const Rect& box = recipe_.middle;
    bool shown = fit(cr, middle, {double{box.centre().x} * w, double{box.centre().y} * h},
                     {double{box.width()} * w, double{box.height()} * h}, Fit::contain);
    const std::string shape = found(recipe_.suits, suit, "");
    if (!shown) shown = draw_spots(cr, shape, rank, w, h);
    if (!shown) return draw_name(cr, text, w, h, 0.07 * w);
    draw_corner(cr, shape, rank, w, h);
    const Saved saved(cr);
    cairo_translate(cr, w, h);
    cairo_rotate(cr, std::numbers::pi);
    draw_corner(cr, shape, rank, w, h);
  }

 private:
  struct Point {
    double x, y;
  };

  static std::string found(const std::map<std::string, std::string>& in, const std::string& name,
                           const std::string& otherwise) {
    const auto it = in.find(name);
    return it == in.end() ? otherwise : it->second;
  }

  /// A drawing in a box around a point; false where there is none.
  bool fit(cairo_t* cr, const std::string& picture, Point middle, Point box, Fit how) {
    if (picture.empty()) return false;
    const auto size = drawings_.size_of(picture);
    if (!size) {
      if (missing_ && std::find(missing_->begin(), missing_->end(), picture) == missing_->end()) {
        missing_->push_back(picture);
      }
      return false;
    }
    const Rect into = rect_around({static_cast<float>(middle.x), static_cast<float>(middle.y)},
                                  {static_cast<float>(box.x), static_cast<float>(box.y)});
    const Rect at = fit_in(into, *size, how).box;
    const Saved saved(cr);
    cairo_rectangle(cr, double{into.min.x}, double{into.min.y}, double{into.width()}, double{into.height()});
    cairo_clip(cr);
    cairo_translate(cr, double{at.min.x}, double{at.min.y});
    cairo_scale(cr, double{at.width()} / double{size->width}, double{at.height()} / double{size->height});
    cairo_set_source_surface(cr, drawings_.surface(picture), 0, 0);
    cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_BEST);
    cairo_paint(cr);
    return true;
  }

  bool draw_spots(cairo_t* cr, const std::string& shape, const std::string& rank, double w, double h) {
    const auto spots = recipe_.spots.find(rank);
    if (spots == recipe_.spots.end()) return false;
    const double size = double{recipe_.spot_width} * w;
    bool any = false;
    for (const Vec2 spot : spots->second) {
      const Saved saved(cr);
      cairo_translate(cr, double{spot.x} * w, double{spot.y} * h);
      if (recipe_.turns_lower && spot.y > 0.51f) cairo_rotate(cr, std::numbers::pi);
      any = fit(cr, shape, {0, 0}, {size, size}, Fit::contain) || any;
    }
    return any;
  }

  void draw_corner(cairo_t* cr, const std::string& shape, const std::string& rank, double w, double h) {
    const double size = double{recipe_.corner_width} * w;
    const Point at{double{recipe_.corner.x} * w, double{recipe_.corner.y} * h};
    if (!fit(cr, found(recipe_.ranks, rank, ""), at, {size, size}, Fit::contain)) {
      const Lettering how{
          .typeface = Typeface::serif, .size = size * 1.15, .bold = true, .largest_width = size * 1.2};
      text_centred(cr, rank, at.x, at.y, how, rgb(0x2A2A2A));
    }
    (void)fit(cr, shape, {at.x, at.y + size * 1.05}, {size * 0.8, size * 0.8}, Fit::contain);
  }

  const Deck& deck_;
  const Recipe& recipe_;
  Gallery drawings_;
  std::vector<std::string>* missing_;
};

}  // namespace

ComposedSheet compose_sheet(const Deck& deck, Size card, const std::string& name, const Gallery* gallery) {
  const Size cell{std::floor(card.width), std::floor(card.height)};
  return sheet_of(deck, card, name, [&](cairo_t* cr, FaceId face) {
    const Picture drawn = paint_card(deck, face, cell, 1, gallery);
    cairo_set_source_surface(cr, drawn.surface(), 0, 0);
    cairo_paint(cr);
  });
}

ComposedSheet compose_sheet(const Deck& deck, const Recipe& recipe, const std::filesystem::path& folder,
                            const std::string& name, std::vector<std::string>* missing) {
  Cook cook(deck, recipe, folder, missing);
  return sheet_of(deck, recipe.card, name, [&](cairo_t* cr, FaceId face) { cook.draw(cr, face); });
}

}  // namespace apsidon
