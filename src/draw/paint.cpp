#include "apsidon/draw/paint.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "draw/background.hpp"
#include "draw/card_art.hpp"
#include "draw/panels.hpp"

namespace apsidon {
namespace {

using namespace draw_detail;

/// What cards are drawn from.
struct Faces {
  const Deck& deck;
  const Gallery* gallery;  ///< none: drawn by hand
};

/// A part of a picture over a card.
void draw_part(cairo_t* cr, const Gallery& gallery, const PicturePart& part, double w, double h,
               double radius) {
  const Size whole = *gallery.size_of(part.picture);
  const Rect r = part.part.empty() ? rect_at({0, 0}, whole) : part.part;
  const Saved saved(cr);
  rounded_box(cr, 0, 0, w, h, radius);
  cairo_clip(cr);
  cairo_scale(cr, w / double{r.width()}, h / double{r.height()});
  cairo_set_source_surface(cr, gallery.surface(part.picture), -double{r.min.x}, -double{r.min.y});
  cairo_pattern_set_filter(cairo_get_source(cr), gallery.art().sampling == Sampling::nearest
                                                     ? CAIRO_FILTER_NEAREST
                                                     : CAIRO_FILTER_GOOD);
  cairo_paint(cr);
}

/// The picture of a side, if there is one.
bool draw_from_gallery(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius) {
  const Art& art = faces.gallery->art();
  const auto draw = [&](const std::optional<PicturePart>& part) {
    if (!part || !faces.gallery->size_of(part->picture)) return false;
    draw_part(cr, *faces.gallery, *part, double{item.size.width}, double{item.size.height}, radius);
    return true;
  };
  if (item.back) return draw(back_of(art, faces.deck, item.face));
  // A larger picture shows its own, where there is one.
  const bool larger = item.kind == FrameKind::zoom;
  return (larger && draw(detail_of(art, faces.deck, item.face))) || draw(part_of(art, faces.deck, item.face));
}

/// Draws one side of a card in the box from (0, 0) to its size.
void draw_side(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius) {
  const double w = double{item.size.width};
  const double h = double{item.size.height};
  if (!faces.gallery || !draw_from_gallery(cr, item, faces, radius)) {
    if (item.back) {
      draw_back(cr, w, h, radius);
    } else if (faces.gallery) {
      draw_name(cr, faces.deck.text(item.face), w, h, radius);
    } else {
      draw_face(cr, faces.deck, item.face, w, h, radius);
    }
  }
  if (item.brightness != 1) {
    const double b = double{item.brightness};
    rounded_box(cr, 0, 0, w, h, radius);
    fill(cr, b < 1 ? rgb(0x000000, 1 - b) : rgb(0xFFFFFF, std::min(b - 1, 1.0)));
  }
}

/// How far the corners are from a parallelogram, px: 0 without perspective.
float perspective_of(const Quad& q) {
  return length(q.corners[0] - q.corners[1] + q.corners[2] - q.corners[3]);
}

/// Draws a card under perspective, in strips across the direction in which it recedes, each of them flat.
void draw_receding(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius, float ratio) {
  const Picture side(item.size, ratio);
  {
    const Canvas on = canvas_on(side);
    draw_side(on.get(), item, faces, radius);
  }
  auto c = item.corners.corners;
  const auto edge = [&](std::size_t a, std::size_t b) { return length(c[a] - c[b]); };
  const bool across = std::abs(edge(0, 3) - edge(1, 2)) >= std::abs(edge(0, 1) - edge(3, 2));
  // Two rails, from their near or left end to the other; an edge between them is as long as it is close.
  const Vec2 rail_a[2] = {c[0], across ? c[1] : c[3]};
  const Vec2 rail_b[2] = {across ? c[3] : c[1], c[2]};
  const float near = std::max(length(rail_a[0] - rail_b[0]), 1e-3f);
  const float far = std::max(length(rail_a[1] - rail_b[1]), 1e-3f);
  const auto on_rail = [&](const Vec2(&rail)[2], float t) {
    const float a = (1 - t) / near;
    const float b = t / far;
    return (rail[0] * a + rail[1] * b) * (1 / (a + b));
  };
  constexpr int strips = 24;
  const float along = across ? item.size.width : item.size.height;
  const float breadth = across ? item.size.height : item.size.width;
  for (int i = 0; i < strips; ++i) {
    const float t0 = static_cast<float>(i) / strips;
    const float t1 = std::min(static_cast<float>(i + 1) / strips, 1.0f);
    const Vec2 a0 = on_rail(rail_a, t0), a1 = on_rail(rail_a, t1);
    const Vec2 b0 = on_rail(rail_b, t0);
    const Vec2 step = (a1 - a0) * (1 / (along * (t1 - t0)));
    const Vec2 cross = (b0 - a0) * (1 / breadth);
    const Saved saved(cr);
    // Reaching under the next strip by more than a device pixel hides the seam between the two soft edges.
    const float under = 1.5f / ratio / std::max(length(a1 - a0), 0.05f);
    const float overlap = i + 1 < strips ? 1 + under : 1.0f;
    const Vec2 b1 = b0 + (a1 - a0) * overlap;
    const Vec2 a2 = a0 + (a1 - a0) * overlap;
    polygon(cr, Quad{{a0, a2, b1, b0}});
    cairo_clip(cr);
    const Matrix m =
        across
            ? Matrix{step.x, step.y, cross.x, cross.y, a0.x - step.x * along * t0, a0.y - step.y * along * t0}
            : Matrix{
                  cross.x, cross.y, step.x, step.y, a0.x - step.x * along * t0, a0.y - step.y * along * t0};
    const cairo_matrix_t matrix = cairo_matrix(m);
    cairo_transform(cr, &matrix);
    cairo_scale(cr, 1 / double{ratio}, 1 / double{ratio});
    cairo_set_source_surface(cr, side.surface(), 0, 0);
    cairo_paint(cr);
  }
}

void draw_outline(cairo_t* cr, const FrameItem& item, double radius) {
  const double w = double{item.size.width};
  const double h = double{item.size.height};
  rounded_box(cr, 0.75, 0.75, w - 1.5, h - 1.5, radius);
  set_colour(cr, rgb(0x06140F, 0.28));
  cairo_fill_preserve(cr);
  stroke(cr, faded(palette::glass, 0.3), 1.5);
}

void draw_marks(cairo_t* cr, const FrameItem& item, double radius) {
  const double w = double{item.size.width};
  const double h = double{item.size.height};
  const auto ring = [&](Colour colour, double width) {
    rounded_box(cr, -width / 2, -width / 2, w + width, h + width, radius + width / 2);
    stroke(cr, colour, width);
  };
  if (item.marks.aimed_at) {
    rounded_box(cr, 0, 0, w, h, radius);
    fill(cr, faded(palette::aqua, 0.2));
  }
  if (item.marks.legal_target) ring(palette::aqua, item.marks.aimed_at ? 3 : 2);
  if (item.marks.locked) ring(faded(palette::gold, 0.5), 1.5);
  if (item.marks.refused) ring(palette::coral, 3);
  if (item.marks.focus) ring(palette::gold, 3);
}

/// The same item in the size in which it shows, so that a small card shows its compact face.
FrameItem at_its_size(const FrameItem& item) {
  FrameItem out = item;
  Matrix& m = out.matrix;
  const float scale = std::max(length({m.a, m.b}), length({m.c, m.d}));
  if (!(scale > 0)) return out;
  out.size = item.size * scale;
  m = {m.a / scale, m.b / scale, m.c / scale, m.d / scale, m.tx, m.ty};
  return out;
}

void draw_item(cairo_t* cr, const FrameItem& given, const Faces& faces, float radius_share, float ratio) {
  const FrameItem item = at_its_size(given);
  const double radius = double{radius_share * item.size.width};
  const Saved saved(cr);
  if (item.clip != everywhere) {
    cairo_rectangle(cr, double{item.clip.min.x}, double{item.clip.min.y}, double{item.clip.width()},
                    double{item.clip.height()});
    cairo_clip(cr);
  }
  const cairo_matrix_t matrix = cairo_matrix(item.matrix);
  // A card seen edge-on, or scaled to nothing, shows nothing; its map could not be inverted either.
  if (std::abs(matrix.xx * matrix.yy - matrix.xy * matrix.yx) < 1e-6) return;
  const auto into_card = [&] {
    cairo_transform(cr, &matrix);
    cairo_translate(cr, -double{item.size.width} / 2, -double{item.size.height} / 2);
  };
  if (item.kind == FrameKind::outline) {
    into_card();
    draw_outline(cr, item, radius);
    return draw_marks(cr, item, radius);
  }
  {
    const Saved flat(cr);
    into_card();
    const double lift = double{item.lift} + (item.marks.held ? 0.15 : 0);
    draw_shadow(cr, double{item.size.width}, double{item.size.height}, radius, lift, double{item.opacity});
  }
  const bool see_through = item.opacity < 1;
  if (see_through) cairo_push_group(cr);
  if (perspective_of(item.corners) > 0.3f) {
    draw_receding(cr, item, faces, radius, ratio);
  } else {
    const Saved flat(cr);
    into_card();
    draw_side(cr, item, faces, radius);
  }
  if (see_through) {
    cairo_pop_group_to_source(cr);
    cairo_paint_with_alpha(cr, double{item.opacity});
  }
  into_card();
  draw_marks(cr, item, radius);
}

}  // namespace

Picture paint(const Frame& frame, const Deck& deck, const Gallery* gallery, Ground ground) {
  Picture picture(frame.window, frame.pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  if (ground == Ground::glasshouse) draw_background(canvas.get(), frame.window);
  for (const FramePanel& panel : frame.panels) {
    if (!panel.overlay) draw_panel(canvas.get(), panel);
  }
  const float radius = frame.card.width > 0 ? frame.corner_radius / frame.card.width : 0;
  for (const FrameItem& item : frame.items)
    draw_item(canvas.get(), item, {deck, gallery}, radius, frame.pixel_ratio);
  for (const FramePanel& panel : frame.panels) {
    if (panel.overlay) draw_panel(canvas.get(), panel);
  }
  return picture;
}

Picture paint_card(const Deck& deck, FaceId face, Size card, float pixel_ratio, const Gallery* gallery) {
  Picture picture(card, pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  draw_side(canvas.get(), {.back = face == hidden_face, .face = face, .size = card}, {deck, gallery},
            0.07 * double{card.width});
  return picture;
}

}  // namespace apsidon
