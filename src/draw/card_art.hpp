#pragma once
// Card faces and backs; not installed.
#include "apsidon/cards/deck.hpp"
#include "draw/plants.hpp"

namespace apsidon::draw_detail {

/// How a suit is drawn.
struct SuitStyle {
  Plant plant = Plant::fern;
  Ink ink;
};
SuitStyle style_of(const Deck& deck, int suit);

/// A card lying flat in the box from (0, 0) to (width, height) px.
void draw_face(cairo_t* cr, const Deck& deck, FaceId face, double width, double height, double radius);
/// Paper with its rim, and nothing on it.
void draw_blank(cairo_t* cr, double width, double height, double radius);
/// A card that shows nothing but a name.
void draw_name(cairo_t* cr, const std::string& name, double width, double height, double radius);
void draw_back(cairo_t* cr, double width, double height, double radius);

/// The soft shadow of a card that is `lift` card widths above the table.
/// How far that reaches beyond the card, px.
double shadow_reach(double width, double lift);
void draw_shadow(cairo_t* cr, double width, double height, double radius, double lift, double opacity);

}  // namespace apsidon::draw_detail
