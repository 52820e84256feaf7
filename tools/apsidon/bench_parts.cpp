// What the bench shows of the table as a whole: time, moves, events, and outlines over it.
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <array>
#include <string>
#include <string_view>

#include "bench_knobs.hpp"
#include "bench_view.hpp"

namespace apsidon::tool {
namespace {

/// Draws what a part shows of itself with the bench's own lines.
class BenchSketch final : public Sketch {
 public:
  BenchSketch(ImDrawList* list, const std::array<bool, sketch_layers.size()>& layers)
      : list_(list), layers_(layers) {}

  void line(std::string_view layer, Vec2 from, Vec2 to) override {
    if (shows(layer)) list_->AddLine(at(from), at(to), thin);
  }
  void box(std::string_view layer, const Rect& box) override {
    if (shows(layer)) list_->AddRect(at(box.min), at(box.max), thin, 2);
  }
  void quad(std::string_view layer, const Quad& quad) override {
    const auto& c = quad.corners;
    if (shows(layer)) list_->AddQuad(at(c[0]), at(c[1]), at(c[2]), at(c[3]), thick);
  }
  void point(std::string_view layer, Vec2 p) override {
    if (shows(layer)) list_->AddCircleFilled(at(p), 2.5f, thick);
  }
  void label(std::string_view layer, Vec2 p, std::string_view text) override {
    if (!shows(layer)) return;
    // On cards as on the table it has to be read.
    const ImVec2 size = ImGui::CalcTextSize(text.data(), text.data() + text.size());
    list_->AddRectFilled({p.x - 3, p.y - 1}, {p.x + size.x + 3, p.y + size.y + 1}, ground, 3);
    list_->AddText(at(p), words, text.data(), text.data() + text.size());
  }

 private:
  static constexpr ImU32 thin = 0x90DFE8A9;
  static constexpr ImU32 thick = 0xC04AB6E3;
  static constexpr ImU32 ground = 0xC01D230E;
  static constexpr ImU32 words = 0xFFFFFFFF;

  static ImVec2 at(Vec2 p) { return {p.x, p.y}; }
  [[nodiscard]] bool shows(std::string_view layer) const {
    const auto at = std::find(sketch_layers.begin(), sketch_layers.end(), layer);
    return at != sketch_layers.end() && layers_[static_cast<std::size_t>(at - sketch_layers.begin())];
  }

  ImDrawList* list_;
  const std::array<bool, sketch_layers.size()>& layers_;
};

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
    const Card* card = field.table().card(move.run.first);
    ImGui::Text("%s to %s", card ? field.table().deck().text(card->face).c_str() : "a tap",
                field.table().zone(move.to)->name.c_str());
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
  BenchSketch sketch(ImGui::GetBackgroundDrawList(), layers_);
  field.where().sketch(sketch);
}

}  // namespace apsidon::tool
