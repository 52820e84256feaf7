// What the bench shows, section by section.
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <numbers>
#include <string_view>

#include "apsidon/motion/gliding.hpp"
#include "bench_view.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

bool slider(const char* name, float& value, float least, float most, const char* format = "%.2f") {
  return ImGui::SliderFloat(name, &value, least, most, format, ImGuiSliderFlags_AlwaysClamp);
}

bool slider(const char* name, double& value, double least, double most) {
  return ImGui::SliderScalar(name, ImGuiDataType_Double, &value, &least, &most, "%.2f",
                             ImGuiSliderFlags_AlwaysClamp);
}

bool slider(const char* name, Angle& value, float least, float most) {
  auto degrees = static_cast<float>(value.degrees());
  if (!slider(name, degrees, least, most, "%.1f\xC2\xB0")) return false;
  value = Angle::degrees(double{degrees});
  return true;
}

/// The options of each layout that are seen best.
struct LayoutKnobs {
  bool operator()(SlotLayout&) const { return false; }
  bool operator()(CustomLayout&) const { return false; }
  bool operator()(FreeLayout&) const { return false; }
  bool operator()(PileLayout& l) const {
    bool changed = slider("thickness", l.thickness, 0, 0.05f, "%.3f");
    changed = slider("untidy angle", l.untidy_angle, 0, 30) || changed;
    return slider("untidy offset", l.untidy_offset, 0, 0.5f) || changed;
  }
  bool operator()(ColumnLayout& l) const {
    bool changed = slider("open strip", l.open_strip, 0.05f, 1);
    changed = slider("covered strip", l.covered_strip, 0.02f, 1) || changed;
    l.least_open_strip = std::min(l.least_open_strip, l.open_strip);
    l.least_covered_strip = std::min(l.least_covered_strip, l.covered_strip);
    changed = slider("least open strip", l.least_open_strip, 0, l.open_strip) || changed;
    return slider("look strip", l.look_strip, 0, 1) || changed;
  }
  bool operator()(SpreadLayout& l) const {
    bool changed = slider("spacing", l.spacing, 0, 1.5f);
    l.least_spacing = std::min(l.least_spacing, l.spacing);
    return slider("least spacing", l.least_spacing, 0, l.spacing) || changed;
  }
  bool operator()(HandLayout& l) const {
    bool changed = slider("spacing", l.spacing, 0, 1.5f);
    l.least_spacing = std::min(l.least_spacing, l.spacing);
    changed = slider("step", l.step, 0, 20) || changed;
    return slider("largest angle", l.largest_angle, 0, 170) || changed;
  }
  bool operator()(GridLayout& l) const {
    bool changed = slider("gap", l.gap, 0, 1);
    return slider("row gap", l.row_gap, 0, 1) || changed;
  }
  bool operator()(RingLayout& l) const {
    bool changed = slider("start", l.start, -180, 180);
    return slider("sweep", l.sweep, 10, 360) || changed;
  }
};

std::string_view why(Explained::Because because) {
  constexpr std::array<std::string_view, 5> words{"the answer", "covered", "held", "a larger picture",
                                                  "clipped"};
  return words[std::min(static_cast<std::size_t>(because), words.size() - 1)];
}

/// A glide by its seconds, or its spring's period and damping.
bool glide_knobs(const char* name, Glide& glide) {
  bool changed = false;
  if (!ImGui::TreeNode(name)) return false;
  if (glide.spring) {
    changed = slider("period", glide.spring->period, 0.05f, 2);
    changed = slider("damping", glide.spring->damping, 0.1f, 2) || changed;
  } else {
    changed = slider("seconds", glide.seconds, 0, 2);
  }
  changed = slider("lift", glide.lift, 0, 2) || changed;
  changed = slider("bend", glide.bend, -1, 1) || changed;
  // How it goes: the share of the way over time.
  Gliding gliding(0);
  gliding.go(1, glide, 0);
  std::array<float, 64> way{};
  for (std::size_t i = 0; i < way.size(); ++i)
    way[i] = gliding.at(gliding.ends_at() * static_cast<double>(i) / static_cast<double>(way.size() - 1));
  ImGui::PlotLines("way", way.data(), static_cast<int>(way.size()), 0, nullptr, -0.2f, 1.4f, {0, 52});
  ImGui::TreePop();
  return changed;
}

/// Draws what a part shows of itself with the bench's own lines.
class BenchSketch final : public Sketch {
 public:
  explicit BenchSketch(ImDrawList* list) : list_(list) {}

  void line(std::string_view, Vec2 from, Vec2 to) override { list_->AddLine(at(from), at(to), thin); }
  void box(std::string_view, const Rect& box) override { list_->AddRect(at(box.min), at(box.max), thin, 2); }
  void quad(std::string_view, const Quad& quad) override {
    const auto& c = quad.corners;
    list_->AddQuad(at(c[0]), at(c[1]), at(c[2]), at(c[3]), thick);
  }
  void point(std::string_view, Vec2 p) override { list_->AddCircleFilled(at(p), 2.5f, thick); }
  void label(std::string_view, Vec2 p, std::string_view text) override {
    list_->AddText(at(p), 0xFFFFFFFF, text.data(), text.data() + text.size());
  }

 private:
  static constexpr ImU32 thin = 0x90DFE8A9;
  static constexpr ImU32 thick = 0xC04AB6E3;

  static ImVec2 at(Vec2 p) { return {p.x, p.y}; }

  ImDrawList* list_;
};

/// What a knob has changed of one zone, and nothing else, for another of its name: columns that hold more
/// than others still do.
void set_changed(ZoneBehaviour& own, const ZoneBehaviour& before, const ZoneBehaviour& now) {
  const auto set = [](auto& value, const auto& was, const auto& is) {
    if (!(was == is)) value = is;
  };
  if (own.layout.layout.index() == now.layout.layout.index())
    set(own.layout.layout, before.layout.layout, now.layout.layout);
  set(own.layout.longest, before.layout.longest, now.layout.longest);
  own.layout.longest_covered = std::min(own.layout.longest_covered, own.layout.longest);
  set(own.layout.factor, before.layout.factor, now.layout.factor);
  set(own.layout.facing, before.layout.facing, now.layout.facing);
  set(own.handling.hover, before.handling.hover, now.handling.hover);
  set(own.handling.zoom, before.handling.zoom, now.handling.zoom);
}

}  // namespace

void BenchView::time_knobs(Playfield& field, BenchRequests& requests) const {
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
  for (const std::string& reason : field.time().reasons()) {
    ImGui::SameLine();
    ImGui::TextDisabled("%s", reason.c_str());
  }
  for (const std::string& reason : field.gate().reasons())
    ImGui::TextDisabled("the gate is closed: %s", reason.c_str());
}

void BenchView::pointed_at(Playfield& field, TableSetup& setup) {
  if (!ImGui::GetIO().WantCaptureMouse) {
    const ImVec2 mouse = ImGui::GetIO().MousePos;
    const Vec2 at{mouse.x, mouse.y};
    if (const Hit hit = field.where().hit(at); hit.card || hit.zone || hit.panel) last_ = hit;
  }
  if (!ImGui::CollapsingHeader("Under the pointer", ImGuiTreeNodeFlags_DefaultOpen)) return;
  const Table& table = field.table();
  const Card* card = table.card(last_.card);
  const Zone* zone = table.zone(card ? card->zone : last_.zone);
  if (!zone) return ImGui::TextDisabled("Point at a card or a zone.");
  if (card) {
    ImGui::Text("%s", card_text(table, card->id).c_str());
    const PickVerdict pick = field.rules().judge_pick(card->id);
    ImGui::TextWrapped("%s", pick.verdict ? fmt::format("may be picked up, {} {}", pick.run.count,
                                                        pick.run.count == 1 ? "card" : "cards")
                                                .c_str()
                                          : describe(pick.verdict, table).c_str());
    bool open = card->face_up, sideways = card->sideways;
    if (ImGui::Checkbox("open", &open)) (void)field.edits().flip(card->id, open);
    ImGui::SameLine();
    if (ImGui::Checkbox("sideways", &sideways)) (void)field.edits().set_sideways(card->id, sideways);
    const auto pose = field.where().live_pose(last_.card);
    for (const Explained& e : pose ? field.where().explain(pose->centre) : std::vector<Explained>{}) {
      if (e.what.card && table.card(e.what.card))
        ImGui::TextDisabled("%s: %s", table.deck().text(table.card(e.what.card)->face).c_str(),
                            std::string(why(e.because)).c_str());
    }
  }
  zone_knobs(field, setup, zone->id);
}

void BenchView::zone_knobs(Playfield& field, TableSetup& setup, ZoneId zone) {
  ImGui::Separator();
  const Zone& there = *field.table().zone(zone);
  const ZoneBehaviour before = setup.behaviour_of(zone);
  ZoneBehaviour behaviour = before;
  ImGui::Text("%s, a %s with %zu %s%s", there.name.c_str(),
              std::string(name_of(behaviour.layout.layout)).c_str(), there.cards.size(),
              there.cards.size() == 1 ? "card" : "cards", field.where().crowded(zone) ? ", crowded" : "");
  bool changed = std::visit(LayoutKnobs{}, behaviour.layout.layout);
  changed = slider("factor", behaviour.layout.factor, 0.2f, 3) || changed;
  changed = ImGui::SliderInt("longest", &behaviour.layout.longest, 0, 60) || changed;
  int facing = static_cast<int>(behaviour.layout.facing);
  changed = ImGui::Combo("facing", &facing, "bottom\0left\0top\0right\0") || changed;
  behaviour.layout.facing = static_cast<Facing>(facing);
  int hover = static_cast<int>(behaviour.handling.hover);
  changed = ImGui::Combo("hover", &hover, "none\0lift\0raise\0") || changed;
  behaviour.handling.hover = static_cast<decltype(behaviour.handling.hover)>(hover);
  changed = ImGui::Checkbox("zoom", &behaviour.handling.zoom) || changed;
  ImGui::SameLine();
  ImGui::Checkbox("all of its name", &all_alike_);
  if (!changed) return;
  const std::string stem = there.name.substr(0, there.name.find_last_not_of("-0123456789") + 1);
  for (const Zone& other : setup.table.zones()) {
    const bool alike =
        all_alike_ && other.name.substr(0, other.name.find_last_not_of("-0123456789") + 1) == stem;
    if (other.id != zone && !alike) continue;
    ZoneBehaviour own = setup.behaviour_of(other.id);
    set_changed(own, before, behaviour);
    if (!field.edits().set_behaviour(other.id, own)) continue;
    setup.set_behaviour(other.id, own);
  }
}

void BenchView::feel_knobs(Playfield& field) {
  if (!ImGui::CollapsingHeader("Feel")) return;
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
  changed = glide_knobs("move", feel.move) || changed;
  changed = glide_knobs("shift", feel.shift) || changed;
  changed = glide_knobs("flip", feel.flip) || changed;
  changed = glide_knobs("back", feel.back) || changed;
  changed = glide_knobs("raise", feel.raise) || changed;
  changed = glide_knobs("zoom", feel.zoom) || changed;
  changed = glide_knobs("deal", feel.deal.glide) || changed;
  changed = slider("deal stagger", feel.deal.stagger, 0, 0.5f) || changed;
  changed = slider("carry lift", feel.carry_lift, 0, 2) || changed;
  changed = slider("tilt", feel.tilt_deg, 0, 30, "%.1f\xC2\xB0") || changed;
  if (changed) field.performances().set_feel(feel);
}

void BenchView::moves_and_events(const Playfield& field) {
  if (ImGui::CollapsingHeader("Legal moves")) {
    const std::vector<Move> moves = field.rules().legal_moves();
    constexpr std::size_t most = 12;
    for (std::size_t i = 0; i < std::min(moves.size(), most); ++i) {
      const Card* card = field.table().card(moves[i].run.first);
      ImGui::Text("%s to %s", card ? field.table().deck().text(card->face).c_str() : "a tap",
                  field.table().zone(moves[i].to)->name.c_str());
    }
    if (moves.size() > most) ImGui::TextDisabled("and %zu more", moves.size() - most);
    if (moves.empty()) ImGui::TextDisabled("none");
  }
  if (!ImGui::CollapsingHeader("Events", ImGuiTreeNodeFlags_DefaultOpen)) return;
  ImGui::InputTextWithHint("only", "a word of them", filter_.data(), filter_.size());
  const std::string wanted = filter_.data();
  constexpr int most = 8;
  int shown = 0;
  for (const std::string& line : events_) {
    if (line.find(wanted) == std::string::npos) continue;
    ImGui::TextUnformatted(line.c_str());
    if (++shown == most) break;
  }
}

void BenchView::outlines(const Playfield& field) const {
  BenchSketch sketch(ImGui::GetBackgroundDrawList());
  field.where().sketch(sketch);
}

}  // namespace apsidon::tool
