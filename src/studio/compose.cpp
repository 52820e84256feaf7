#include "apsidon/studio/compose.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/box.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/card_art.hpp"
#include "geometry/fit_in.hpp"

namespace apsidon {
namespace {

using namespace draw_detail;

/// Draws one side of a card as large as a cell.
using DrawCard = std::function<void(cairo_t* cr, const ShownCard& view)>;

ComposedSheet sheet_of(const Deck& deck, Size card, const std::string& name, const DrawCard& draw_card) {
  if (!(card.width >= 1 && card.height >= 1 && card.width <= 2000 && card.height <= 2000)) {
    throw Error(fmt::format("sheet: a card of {}x{} px: 1 to 2000 in either direction are expected",
                            card.width, card.height));
  }
  const Size cell{std::floor(card.width), std::floor(card.height)};
  // Two pixels apart, so that no card takes a soft edge from its neighbour when it is made smaller.
  constexpr float gap = 2;
  // Jokers, the back, and those of the suits where they differ.
  std::vector<ShownCard> extras;
  for (int i = 0; i < deck.joker_count(); ++i) extras.push_back({.face = deck.joker(i)});
  extras.push_back({.face_up = false});
  for (int suit = 0; deck.options().suit_backs && suit < deck.suit_count(); ++suit)
    extras.push_back({.face = deck.face(suit, 0), .face_up = false});
  const int extra = static_cast<int>(extras.size());
  const int columns = deck.rank_count();
  const int extra_rows = (extra + columns - 1) / columns;
  const auto length = [&](float size, int count) { return gap + (size + gap) * static_cast<float>(count); };
  const Size whole{length(cell.width, columns), length(cell.height, deck.suit_count() + extra_rows)};
  if (whole.width > 16384 || whole.height > 16384) {
    throw Error(
        fmt::format("sheet: {}x{} px: at most 16384 in either direction are expected; make the card smaller",
                    whole.width, whole.height));
  }
  ComposedSheet out{.picture = Picture(whole), .art = Art{.card = cell}};
  out.art.sheets.push_back(
      {.picture = name, .columns = columns, .cell = cell, .margin = {gap, gap}, .spacing = {gap, gap}});
  const Canvas canvas = canvas_on(out.picture);
  const auto place = [&](int column, int row, ShownCard view) {
    const Vec2 at{length(cell.width, column), length(cell.height, row)};
    const Saved saved(canvas.get());
    cairo_translate(canvas.get(), double{at.x}, double{at.y});
    cairo_rectangle(canvas.get(), 0, 0, double{cell.width}, double{cell.height});
    cairo_clip(canvas.get());
    view.box = rect_at({0, 0}, cell);
    view.fit = Fit::fill;
    draw_card(canvas.get(), view);
    return PicturePart{.picture = name, .part = rect_at(at, cell)};
  };
  for (int suit = 0; suit < deck.suit_count(); ++suit) {
    for (int rank = 0; rank < deck.rank_count(); ++rank)
      (void)place(rank, suit, {.face = deck.face(suit, rank)});
  }
  for (int i = 0; i < extra; ++i) {
    const ShownCard& view = extras[static_cast<std::size_t>(i)];
    const PicturePart part = place(i % columns, deck.suit_count() + i / columns, view);
    if (view.face_up) {
      out.art.parts[deck.text(view.face)] = part;
    } else if (view.face) {
      out.art.backs[deck.options().suits[static_cast<std::size_t>(deck.suit_of(view.face))].name] = part;
    } else {
      out.art.back = part;
    }
  }
  return out;
}

/// Makes cards by a recipe.
class Cook {
 public:
  Cook(const Deck& deck, const Recipe& recipe, const std::filesystem::path& folder)
      : deck_(deck), recipe_(recipe), drawings_({}, folder) {}

  [[nodiscard]] const std::vector<std::string>& missing() const { return missing_; }
  [[nodiscard]] const std::vector<std::string>& nameless() const { return nameless_; }

  void draw(cairo_t* cr, const ShownCard& view) {
    const FaceId face = view.face_up ? view.face : hidden_face;
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
    if (!shown) shown = draw_spots(cr, shape, rank, tint_of(suit), w, h);
    if (!shown) {
      nameless_.push_back(text);
      return draw_name(cr, text, w, h, 0.07 * w);
    }
    const auto tint = tint_of(suit);
    draw_corner(cr, shape, rank, tint, w, h);
    if (!recipe_.both_corners) return;
    const Saved saved(cr);
    cairo_translate(cr, w, h);
    cairo_rotate(cr, pi);
    draw_corner(cr, shape, rank, tint, w, h);
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

  /// What marks of a suit are drawn in; nothing where they are as their pictures have them.
  [[nodiscard]] std::optional<Colour> tint_of(const std::string& suit) const {
    auto tint = recipe_.tints.find(suit);
    if (tint == recipe_.tints.end()) {
      for (const Suit& s : deck_.options().suits) {
        if (s.name == suit) tint = recipe_.tints.find(s.colour);
      }
    }
    if (tint == recipe_.tints.end()) return std::nullopt;
    const auto share = [](std::uint8_t part) { return part / 255.0; };
    return Colour{share(tint->second.red), share(tint->second.green), share(tint->second.blue)};
  }

  /// A drawing in a box around a point, on its head where `turned`; false where there is none.
  bool fit(cairo_t* cr, const std::string& picture, Point middle, Point box, Fit how,
           const std::optional<Colour>& tint = std::nullopt, bool turned = false) {
    if (picture.empty()) return false;
    const auto size = drawings_.size_of(picture);
    if (!size) {
      if (std::find(missing_.begin(), missing_.end(), picture) == missing_.end()) missing_.push_back(picture);
      return false;
    }
    const Rect into = rect_around({static_cast<float>(middle.x), static_cast<float>(middle.y)},
                                  {static_cast<float>(box.x), static_cast<float>(box.y)});
    const bool crisp = recipe_.sampling == Sampling::nearest;
    const Rect at = geometry_detail::fit_in(into, *size, crisp && how == Fit::contain ? Fit::whole : how).box;
    const Saved saved(cr);
    if (turned) {
      // About the middle of where it lies, so that pixels come to lie on pixels.
      cairo_translate(cr, 2 * double{at.centre().x}, 2 * double{at.centre().y});
      cairo_rotate(cr, pi);
    }
    if (how == Fit::cover) {
      cairo_rectangle(cr, double{into.min.x}, double{into.min.y}, double{into.width()},
                      double{into.height()});
      cairo_clip(cr);
    }
    cairo_translate(cr, double{at.min.x}, double{at.min.y});
    cairo_scale(cr, double{at.width()} / double{size->width}, double{at.height()} / double{size->height});
    const std::unique_ptr<cairo_pattern_t, decltype(&cairo_pattern_destroy)> drawing(
        cairo_pattern_create_for_surface(drawings_.surface(picture)), &cairo_pattern_destroy);
    cairo_pattern_set_filter(drawing.get(), crisp ? CAIRO_FILTER_NEAREST : CAIRO_FILTER_BEST);
    if (tint) {
      set_colour(cr, *tint);
      cairo_mask(cr, drawing.get());
    } else {
      cairo_set_source(cr, drawing.get());
      cairo_paint(cr);
    }
    return true;
  }

  bool draw_spots(cairo_t* cr, const std::string& shape, const std::string& rank,
                  const std::optional<Colour>& tint, double w, double h) {
    const auto spots = recipe_.spots.find(rank);
    if (spots == recipe_.spots.end()) return false;
    const double size = double{recipe_.spot_width} * w;
    bool any = false;
    for (const Vec2 spot : spots->second) {
      any = fit(cr, shape, {double{spot.x} * w, double{spot.y} * h}, {size, size}, Fit::contain,
                recipe_.tints_suits ? tint : std::nullopt, recipe_.turns_lower && spot.y > 0.51f) ||
            any;
    }
    return any;
  }

  void draw_corner(cairo_t* cr, const std::string& shape, const std::string& rank,
                   const std::optional<Colour>& tint, double w, double h) {
    const auto at = [&](const CornerMark& mark) {
      return Point{double{mark.at.x} * w, double{mark.at.y} * h};
    };
    const double size = double{recipe_.rank_mark.width} * w;
    if (size > 0 &&
        !fit(cr, found(recipe_.ranks, rank, ""), at(recipe_.rank_mark), {size, size}, Fit::contain, tint)) {
      const Lettering how{
          .typeface = Typeface::serif, .size = size * 1.15, .bold = true, .largest_width = size * 1.2};
      text_centred(cr, rank, at(recipe_.rank_mark).x, at(recipe_.rank_mark).y, how,
                   tint.value_or(rgb(0x2A2A2A)));
    }
    const double small = double{recipe_.suit_mark.width} * w;
    if (small > 0) {
      (void)fit(cr, shape, at(recipe_.suit_mark), {small, small}, Fit::contain,
                recipe_.tints_suits ? tint : std::nullopt);
    }
  }

  const Deck& deck_;
  const Recipe& recipe_;
  Gallery drawings_;
  std::vector<std::string> missing_ = {};
  std::vector<std::string> nameless_ = {};
};

}  // namespace

ComposedSheet compose_sheet(const Deck& deck, Size card, const std::string& name, const Gallery* gallery) {
  std::vector<std::string> nameless;
  ComposedSheet sheet = sheet_of(deck, card, name, [&](cairo_t* cr, const ShownCard& view) {
    const Picture drawn = paint_card(deck, view, 1, gallery);
    cairo_set_source_surface(cr, drawn.surface(), 0, 0);
    cairo_paint(cr);
    if (!gallery || !view.face_up) return;
    const auto size_of = [&](const std::string& picture) { return gallery->size_of(picture); };
    if (!picture_of(gallery->art(), deck, view, size_of).part) nameless.push_back(deck.text(view.face));
  });
  if (gallery) sheet.art.sampling = gallery->art().sampling;
  sheet.nameless = std::move(nameless);
  return sheet;
}

ComposedSheet compose_sheet(const Deck& deck, const Recipe& recipe, const std::filesystem::path& folder,
                            const std::string& name) {
  Cook cook(deck, recipe, folder);
  ComposedSheet sheet =
      sheet_of(deck, recipe.card, name, [&](cairo_t* cr, const ShownCard& view) { cook.draw(cr, view); });
  sheet.art.sampling = recipe.sampling;
  sheet.nameless = cook.nameless();
  sheet.missing = cook.missing();
  return sheet;
}

}  // namespace apsidon
