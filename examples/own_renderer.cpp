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

void rectangle(cairo_t* to, const Rect& r) { cairo_rectangle(to, r.min.x, r.min.y, r.width(), r.height()); }

void say(cairo_t* to, Vec2 at, const std::string& text) {
  cairo_set_source_rgb(to, 0.2, 0.25, 0.2);
  cairo_move_to(to, at.x, at.y);
  cairo_show_text(to, text.c_str());
}

void draw_panel(cairo_t* to, const FramePanel& panel) {
  cairo_set_source_rgb(to, 0.8, 0.84, 0.74);
  rectangle(to, panel.kind == PanelKind::bar ? filled(panel.area, panel.fill) : panel.area);
  cairo_fill(to);
  say(to, {panel.area.min.x + 6, panel.area.centre().y + 4}, panel.text);
}

void draw_card(cairo_t* to, const FrameItem& item, const Deck& deck) {
  const double paper = item.back ? 0.45 : 0.98 * double{item.brightness};
  cairo_set_source_rgba(to, paper, paper, paper * 0.95, item.opacity);
  cairo_fill_preserve(to);
  cairo_set_source_rgba(to, 0.2, 0.25, 0.2, item.opacity);
  cairo_stroke(to);
  if (item.face) say(to, {-item.size.width / 2 + 8, -item.size.height / 2 + 18}, deck.text(item.face));
}

void draw(cairo_t* to, const Frame& frame, const Deck& deck) {
  for (const FramePanel& panel : frame.panels) {
    if (!panel.overlay) draw_panel(to, panel);
  }
  for (const FrameItem& item : frame.items) {  // from back to front
    cairo_save(to);
    if (item.clip != everywhere) {  // of a zone that scrolls nothing shows outside of it
      rectangle(to, item.clip);
      cairo_clip(to);
    }
    const Matrix& m = item.matrix;  // from the upright card, its middle at the origin
    const cairo_matrix_t matrix{.xx = m.a, .yx = m.b, .xy = m.c, .yy = m.d, .x0 = m.tx, .y0 = m.ty};
    cairo_transform(to, &matrix);
    box(to, item.size, frame.corner_radius);
    if (item.kind == FrameKind::outline) {
      cairo_stroke(to);  // the place of a zone in which nothing lies
    } else {
      draw_card(to, item, deck);  // a card, a copy that is dragged, a larger picture
    }
    cairo_restore(to);
  }
  for (const FramePanel& panel : frame.panels) {
    if (panel.overlay) draw_panel(to, panel);
  }
}

}  // namespace

int main(int, char** argv) {
  TableSetup setup(standard_deck());
  const ZoneSetup row{.name = "row",
                      .layout = {.kind = SpreadLayout{.spacing = 1.1f, .least_spacing = 1.1f}, .longest = 4}};
  const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 9}});
  const ZoneId pile = setup.add({.name = "pile", .layout = {.kind = PileLayout{}, .longest = 9}});
  const ZoneId bed = setup.add({.name = "bed"}), there = setup.add(row);
  setup.layout_of(there).scrolls = true;
  for (std::uint32_t i = 1; i <= 7; ++i) setup.table.create_card(hand, {.face = {6 * i}});
  for (std::uint32_t i = 1; i <= 5; ++i) setup.table.create_card(pile, {.face = {i}, .face_up = false});
  for (std::uint32_t i = 1; i <= 9; ++i) setup.table.create_card(there, {.face = {5 * i}});
  const PanelId bar =
      setup.add_panel({.name = "daylight", .kind = PanelKind::bar, .text = "Daylight", .fill = 0.6f});
  PlanNode cards = across({zone(pile), zone(bed), zone(there, 1)});
  setup.plans = {{.root = down({panel(bar, {.px = 200}, {.px = 20}), cards, zone(hand, 1)})}};
  Playfield field(std::move(setup), {.window = {640, 480}});
  (void)field.where().scroll_to(there, 40);

  cairo_surface_t* picture = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, 640, 480);
  cairo_t* to = cairo_create(picture);
  cairo_set_source_rgb(to, 0.9, 0.92, 0.86);
  cairo_paint(to);
  cairo_set_font_size(to, 11);
  draw(to, field.frame(), field.table().deck());
  std::printf("%zu items, %s\n", field.frame().items.size(),
              cairo_status_to_string(cairo_surface_write_to_png(picture, argv[1])));
  cairo_destroy(to);
  cairo_surface_destroy(picture);
}
