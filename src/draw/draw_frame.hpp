#pragma once
// Frames and cards on a canvas, whatever that writes. Not installed.
#include <span>

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
/// Whether two boxes have a part in common.
constexpr bool meet(const Rect& a, const Rect& b) { return overlap(a, b) > 0; }

/// A part of a frame, and the shadows of all its items.
struct Part {
  Rect box = everywhere;
  std::span<const Shadow> shadows = {};
};
/// Only what reaches into the part; the canvas is clipped to it.
void draw_frame(cairo_t* cr, const Frame& frame, const Faces& faces, Ground ground, float pixel_ratio,
                const Part& part);
/// How far an item reaches with its shadow and its marks.
Rect reach_of(const FrameItem& item, const Shadow& shadow);
/// The side of an item that shows, flat, in the box from (0, 0) to its size.
void draw_side_of(cairo_t* cr, const FrameItem& item, const Faces& faces, double radius);
/// Its outline, if it is one, and what marks it, likewise.
void draw_marks(cairo_t* cr, const FrameItem& item, double radius);
/// One card where it lies, without a shadow.
void draw_card(cairo_t* cr, const CardPicture& picture, FaceId face, const Faces& faces);

}  // namespace apsidon::draw_detail
