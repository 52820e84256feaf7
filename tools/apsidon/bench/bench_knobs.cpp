#include "bench/bench_knobs.hpp"

#include <imgui.h>

namespace apsidon::tool {

bool slider(const char* name, float& value, float least, float most, const char* format) {
  return ImGui::SliderFloat(name, &value, least, most, format, ImGuiSliderFlags_AlwaysClamp);
}

bool slider(const char* name, int& value, int least, int most) {
  return ImGui::SliderInt(name, &value, least, most, "%d", ImGuiSliderFlags_AlwaysClamp);
}

bool slider(const char* name, double& value, double least, double most, const char* format) {
  return ImGui::SliderScalar(name, ImGuiDataType_Double, &value, &least, &most, format,
                             ImGuiSliderFlags_AlwaysClamp);
}

bool slider(const char* name, Angle& value, float least, float most) {
  double degrees = value.degrees();
  if (!slider(name, degrees, least, most, "%.1f\xC2\xB0")) return false;
  value = Angle::degrees(degrees);
  return true;
}

}  // namespace apsidon::tool
