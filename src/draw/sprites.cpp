#include "apsidon/draw/sprites.hpp"

#include "draw/background.hpp"
#include "draw/card_art.hpp"
#include "draw/draw_frame.hpp"
#include "draw/panels.hpp"

namespace apsidon {

using namespace draw_detail;

namespace {

/// A picture of something of this size with a margin, and a canvas with its corner at the origin.
template <class Draw>
Picture with_margin(Size size, float margin, float pixel_ratio, const Draw& draw) {
  Picture picture({size.width + 2 * margin, size.height + 2 * margin}, pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  cairo_translate(canvas.get(), double{margin}, double{margin});
  draw(canvas.get());
  return picture;
}

}  // namespace

Picture paint_background(Size window, float pixel_ratio) {
  Picture picture(window, pixel_ratio);
  draw_background(canvas_on(picture).get(), window);
  return picture;
}

Picture paint_panel(const FramePanel& panel, float pixel_ratio) {
  return with_margin(panel.area.size(), mark_reach, pixel_ratio, [&](cairo_t* cr) {
    cairo_translate(cr, -double{panel.area.min.x}, -double{panel.area.min.y});
    draw_panel(cr, panel);
  });
}

Picture paint_marks(Size size, float corner_radius, const Marks& marks, bool outline, float pixel_ratio) {
  return with_margin(size, mark_reach, pixel_ratio, [&](cairo_t* cr) {
    draw_marks(cr, {.kind = outline ? FrameKind::outline : FrameKind::card, .marks = marks, .size = size},
               double{corner_radius});
  });
}

Picture paint_badge(std::string_view text, Size size, float pixel_ratio) {
  return with_margin(size, 0, pixel_ratio,
                     [&](cairo_t* cr) { draw_badge(cr, text, double{size.width}, double{size.height}); });
}

Picture paint_shadow(Size card, float corner_radius, float blur, float pixel_ratio) {
  const Shadow shadow{.blur = blur, .opacity = painted_shadow_opacity};
  return with_margin(card, static_cast<float>(shadow_reach(shadow)), pixel_ratio, [&](cairo_t* cr) {
    draw_shadow(cr, double{card.width}, double{card.height}, double{corner_radius}, shadow);
  });
}

}  // namespace apsidon
