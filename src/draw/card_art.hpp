#pragma once
// Card faces and backs; not installed.
#include "apsidon/cards/deck.hpp"
#include "apsidon/play/frame.hpp"
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
APSIDON_DRAW_EXPORT void draw_blank(cairo_t* cr, double width, double height, double radius);
/// A card that shows nothing but a name.
APSIDON_DRAW_EXPORT void draw_name(cairo_t* cr, const std::string& name, double width, double height,
                                   double radius);
APSIDON_DRAW_EXPORT void draw_back(cairo_t* cr, double width, double height, double radius);

/// The soft shadow of a card in the box from (0, 0), without its offset.
APSIDON_DRAW_EXPORT void draw_shadow(cairo_t* cr, double width, double height, double radius,
                                     const Shadow& shadow);
/// How far that reaches beyond the card, px.
double shadow_reach(const Shadow& shadow);
/// The shadow of a card that lies flat.
APSIDON_DRAW_EXPORT Shadow flat_shadow(double width);

}  // namespace apsidon::draw_detail
