#pragma once
// Sliders of the bench: each returns whether it was moved.
#include "apsidon/geometry/angle.hpp"
#include "apsidon/motion/glide.hpp"

namespace apsidon::tool {

bool slider(const char* name, float& value, float least, float most, const char* format = "%.2f");
bool slider(const char* name, int& value, int least, int most);
bool slider(const char* name, double& value, double least, double most, const char* format = "%.2f");
/// In degrees.
bool slider(const char* name, Angle& value, float least, float most);
/// A glide by its seconds and curve, or its spring's period and damping, below its name; `any_open` gets true
/// where its curve shows, with a card that goes along it.
bool glide_knobs(const char* name, Glide& glide, bool& any_open);

}  // namespace apsidon::tool
