#include "apsidon/draw/atlas.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "draw/draw_frame.hpp"
#include "geometry/hide.hpp"

namespace apsidon {

using namespace draw_detail;

namespace {

/// Device pixels around each cell, so that soft edges take nothing from a neighbour.
constexpr int cell_margin = 1;

/// How cells of one size lie in a picture that is about square.
struct SheetCells {
  int columns = 1;
  int rows = 1;
  int width = 1;   // with margins
  int height = 1;  // with margins
};

SheetCells cells_for(std::size_t count, Size card, float ratio) {
  SheetCells cells{.width = static_cast<int>(std::ceil(card.width * ratio)) + 2 * cell_margin,
                   .height = static_cast<int>(std::ceil(card.height * ratio)) + 2 * cell_margin};
  const double square = std::sqrt(static_cast<double>(count) * cells.height / cells.width);
  cells.columns = std::clamp(static_cast<int>(std::ceil(square)), 1, static_cast<int>(count));
  cells.rows = (static_cast<int>(count) + cells.columns - 1) / cells.columns;
  return cells;
}

bool possible(const SheetCells& cells) {
  const auto side = [](int a, int b) { return std::int64_t{a} * b; };
  const std::int64_t width = side(cells.columns, cells.width);
  const std::int64_t height = side(cells.rows, cells.height);
  return width <= most_side && height <= most_side &&
         width * height <= static_cast<std::int64_t>(most_pixels);
}

}  // namespace

struct Atlas::Impl {
  Deck deck;
  Size card;
  float ratio;
  float corner_share;
  const Gallery* gallery;
  SheetCells cells;
  Picture picture;
  std::vector<char> there;
  std::size_t next = 0;  // before it all are there
  std::vector<PixelBox> fresh = {};

  /// Faces, the face that is not known, the back of all, the backs of the suits.
  [[nodiscard]] static std::size_t count(const Deck& deck) {
    return static_cast<std::size_t>(deck.face_count()) + 2 +
           (deck.options().suit_backs ? static_cast<std::size_t>(deck.suit_count()) : 0);
  }
  [[nodiscard]] std::size_t index(const FrameItem& item) const {
    const auto faces = static_cast<std::size_t>(deck.face_count());
    if (!item.back) return deck.has(item.face) ? item.face.value - 1 : faces;
    const bool of_suit =
        item.back_suit >= 0 && faces + 2 + static_cast<std::size_t>(item.back_suit) < there.size();
    return faces + 1 + (of_suit ? 1 + static_cast<std::size_t>(item.back_suit) : 0);
  }
  /// What a cell shows, as an item that lies flat.
  [[nodiscard]] FrameItem item(std::size_t index) const {
    const auto faces = static_cast<std::size_t>(deck.face_count());
    FrameItem item{.back = index > faces, .size = card};
    if (index < faces) item.face = {static_cast<std::uint32_t>(index + 1)};
    if (index > faces + 1) item.back_suit = static_cast<std::int16_t>(index - faces - 2);
    return item;
  }
  [[nodiscard]] PixelBox box(std::size_t index) const {
    const int column = static_cast<int>(index) % cells.columns;
    const int row = static_cast<int>(index) / cells.columns;
    return {column * cells.width, row * cells.height, cells.width, cells.height};
  }

  void draw(std::size_t index) {
    const PixelBox at = box(index);
    const Canvas canvas(cairo_create(picture.surface()));
    cairo_translate(canvas.get(), at.x + cell_margin, at.y + cell_margin);
    cairo_scale(canvas.get(), double{ratio}, double{ratio});
    draw_side_of(canvas.get(), item(index), {.deck = deck, .gallery = gallery},
                 double{corner_share * card.width});
    there[index] = 1;
    fresh.push_back(at);
  }
};

Atlas::Atlas(const Deck& deck, Size card, float pixel_ratio, float corner_share, const Gallery* gallery)
    : impl_(nullptr, nullptr) {
  if (!(card.width > 0 && card.height > 0 && card.width <= 1e5f && card.height <= 1e5f && pixel_ratio > 0 &&
        pixel_ratio <= 1e3f)) {
    throw Error(fmt::format("atlas: a card of {}x{} px at ratio {}: something is expected", card.width,
                            card.height, pixel_ratio));
  }
  const std::size_t count = Impl::count(deck);
  SheetCells cells = cells_for(count, card, pixel_ratio);
  while (!possible(cells)) {
    pixel_ratio *= 0.8f;
    cells = cells_for(count, card, pixel_ratio);
    if (cells.width <= 2 * cell_margin + 1 && cells.height <= 2 * cell_margin + 1) break;
  }
  const Size size{static_cast<float>(cells.columns * cells.width),
                  static_cast<float>(cells.rows * cells.height)};
  impl_ = geometry_detail::hide<Impl>(Impl{.deck = deck,
                                           .card = card,
                                           .ratio = pixel_ratio,
                                           .corner_share = corner_share,
                                           .gallery = gallery,
                                           .cells = cells,
                                           .picture = Picture(size),
                                           .there = std::vector<char>(count, 0)});
}

bool Atlas::build(const Frame& frame, std::chrono::nanoseconds time) {
  using Steady = std::chrono::steady_clock;
  const Steady::time_point end = Steady::now() + time;
  impl_->fresh.clear();
  const auto drawn_enough = [&] { return !impl_->fresh.empty() && Steady::now() >= end; };
  for (const FrameItem& item : frame.items) {
    if (item.kind == FrameKind::outline || impl_->there[impl_->index(item)] != 0) continue;
    if (drawn_enough()) return false;
    impl_->draw(impl_->index(item));
  }
  for (; impl_->next < impl_->there.size(); ++impl_->next) {
    if (impl_->there[impl_->next] != 0) continue;
    if (drawn_enough()) return false;
    impl_->draw(impl_->next);
  }
  return true;
}

bool Atlas::whole() const {
  return std::all_of(impl_->there.begin(), impl_->there.end(), [](char there) { return there != 0; });
}
std::span<const PixelBox> Atlas::fresh() const { return impl_->fresh; }
bool Atlas::has(const FrameItem& item) const { return impl_->there[impl_->index(item)] != 0; }

PixelBox Atlas::cell(const FrameItem& item) const {
  const PixelBox box = impl_->box(impl_->index(item));
  return {box.x + cell_margin, box.y + cell_margin, box.width - 2 * cell_margin,
          box.height - 2 * cell_margin};
}

int Atlas::width() const { return impl_->picture.width(); }
int Atlas::height() const { return impl_->picture.height(); }
Size Atlas::card() const { return impl_->card; }
float Atlas::pixel_ratio() const { return impl_->ratio; }
Pixels Atlas::pixels(const PixelBox& box) const {
  return pixels_of(impl_->picture.surface(), box.x, box.y, box.width, box.height);
}
Pixels Atlas::pixels() const { return impl_->picture.pixels(); }

}  // namespace apsidon
