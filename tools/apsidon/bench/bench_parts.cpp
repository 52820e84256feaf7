// What the bench shows of the table as a whole: time, moves, events, and outlines over it.
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <array>
#include <string>
#include <string_view>

#include "bench/bench_knobs.hpp"
#include "bench/bench_view.hpp"

namespace apsidon::tool {
namespace {

/// Draws what a part shows of itself with the bench's own lines.
void draw(const SketchMark& mark, ImDrawList& list) {
  constexpr ImU32 thin = 0x90DFE8A9;
  constexpr ImU32 thick = 0xC04AB6E3;
  constexpr ImU32 ground = 0xC01D230E;
  constexpr ImU32 words = 0xFFFFFFFF;
  const auto at = [&](std::size_t i) { return ImVec2(mark.at[i].x, mark.at[i].y); };
  switch (mark.kind) {
    case SketchMark::Kind::line:
      return list.AddLine(at(0), at(1), thin);
    case SketchMark::Kind::box:
      return list.AddRect(at(0), at(1), thin, 2);
    case SketchMark::Kind::quad:
      return list.AddQuad(at(0), at(1), at(2), at(3), thick);
    case SketchMark::Kind::point:
      return list.AddCircleFilled(at(0), 2.5f, thick);
    case SketchMark::Kind::label:
      break;
  }
  // On cards as on the table it has to be read.
  const ImVec2 size = ImGui::CalcTextSize(mark.text.c_str());
  list.AddRectFilled({at(0).x - 3, at(0).y - 1}, {at(0).x + size.x + 3, at(0).y + size.y + 1}, ground, 3);
  list.AddText(at(0), words, mark.text.c_str());
}

}  // namespace

void BenchView::time_knobs(Playfield& field, BenchRequests& requests) {
  if (ImGui::Button("Deal")) requests.deal = true;
  ImGui::SameLine();
  if (ImGui::Button("New round")) requests.new_round = true;
  ImGui::SameLine();
  if (ImGui::Button("Undo")) (void)field.moves().undo();
  ImGui::SameLine();
  if (ImGui::Button("Redo")) (void)field.moves().redo();
  double speed = field.time().speed();
  if (slider("speed", speed, 0, 2)) field.time().set_speed(speed);
  bool stopped = field.time().stopped_for("bench");
  if (ImGui::Checkbox("Stopped", &stopped))
    stopped ? field.time().hold("bench") : field.time().release("bench");
  if (stopped) {
    ImGui::SameLine();
    if (ImGui::Button("Step")) {
      field.time().release("bench");
      step_until_ = field.now() + 1.0 / 60;
    }
  }
  if (step_until_ > 0 && field.now() >= step_until_) {
    field.time().hold("bench");
    step_until_ = 0;
  }
  for (const std::string& reason : field.time().reasons()) {
    ImGui::SameLine();
    ImGui::TextDisabled("%s", reason.c_str());
  }
  for (const std::string& reason : field.gate().reasons())
    ImGui::TextDisabled("the gate is closed: %s", reason.c_str());
}

void BenchView::log_knobs(const LogPlayer& log, BenchRequests& requests) {
  auto at = static_cast<float>(log.at());
  if (ImGui::Button(log.running() ? "Stop" : "Run")) requests.run_log = !log.running();
  ImGui::SameLine();
  if (slider("the log", at, 0, static_cast<float>(log.length()), "%.2f s")) requests.log_at = double{at};
}

void BenchView::moves_and_events(const Playfield& field) {
  panel_.events(ImGui::GetContentRegionAvail().y * 0.6f);
  const std::vector<Move> moves = field.rules().legal_moves();
  ImGui::TextDisabled("%zu legal %s", moves.size(), moves.size() == 1 ? "move" : "moves");
  ImGui::BeginChild("moves");
  for (const Move& move : moves) {
    const bool several = move.kind == MoveKind::several;
    const Card* card = field.table().card(several ? move.cards.front() : move.run.first);
    const Zone* to = field.table().zone(move.to);
    const std::string more =
        several && move.cards.size() > 1 ? fmt::format(" and {} more", move.cards.size() - 1) : "";
    const char* how = move.kind == MoveKind::flip       ? "flipped"
                      : move.kind == MoveKind::reorient ? "turned"
                                                        : "";
    ImGui::Text("%s%s %s%s",
                card ? field.table().deck().text(card->face).c_str()
                : to ? "a tap"
                     : "a named move",
                more.c_str(), to ? "to " : how, to ? to->name.c_str() : "");
  }
  ImGui::EndChild();
}

void BenchView::layer_knobs() {
  constexpr std::array<const char*, sketch_layers.size()> what{"zones, with their names",
                                                               "panels, with theirs",
                                                               "what takes the pointer",
                                                               "middles, as nothing hovers",
                                                               "strips of covered cards, px",
                                                               "where a card would be inserted",
                                                               "numbers of cards"};
  for (std::size_t i = 0; i < sketch_layers.size(); ++i) {
    ImGui::Checkbox(std::string(sketch_layers[i]).c_str(), &layers_[i]);
    ImGui::SameLine(112);
    ImGui::TextDisabled("%s", what[i]);
  }
}

void BenchView::outlines(const Playfield& field) const {
  for (const SketchMark& mark : field.where().sketch().marks) {
    const auto at = std::find(sketch_layers.begin(), sketch_layers.end(), mark.layer);
    if (at != sketch_layers.end() && layers_[static_cast<std::size_t>(at - sketch_layers.begin())])
      draw(mark, *ImGui::GetBackgroundDrawList());
  }
}

}  // namespace apsidon::tool
