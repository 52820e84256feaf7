// The feel of a table, and the curves by which it moves.
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <optional>
#include <string>
#include <tuple>

#include "apsidon/motion/gliding.hpp"
#include "bench/bench_knobs.hpp"
#include "bench/bench_view.hpp"

namespace apsidon::tool {
namespace {

constexpr std::array<const char*, 9> standard_curves{"linear",   "ease",        "ease-in",
                                                     "ease-out", "ease-in-out", "quart-out",
                                                     "back-out", "elastic-out", "bounce-out"};

/// The control points of a curve that has two.
std::optional<CubicBezier> control_points(const Easing& curve) {
  const std::string text = curve.text();
  CubicBezier points;
  if (std::sscanf(text.c_str(), "cubic-bezier(%f, %f, %f, %f)", &points.x1, &points.y1, &points.x2,
                  &points.y2) == 4)
    return points;
  if (text == "linear") return linear;
  if (text == "ease") return ease;
  if (text == "ease-in") return ease_in;
  if (text == "ease-out") return ease_out;
  if (text == "ease-in-out") return ease_in_out;
  return std::nullopt;
}

/// Where shares of time and way lie in a plot.
struct Plot {
  ImVec2 corner = {};
  ImVec2 size = {};
  static constexpr float lowest = -0.35f, highest = 1.45f;

  [[nodiscard]] ImVec2 at(float time, float way) const {
    return {corner.x + time * size.x, corner.y + (highest - way) / (highest - lowest) * size.y};
  }
  [[nodiscard]] std::pair<float, float> shares(ImVec2 point) const {
    return {std::clamp((point.x - corner.x) / size.x, 0.0f, 1.0f),
            std::clamp(highest - (point.y - corner.y) / size.y * (highest - lowest), lowest, highest)};
  }
};

/// A control point that is pulled with the mouse.
bool handle(const char* name, const Plot& plot, ImVec2 from, float& x, float& y) {
  constexpr float reach = 9;
  const ImVec2 at = plot.at(x, y);
  ImGui::SetCursorScreenPos({at.x - reach, at.y - reach});
  ImGui::InvisibleButton(name, {2 * reach, 2 * reach});
  const bool pulled = ImGui::IsItemActive() && ImGui::IsMouseDragging(ImGuiMouseButton_Left, 0);
  if (pulled) {
    std::tie(x, y) = plot.shares(ImGui::GetIO().MousePos);
    x = std::round(x * 100) / 100;
    y = std::round(y * 100) / 100;
  }
  ImDrawList* list = ImGui::GetWindowDrawList();
  list->AddLine(from, plot.at(x, y), ImGui::GetColorU32(ImGuiCol_TextDisabled), 1);
  list->AddCircleFilled(plot.at(x, y), ImGui::IsItemHovered() || pulled ? 7.0f : 5.0f,
                        ImGui::GetColorU32(ImGuiCol_CheckMark));
  return pulled;
}

/// The way over the time, the control points of its curve, and a card that goes so, again and again.
bool curve_editor(Glide& glide) {
  const ImVec2 start = ImGui::GetCursorScreenPos();
  const Plot plot{start, {ImGui::GetContentRegionAvail().x, 132}};
  ImDrawList* list = ImGui::GetWindowDrawList();
  list->AddRectFilled(start, {start.x + plot.size.x, start.y + plot.size.y},
                      ImGui::GetColorU32(ImGuiCol_FrameBg));
  for (const float way : {0.0f, 1.0f})
    list->AddLine(plot.at(0, way), plot.at(1, way), ImGui::GetColorU32(ImGuiCol_Separator));
  Gliding gliding(0);
  gliding.go(1, glide, 0);
  const double seconds = gliding.ends_at();
  std::array<ImVec2, 97> way{};
  for (std::size_t i = 0; i < way.size(); ++i) {
    const float share = static_cast<float>(i) / static_cast<float>(way.size() - 1);
    way[i] = plot.at(share, gliding.at(seconds * double{share}));
  }
  list->AddPolyline(way.data(), static_cast<int>(way.size()), ImGui::GetColorU32(ImGuiCol_PlotLines), 0, 2);
  bool changed = false;
  if (auto points = glide.spring ? std::nullopt : control_points(glide.curve)) {
    changed = handle("first control point", plot, plot.at(0, 0), points->x1, points->y1);
    changed = handle("second control point", plot, plot.at(1, 1), points->x2, points->y2) || changed;
    if (changed) glide.curve = *points;
  }
  // The card rests for a moment at either end.
  const float card = 17, height = 24, pause = 0.5f;
  const ImVec2 lane{start.x, start.y + plot.size.y + 6};
  const double time = std::fmod(ImGui::GetTime(), seconds + 2 * double{pause}) - double{pause};
  const float on = gliding.at(std::clamp(time, 0.0, seconds));
  const float x = lane.x + card + on * (plot.size.x - 4 * card);
  list->AddRectFilled({x, lane.y}, {x + card, lane.y + height}, ImGui::GetColorU32(ImGuiCol_Text), 3);
  ImGui::SetCursorScreenPos(start);
  ImGui::Dummy({plot.size.x, plot.size.y + height + 10});
  return changed;
}

}  // namespace

bool glide_knobs(const char* name, Glide& glide, bool& any_open) {
  if (!ImGui::TreeNode(name)) return false;
  any_open = true;
  bool changed = false;
  bool spring = glide.spring.has_value();
  if (ImGui::Checkbox("on a spring", &spring)) {
    glide.spring = spring ? std::optional(Spring{}) : std::nullopt;
    changed = true;
  }
  if (glide.spring) {
    changed = slider("period", glide.spring->period, 0.05f, 2) || changed;
    changed = slider("damping", glide.spring->damping, 0.1f, 2) || changed;
  } else {
    changed = slider("seconds", glide.seconds, 0, 2) || changed;
    if (ImGui::BeginCombo("curve", glide.curve.text().c_str())) {
      for (const char* curve : standard_curves) {
        if (!ImGui::Selectable(curve, glide.curve.text() == curve)) continue;
        glide.curve = Easing::parse(curve);
        changed = true;
      }
      ImGui::EndCombo();
    }
  }
  changed = curve_editor(glide) || changed;
  changed = slider("lift", glide.lift, 0, 2) || changed;
  changed = slider("bend", glide.bend, -1, 1) || changed;
  ImGui::TreePop();
  return changed;
}

void BenchView::feel_knobs(Playfield& field) {
  Feel feel = field.performances().feel();
  bool changed = false;
  const auto take = [&](const char* name, const Feel& from) {
    if (ImGui::Button(name)) {
      feel = from;
      changed = true;
    }
    ImGui::SameLine();
  };
  take("brisk", {});
  take("springy", springy());
  take("calm", calm());
  take("reduced", reduced(feel));
  ImGui::NewLine();
  const std::array<std::pair<const char*, Glide*>, 14> ways{{{"to another zone", &feel.move.glide},
                                                             {"making room", &feel.shift},
                                                             {"flip", &feel.flip},
                                                             {"going back", &feel.back},
                                                             {"behind the pointer", &feel.carry},
                                                             {"hovered", &feel.raise},
                                                             {"larger picture", &feel.zoom},
                                                             {"deal", &feel.deal.glide},
                                                             {"gather", &feel.gather.glide},
                                                             {"shuffle", &feel.shuffle.glide},
                                                             {"draw", &feel.draw.glide},
                                                             {"reveal", &feel.reveal.glide},
                                                             {"collect", &feel.collect.glide},
                                                             {"finale", &feel.finale.glide}}};
  bool any_open = false;
  for (const auto& [name, glide] : ways) changed = glide_knobs(name, *glide, any_open) || changed;
  const std::array<std::tuple<const char*, float*, float>, 13> numbers{
      {{"deal stagger", &feel.deal.stagger, 0.5f},
       {"gather stagger", &feel.gather.stagger, 1},
       {"shuffle stagger", &feel.shuffle.stagger, 0.2f},
       {"draw stagger", &feel.draw.stagger, 0.5f},
       {"reveal stagger", &feel.reveal.stagger, 0.5f},
       {"collect stagger", &feel.collect.stagger, 0.5f},
       {"finale stagger", &feel.finale.stagger, 0.5f},
       {"finale stays", &feel.finale_stay, 5},
       {"badges", &feel.badge, 1},
       {"move stagger", &feel.move.stagger, 0.5f},
       {"carry lift", &feel.carry_lift, 2},
       {"shake, seconds", &feel.shake.seconds, 2},
       {"pulse, seconds", &feel.pulse.seconds, 2}}};
  for (const auto& [name, number, most] : numbers) changed = slider(name, *number, 0, most) || changed;
  changed = slider("tilt", feel.tilt_angle, 0, 30) || changed;
  changed = slider("tilt speed", feel.tilt_speed, 0.5f, 40) || changed;
  changed = slider("flip axis", feel.flip_axis, -180, 180) || changed;
  changed = slider("shuffle rounds", feel.shuffle_rounds, 1, 10) || changed;
  if (any_open) window_.redraw();  // a card goes along its curve
  if (changed) field.performances().set_feel(feel);
}

}  // namespace apsidon::tool
