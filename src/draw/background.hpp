#pragma once
#include "draw/canvas.hpp"

namespace apsidon::draw_detail {

/// An evening under glass: deep green, darker to the edges, with the faint lines of panes.
APSIDON_DRAW_EXPORT void draw_background(cairo_t* cr, Size window);

}  // namespace apsidon::draw_detail
