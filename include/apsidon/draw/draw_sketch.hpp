#pragma once
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/sketch.hpp"

namespace apsidon {

/// Draws a sketch over a picture, each layer in a colour of its own. O(marks).
APSIDON_DRAW_EXPORT void draw_sketch(const Sketch& sketch, Picture& picture);

}  // namespace apsidon
