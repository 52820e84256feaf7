#include "apsidon/draw/gallery.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/canvas.hpp"

namespace apsidon {

using namespace draw_detail;

struct Gallery::Impl {
  struct Destroy {
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
  };
  using Surface = std::unique_ptr<cairo_surface_t, Destroy>;

  Art art;
  std::filesystem::path folder;
  std::map<std::string, Surface> read = {};
};

Gallery::Gallery(Art art, std::filesystem::path folder)
    : impl_(std::make_unique<Impl>(Impl{std::move(art), std::move(folder)})) {}
Gallery::Gallery(Gallery&&) noexcept = default;
Gallery& Gallery::operator=(Gallery&&) noexcept = default;
Gallery::~Gallery() = default;

const Art& Gallery::art() const { return impl_->art; }

_cairo_surface* Gallery::surface(const std::string& picture) const {
  const auto [at, fresh] = impl_->read.try_emplace(picture);
  if (fresh) {
    at->second.reset(cairo_image_surface_create_from_png((impl_->folder / picture).c_str()));
    if (cairo_surface_status(at->second.get()) != CAIRO_STATUS_SUCCESS) at->second.reset();
  }
  return at->second.get();
}

std::optional<Size> Gallery::size_of(const std::string& picture) const {
  cairo_surface_t* s = surface(picture);
  if (!s) return std::nullopt;
  return Size{static_cast<float>(cairo_image_surface_get_width(s)),
              static_cast<float>(cairo_image_surface_get_height(s))};
}

std::vector<std::string> Gallery::pictures() const {
  std::vector<std::string> names;
  std::error_code error;
  for (std::filesystem::recursive_directory_iterator it(impl_->folder, error), end; !error && it != end;
       it.increment(error)) {
    if (it->path().extension() == ".png") {
      names.push_back(std::filesystem::relative(it->path(), impl_->folder).generic_string());
    }
  }
  std::sort(names.begin(), names.end());
  return names;
}

ComposedSheet compose_sheet(const Deck& deck, Size card, const std::string& name) {
  if (!(card.width >= 1 && card.height >= 1 && card.width <= 2000 && card.height <= 2000)) {
    throw Error(fmt::format("sheet: a card of {}x{} px: 1 to 2000 in either direction are expected",
                            card.width, card.height));
  }
  const Size cell{std::floor(card.width), std::floor(card.height)};
  // Two pixels apart, so that no card takes a soft edge from its neighbour when it is made smaller.
  constexpr float gap = 2;
  const int extra = deck.joker_count() + 1;  // the back is the last
  const int columns = std::max(deck.rank_count(), 1);
  const int extra_rows = (extra + columns - 1) / columns;
  const auto length = [&](float size, int count) { return gap + (size + gap) * static_cast<float>(count); };
  ComposedSheet out{
      Picture({length(cell.width, columns), length(cell.height, deck.suit_count() + extra_rows)}),
      Art{.card = cell}};
  out.art.sheets.push_back(
      {.picture = name, .columns = columns, .cell = cell, .margin = {gap, gap}, .spacing = {gap, gap}});
  const Canvas canvas = canvas_on(out.picture);
  const auto place = [&](int column, int row, FaceId face) {
    const Vec2 at{length(cell.width, column), length(cell.height, row)};
    const Picture drawn = paint_card(deck, face, cell);
    cairo_set_source_surface(canvas.get(), drawn.surface(), double{at.x}, double{at.y});
    cairo_paint(canvas.get());
    return PicturePart{.picture = name, .part = rect_at(at, cell)};
  };
  for (int suit = 0; suit < deck.suit_count(); ++suit) {
    for (int rank = 0; rank < deck.rank_count(); ++rank) place(rank, suit, deck.face(suit, rank));
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

}  // namespace apsidon
