#pragma once
// Sliders of the bench: each returns whether it was moved.
#include "apsidon/geometry/angle.hpp"

namespace apsidon::tool {

bool slider(const char* name, float& value, float least, float most, const char* format = "%.2f");
bool slider(const char* name, double& value, double least, double most);
/// In degrees.
bool slider(const char* name, Angle& value, float least, float most);

}  // namespace apsidon::tool
