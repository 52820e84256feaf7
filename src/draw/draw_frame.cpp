#include "draw/draw_frame.hpp"

#include <algorithm>
#include <cmath>

#include "apsidon/art/card_picture.hpp"
#include "draw/background.hpp"
#include "draw/card_art.hpp"
#include "draw/panels.hpp"

namespace apsidon::draw_detail {
namespace {

/// The corner of a card by itself, share of its width.
constexpr double corner_share = 0.07;

/// A part of a picture over a card.
void draw_part(cairo_t* cr, const Gallery& gallery, const PicturePart& part, double w, double h,
               double radius) {
  const Rect& r = part.part;
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

/// One side of a card in the box from (0, 0) to its size.
void draw_side(cairo_t* cr, const CardPicture& picture, FaceId face, const Faces& faces, double radius) {
  const double w = double{picture.size.width};
  const double h = double{picture.size.height};
  if (picture.part) {
    draw_part(cr, *faces.gallery, *picture.part, w, h, radius);
  } else if (picture.back) {
    draw_back(cr, w, h, radius);
  } else if (faces.gallery) {
    draw_name(cr, picture.name.empty() ? "?" : picture.name, w, h, radius);
  } else {
    draw_face(cr, faces.deck, face, w, h, radius);
  }
}

CardPicture picture_of_item(const FrameItem& item, const Faces& faces) {
  const auto size_of = [&](const std::string& name) { return faces.gallery->size_of(name); };
  static const Art none;
  return faces.gallery ? picture_of(faces.gallery->art(), faces.deck, item, size_of)
                       : picture_of(none, faces.deck, item);
}

/// Paints a picture of so many device pixels a px with its corner at (x, y) px.
void paint_picture(cairo_t* cr, const Picture& picture, double x, double y, double opacity = 1,
                   float pixel_ratio = 0) {
  const Saved saved(cr);
  const double ratio = double{pixel_ratio > 0 ? pixel_ratio : picture.pixel_ratio()};
  cairo_translate(cr, x, y);
  cairo_scale(cr, 1 / ratio, 1 / ratio);
  cairo_set_source_surface(cr, picture.surface(), 0, 0);
  cairo_paint_with_alpha(cr, opacity);
}

const Picture* kept_side(const FrameItem& item, const Faces& faces, double radius, float ratio) {
  const KeptSides::Side side{.face = item.face.value,
                             .back_suit = item.back_suit,
                             .back = item.back,
                             .larger = item.kind == FrameKind::zoom};
  FrameItem near = item;
  near.size = KeptSides::size_near(item.size);
  return faces.kept->side(side, near.size, ratio, [&](cairo_t* on) {
    draw_side(on, picture_of_item(near, faces), item.face, faces, radius);
  });
}

void draw_brightness(cairo_t* cr, const FrameItem& item, double radius) {
  if (item.brightness == 1) return;
  const double b = double{item.brightness};
  rounded_box(cr, 0, 0, double{item.size.width}, double{item.size.height}, radius);
  fill(cr, b < 1 ? rgb(0x000000, 1 - b) : rgb(0xFFFFFF, std::min(b - 1, 1.0)));
}

/// The side of an item that shows, flat.
void draw_flat(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius, float ratio) {
  if (faces.kept) {
    const Picture* side = kept_side(item, faces, radius, ratio);
    if (!side) return draw_blank(cr, double{item.size.width}, double{item.size.height}, radius);
    const Saved saved(cr);
    // One of another size, while the right one is not there.
    const auto times = [&](float px, int pixels) {
      const double scale = double{px} * double{ratio} / pixels;
      return std::abs(scale - 1) < 0.02 ? 1.0 : scale;  // it was rounded up to device pixels
    };
    cairo_scale(cr, times(item.size.width, side->width()), times(item.size.height, side->height()));
    paint_picture(cr, *side, 0, 0, 1, ratio);
  } else {
    draw_side(cr, picture_of_item(item, faces), item.face, faces, radius);
  }
  draw_brightness(cr, item, radius);
}

/// Below the item as it lies; the light comes from above the window, however the card is turned.
void draw_item_shadow(cairo_t* cr, const FrameItem& item, const Faces& faces, const Shadow& shadow,
                      double radius, float ratio) {
  if (!(shadow.opacity > 0.004f)) return;
  const double w = double{item.size.width};
  const double h = double{item.size.height};
  const Saved saved(cr);
  cairo_translate(cr, double{shadow.offset.x}, double{shadow.offset.y});
  const cairo_matrix_t matrix = cairo_matrix(item.matrix);
  cairo_transform(cr, &matrix);
  cairo_translate(cr, -w / 2, -h / 2);
  if (!faces.kept) return draw_shadow(cr, w, h, radius, shadow);
  // In steps, so that one does for many; a fainter one is the same, painted fainter.
  constexpr float kept_opacity = 0.42f;
  const KeptSides::Shape key = KeptSides::shape_near(item.size, shadow.blur);
  const Shadow kept{.blur = key.blur, .opacity = kept_opacity};
  const double reach = std::ceil(shadow_reach(kept));
  const Picture& drawn = faces.kept->shadow(key, static_cast<float>(reach), ratio, [&](cairo_t* on) {
    cairo_translate(on, reach, reach);
    draw_shadow(on, double{key.size.width}, double{key.size.height}, radius, kept);
  });
  paint_picture(cr, drawn, -reach, -reach, double{std::min(shadow.opacity / kept_opacity, 1.0f)});
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
    draw_flat(on.get(), item, faces, radius, ratio);
  }
  const auto weights = corner_weights(item.corners);
  const bool across = std::abs(weights[0] - weights[1]) >= std::abs(weights[0] - weights[3]);
  const auto share = [&](float along, float beside) {
    return across ? Vec2{along, beside} : Vec2{beside, along};
  };
  constexpr int strips = 24;
  const float length_along = across ? item.size.width : item.size.height;
  const float breadth = across ? item.size.height : item.size.width;
  for (int i = 0; i < strips; ++i) {
    const float t0 = static_cast<float>(i) / strips;
    const float t1 = static_cast<float>(i + 1) / strips;
    const Vec2 a0 = point_in(item.corners, share(t0, 0));
    const Vec2 a1 = point_in(item.corners, share(t1, 0));
    const Vec2 b0 = point_in(item.corners, share(t0, 1));
    const Vec2 step = (a1 - a0) * (1 / (length_along * (t1 - t0)));
    const Vec2 cross = (b0 - a0) * (1 / breadth);
    const Saved saved(cr);
    // Reaching under the next strip by more than a device pixel hides the seam between the two soft edges.
    const float under = 1.5f / ratio / std::max(length(a1 - a0), 0.05f);
    const float overlap = i + 1 < strips ? 1 + under : 1.0f;
    const Vec2 b1 = b0 + (a1 - a0) * overlap;
    const Vec2 a2 = a0 + (a1 - a0) * overlap;
    polygon(cr, Quad{{a0, a2, b1, b0}});
    cairo_clip(cr);
    const Vec2 origin = a0 - step * (length_along * t0);
    const Matrix m = across ? Matrix{step.x, step.y, cross.x, cross.y, origin.x, origin.y}
                            : Matrix{cross.x, cross.y, step.x, step.y, origin.x, origin.y};
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

/// On the card, of this size.
void draw_badges(cairo_t* cr, std::span<const FrameBadge> badges, Size size) {
  for (const FrameBadge& badge : badges) {
    const Saved saved(cr);
    cairo_translate(cr, double{badge.place.min.x * size.width}, double{badge.place.min.y * size.height});
    draw_badge(cr, badge.text, double{badge.place.width() * size.width},
               double{badge.place.height() * size.height});
  }
}

void draw_item(cairo_t* cr, const FrameItem& given, const Faces& faces, const Shadow& shadow,
               std::span<const FrameBadge> badges, float radius_share, float ratio) {
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
  if (std::abs(matrix.xx * matrix.yy - matrix.xy * matrix.yx) < 1e-3) return;
  const auto into_card = [&] {
    cairo_transform(cr, &matrix);
    cairo_translate(cr, -double{item.size.width} / 2, -double{item.size.height} / 2);
  };
  if (item.kind == FrameKind::outline) {
    into_card();
    return draw_marks(cr, item, radius);
  }
  draw_item_shadow(cr, item, faces, shadow, radius, ratio);
  const bool see_through = item.opacity < 1;
  if (see_through) cairo_push_group(cr);
  if (perspective_of(item.corners) > 0.3f) {
    draw_receding(cr, item, faces, radius, ratio);
  } else {
    const Saved flat(cr);
    into_card();
    draw_flat(cr, item, faces, radius, ratio);
  }
  if (!badges.empty()) {
    const Saved flat(cr);
    into_card();
    draw_badges(cr, badges, item.size);
  }
  if (see_through) {
    cairo_pop_group_to_source(cr);
    cairo_paint_with_alpha(cr, double{item.opacity});
  }
  into_card();
  draw_marks(cr, item, radius);
}

}  // namespace

void draw_marks(cairo_t* cr, const FrameItem& item, double radius) {
  if (item.kind == FrameKind::outline) draw_outline(cr, item, radius);
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
  if (item.marks.glows) draw_glow(cr, {{0, 0}, {item.size.width, item.size.height}}, radius);
  if (item.marks.legal_target) ring(palette::aqua, item.marks.aimed_at ? 3 : 2);
  if (item.marks.locked) ring(faded(palette::gold, 0.5), 1.5);
  if (item.marks.playable) ring(faded(palette::aqua, 0.6), 1.5);
  if (item.marks.selected) ring(palette::aqua, 3);
  if (item.marks.refused) ring(palette::coral, 3);
  if (item.marks.focus) ring(palette::gold, 3);
}

void draw_side_of(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius) {
  draw_side(cr, picture_of_item(item, faces), item.face, faces, radius);
}

Rect reach_of(const FrameItem& item, const Shadow& shadow) {
  // Marks reach as far as that, and a px more for soft edges.
  const float around = std::max(5.0f, shadow.blur / 2 + 2 + length(shadow.offset));
  return grown(bounds(item.corners), around);
}

namespace {

/// A frame is a value that a client may have changed: what is no number, or lies beyond all windows, is not
/// drawn, as the drawing library counts in whole numbers.
bool is_near(float v) { return std::abs(v) <= 1e7f; }  // which no NaN is
bool is_near(Vec2 v) { return is_near(v.x) && is_near(v.y); }

bool can_be_drawn(const FrameItem& item, const Shadow& shadow) {
  const Matrix& m = item.matrix;
  const auto& corners = item.corners.corners;
  return is_near({m.a, m.b}) && is_near({m.c, m.d}) && is_near({m.tx, m.ty}) && is_near(item.size.width) &&
         is_near(item.size.height) && is_near(item.opacity) && is_near(item.brightness) &&
         is_near(item.lift) && is_near(shadow.offset) && is_near(shadow.blur) && is_near(shadow.opacity) &&
         std::all_of(corners.begin(), corners.end(), [](Vec2 c) { return is_near(c); });
}

/// Takes those of the next item from the front of the list.
std::span<const FrameBadge> badges_of(std::span<const FrameBadge>& left, std::size_t item) {
  const auto end = std::find_if(left.begin(), left.end(), [&](const FrameBadge& b) { return b.item > item; });
  const auto own = left.first(static_cast<std::size_t>(end - left.begin()));
  left = left.subspan(own.size());
  return own;
}

bool can_be_drawn(const FramePanel& panel) {
  return is_near(panel.area.min) && is_near(panel.area.max) && is_near(panel.fill);
}

/// Of a card, in its widths.
float radius_in(const Frame& frame) {
  const float radius = frame.corner_radius / frame.card.width;
  return radius > 0 ? std::min(radius, 0.5f) : 0;  // which no NaN is, either
}

}  // namespace

void draw_frame(cairo_t* cr, const Frame& frame, const Faces& faces, Ground ground, float pixel_ratio,
                const Part& part) {
  if (ground == Ground::glasshouse && faces.kept) {
    const auto draw = [&](cairo_t* on) { draw_background(on, frame.window); };
    const Saved saved(cr);
    cairo_set_operator(cr, CAIRO_OPERATOR_SOURCE);
    paint_picture(cr, faces.kept->background(frame.window, pixel_ratio, draw), 0, 0);
  } else if (ground == Ground::glasshouse) {
    draw_background(cr, frame.window);
  }
  const auto panels = [&](bool overlay) {
    for (const FramePanel& panel : frame.panels) {
      if (panel.overlay == overlay && can_be_drawn(panel) && meet(grown(panel.area, 5), part.box))
        draw_panel(cr, panel);
    }
  };
  panels(false);
  const float radius = radius_in(frame);
  std::span<const FrameBadge> badges = frame.badges;
  for (std::size_t i = 0; i < frame.items.size(); ++i) {
    const std::span<const FrameBadge> own = badges_of(badges, i);
    if (!can_be_drawn(frame.items[i], part.shadows[i])) continue;
    if (meet(reach_of(frame.items[i], part.shadows[i]), part.box))
      draw_item(cr, frame.items[i], faces, part.shadows[i], own, radius, pixel_ratio);
  }
  panels(true);
  if (!frame.sweep.empty() && can_be_drawn({.area = frame.sweep})) {
    const auto box = [&] {
      const Size size = frame.sweep.size();
      cairo_rectangle(cr, frame.sweep.min.x, frame.sweep.min.y, size.width, size.height);
    };
    box();
    fill(cr, faded(palette::aqua, 0.15));
    box();
    stroke(cr, palette::aqua, 1.5);
  }
}

void draw_frame(cairo_t* cr, const Frame& frame, const Faces& faces, Ground ground, float pixel_ratio) {
  std::vector<Shadow> shadows;
  shadows_of(frame, shadows);
  draw_frame(cr, frame, faces, ground, pixel_ratio, {.box = everywhere, .shadows = shadows});
}

void draw_card(cairo_t* cr, const CardPicture& picture, FaceId face, const Faces& faces) {
  const Saved saved(cr);
  const cairo_matrix_t matrix = cairo_matrix(picture.matrix);
  cairo_transform(cr, &matrix);
  const double w = double{picture.size.width};
  cairo_translate(cr, -w / 2, -double{picture.size.height} / 2);
  draw_side(cr, picture, face, faces, corner_share * w);
}

}  // namespace apsidon::draw_detail
