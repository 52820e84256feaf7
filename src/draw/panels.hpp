#pragma once
// Captions, counters, buttons and bars in the look of the glasshouse. Not installed.
#include "apsidon/play/frame.hpp"
#include "draw/canvas.hpp"

namespace apsidon::draw_detail {

void draw_panel(cairo_t* cr, const FramePanel& panel);

}  // namespace apsidon::draw_detail
