#pragma once
// Faces whose ranks are words rather than numbers: stages of a plant's life, each suit a plant of its own.
// Not installed.
#include <string>

#include "draw/plants.hpp"

namespace apsidon::draw_detail {

struct Stage {
  int rank = 0;
  int ranks = 1;
  int suit = 0;  ///< chooses leaves, petals and seed
};

/// A card's middle and its words: the plant above, the stage below it; narrow cards show the drawing alone.
void draw_stage(cairo_t* cr, const Stage& stage, const std::string& plant, const std::string& name,
                const Ink& ink, double width, double height);

}  // namespace apsidon::draw_detail
