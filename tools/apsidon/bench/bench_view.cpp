#include "bench/bench_view.hpp"

#include <fmt/format.h>
#include <imgui.h>

namespace apsidon::tool {

void BenchView::hear(const Event& event, const Playfield& field) {
  const std::string sentence = describe(event, field);
  std::string line = fmt::format("{:8.2f}  {}", event.time, name_of(event.kind));
  if (!sentence.empty()) line += ": " + sentence;
  panel_.hear(std::move(line));
}

BenchRequests BenchView::update(Playfield& field, TableSetup& setup, const LogPlayer* log) {
  BenchRequests requests;
  if (panel_.begin(setup.name)) {
    if (ImGui::Button("Save table")) requests.save_table = true;
    ImGui::SameLine();
    if (ImGui::Button("Save feel")) requests.save_feel = true;
    time_knobs(field, requests);
    if (log) log_knobs(*log, requests);
    look_below(field);
    if (ImGui::BeginTabBar("tabs")) {
      panel_.tab("Pointer", [&] { pointed_at(field, setup); });
      panel_.tab("File", [&] { zone_text(field, setup); });
      panel_.tab("Feel", [&] { feel_knobs(field); });
      panel_.tab("Events", [&] { moves_and_events(field); });
      panel_.tab("Outlines", [&] { layer_knobs(); });
      ImGui::EndTabBar();
    }
    outlines(field);
  }
  panel_.end();
  return requests;
}

}  // namespace apsidon::tool
