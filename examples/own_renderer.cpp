// A renderer of one's own, with Cairo: what a frame says is all that is needed to draw it. Cards here are
// flat shapes that say their name; a game draws its own pictures in the same place.
#include <cairo.h>

#include <cstdio>
#include <numbers>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

/// A rounded rectangle of this size about the origin, where the matrix of an item begins.
void box(cairo_t* to, Size size, double radius) {
  const double x = size.width / 2 - radius, y = size.height / 2 - radius;
  cairo_new_path(to);
  for (int i = 0; i < 4; ++i) {
    const double turn = (i - 1) * std::numbers::pi / 2;
    cairo_arc(to, i < 2 ? x : -x, i == 1 || i == 2 ? y : -y, radius, turn, turn + std::numbers::pi / 2);
  }
  cairo_close_path(to);
}

void draw(cairo_t* to, const Frame& frame, const Deck& deck) {
  cairo_set_source_rgb(to, 0.9, 0.92, 0.86);
  cairo_paint(to);
  for (const FrameItem& item : frame.items) {  // from back to front
    const Matrix& m = item.matrix;
    const cairo_matrix_t matrix{.xx = m.a, .yx = m.b, .xy = m.c, .yy = m.d, .x0 = m.tx, .y0 = m.ty};
    cairo_save(to);
    cairo_transform(to, &matrix);
    box(to, item.size, frame.corner_radius);
    if (item.kind == FrameKind::outline) {
      cairo_set_source_rgb(to, 0.6, 0.65, 0.55);
      cairo_stroke(to);
    } else {
      const double paper = item.back ? 0.45 : 0.98;
      cairo_set_source_rgba(to, paper, paper, paper * 0.95, item.opacity);
      cairo_fill_preserve(to);
      cairo_set_source_rgba(to, 0.2, 0.25, 0.2, item.opacity);
      cairo_stroke(to);
      cairo_move_to(to, -item.size.width / 2 + 8, -item.size.height / 2 + 18);
      if (item.face) cairo_show_text(to, deck.text(item.face).c_str());
    }
    cairo_restore(to);
  }
}

}  // namespace

int main(int, char** argv) {
  TableSetup setup(standard_deck());
  const ZoneId hand = setup.add({.name = "hand", .layout = HandLayout{}, .longest = 9});
  const ZoneId pile = setup.add({.name = "pile", .layout = PileLayout{}, .longest = 9});
  const ZoneId bed = setup.add({.name = "bed"});
  for (std::uint32_t i = 1; i <= 7; ++i) setup.table.create_card(hand, {.face = {6 * i}});
  for (std::uint32_t i = 1; i <= 5; ++i) setup.table.create_card(pile, {.face = {i}, .face_up = false});
  setup.plans = {{.root = down({across({zone(pile, 1), zone(bed, 1)}), zone(hand, 1)})}};
  const Playfield field(std::move(setup), {.window = {640, 480}});

  cairo_surface_t* picture = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, 640, 480);
  cairo_t* to = cairo_create(picture);
  cairo_set_font_size(to, 11);
  draw(to, field.frame(), field.table().deck());
  std::printf("%zu items, %s\n", field.frame().items.size(),
              cairo_status_to_string(cairo_surface_write_to_png(picture, argv[1])));
  cairo_destroy(to);
  cairo_surface_destroy(picture);
}
