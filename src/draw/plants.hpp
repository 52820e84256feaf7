#pragma once
// The drawings of the glasshouse's four plants; not installed.
#include "draw/canvas.hpp"

namespace apsidon::draw_detail {

enum class Plant { fern, reed, poppy, marigold };

/// The two colours a plant is drawn in.
struct Ink {
  Colour main;   ///< blossoms, and all of a plant that has none
  Colour stalk;  ///< stems and leaves
  Colour paper;  ///< what shows through
};

/// The mark of a suit, filling a box of this size around (x, y): one closed shape, told apart at 12 px.
void draw_mark(cairo_t* cr, Plant plant, double x, double y, double size, const Ink& ink);
/// A sprig of the plant: a blossom or frond on its stem, `height` high, around (x, y).
void draw_sprig(cairo_t* cr, Plant plant, double x, double y, double height, const Ink& ink);
/// A whole plant growing up from (x, y), in a box `width` wide and `height` high.
void draw_plant(cairo_t* cr, Plant plant, double x, double y, double width, double height, const Ink& ink);

}  // namespace apsidon::draw_detail
