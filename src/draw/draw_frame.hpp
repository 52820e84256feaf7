#pragma once
// Frames and cards on a canvas, whatever that writes. Not installed.
#include "apsidon/draw/paint.hpp"
#include "draw/canvas.hpp"
#include "draw/kept_sides.hpp"

namespace apsidon::draw_detail {

/// What cards are drawn from.
struct Faces {
  const Deck& deck;
  const Gallery* gallery = nullptr;  ///< none: drawn by hand
  KeptSides* kept = nullptr;         ///< none: all is drawn anew
};

/// A whole frame, in logical px. What recedes is drawn in pixels, so many in a logical one.
void draw_frame(cairo_t* cr, const Frame& frame, const Faces& faces, Ground ground, float pixel_ratio);
/// One card where it lies, without a shadow.
void draw_card(cairo_t* cr, const CardPicture& picture, FaceId face, const Faces& faces);

}  // namespace apsidon::draw_detail
