#pragma once
// Captions, counters, buttons, bars, and numbers on cards in the look of the glasshouse. Not installed.
#include "apsidon/play/frame.hpp"
#include "draw/canvas.hpp"

namespace apsidon::draw_detail {

void draw_panel(cairo_t* cr, const FramePanel& panel);
/// Light around what is marked, fading as far as marks reach.
void draw_glow(cairo_t* cr, const Rect& around, double radius);
/// A number in the box from (0, 0) to this size, px.
void draw_badge(cairo_t* cr, std::string_view text, double w, double h);

}  // namespace apsidon::draw_detail
