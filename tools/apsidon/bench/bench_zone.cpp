// What the bench shows and sets of the card and the zone under the pointer.
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <string_view>

#include "apsidon/files/table_file.hpp"
#include "bench/bench_knobs.hpp"
#include "bench/bench_view.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

using Json = nlohmann::ordered_json;

/// Where cards lie in a wider area.
bool align_knob(Align& align) {
  int at = static_cast<int>(align);
  const bool changed = ImGui::Combo("align", &at, "start\0centre\0end\0");
  align = static_cast<Align>(at);
  return changed;
}

/// The options of each layout, in the ranges in which one tries them, which are narrower than those that they
/// may have. A kind that has no knobs here does not compile; the File tab has every option.
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
    changed = slider("least covered", l.least_covered_strip, 0, l.covered_strip) || changed;
    return slider("look strip", l.look_strip, 0, 1) || changed;
  }
  bool operator()(SpreadLayout& l) const {
    bool changed = slider("spacing", l.spacing, 0, 1.5f);
    l.least_spacing = std::min(l.least_spacing, l.spacing);
    changed = slider("least spacing", l.least_spacing, 0, l.spacing) || changed;
    changed = slider("last", l.last, 0, 20) || changed;
    changed = slider("lift", l.lift, 0, 1) || changed;
    return align_knob(l.align) || changed;
  }
  bool operator()(HandLayout& l) const {
    bool changed = slider("spacing", l.spacing, 0.01f, 1.5f);
    l.least_spacing = std::min(l.least_spacing, l.spacing);
    changed = slider("least spacing", l.least_spacing, 0, l.spacing) || changed;
    changed = slider("step", l.step, 0, 20) || changed;
    changed = slider("largest angle", l.largest_angle, 0, 160) || changed;
    changed = slider("raise", l.raise, 0, 1) || changed;
    changed = slider("part", l.part, 0, 1) || changed;
    return align_knob(l.align) || changed;
  }
  bool operator()(GridLayout& l) const {
    bool changed = slider("columns", l.columns, 0, 20);
    changed = slider("rows", l.rows, 0, 20) || changed;
    changed = slider("gap", l.gap, 0, 1) || changed;
    return slider("row gap", l.row_gap, 0, 1) || changed;
  }
  bool operator()(RingLayout& l) const {
    bool changed = slider("start", l.start, -180, 180);
    changed = slider("sweep", l.sweep, 10, 360) || changed;
    return ImGui::Checkbox("turned to the middle", &l.turned) || changed;
  }
};

std::string_view place_in_stack(Explained::Because because) {
  constexpr std::array<std::string_view, 5> words{"the answer", "covered", "held", "a larger picture",
                                                  "clipped"};
  return words[std::min(static_cast<std::size_t>(because), words.size() - 1)];
}

/// What a knob has changed of one zone, and nothing else, for another of its name: columns that hold more
/// than others still do.
void set_changed(ZoneBehaviour& own, const ZoneBehaviour& before, const ZoneBehaviour& now) {
  const auto set = [](auto& value, const auto& was, const auto& is) {
    if (!(was == is)) value = is;
  };
  if (own.layout.kind.index() == now.layout.kind.index())
    set(own.layout.kind, before.layout.kind, now.layout.kind);
  set(own.layout.longest, before.layout.longest, now.layout.longest);
  own.layout.longest_covered = std::min(own.layout.longest_covered, own.layout.longest);
  set(own.layout.factor, before.layout.factor, now.layout.factor);
  set(own.layout.facing, before.layout.facing, now.layout.facing);
  set(own.handling.hover, before.handling.hover, now.handling.hover);
  set(own.handling.zoom, before.handling.zoom, now.handling.zoom);
  set(own.handling.zooms_beside_zone, before.handling.zooms_beside_zone, now.handling.zooms_beside_zone);
}

/// The innermost list that has the zone as a part of its own.
PlanNode* list_with(PlanNode& node, ZoneId zone) {
  if (node.kind != PlanKind::across && node.kind != PlanKind::down) {
    if (node.kind != PlanKind::layers) return nullptr;
  } else if (std::any_of(node.parts.begin(), node.parts.end(), [&](const PlanNode& part) {
               return part.kind == PlanKind::zone && part.zone == zone;
             })) {
    return &node;
  }
  for (PlanNode& part : node.parts) {
    if (PlanNode* found = list_with(part, zone)) return found;
  }
  return nullptr;
}

}  // namespace

void BenchView::look_below(const Playfield& field) {
  if (ImGui::GetIO().WantCaptureMouse) return;
  const ImVec2 mouse = ImGui::GetIO().MousePos;
  const Vec2 at{mouse.x, mouse.y};
  if (const Hit hit = field.where().hit(at); hit.card || hit.zone || hit.panel) last_ = hit;
}

void BenchView::pointed_at(Playfield& field, TableSetup& setup) {
  const Card* card = field.table().card(last_.card);
  const Zone* zone = field.table().zone(card ? card->zone : last_.zone);
  if (card) card_knobs(field, setup, *card);
  if (!zone && last_.panel && last_.panel.value <= field.where().panels().size())
    ImGui::Text("the panel %s", field.where().panels()[last_.panel.value - 1].name.c_str());
  if (!zone && !last_.panel) ImGui::TextDisabled("Point at a card, a zone or a panel.");
  if (!zone) return;
  if (card) ImGui::Separator();
  zone_knobs(field, setup, zone->id);
  plan_knobs(field, setup, zone->id);
}

void BenchView::card_knobs(Playfield& field, TableSetup& setup, const Card& there) {
  const Card card = there;  // a knob changes it
  const Deck& deck = field.table().deck();
  ImGui::Text("%s", card_text(field.table(), card.id).c_str());
  if (card.key != 0) {
    ImGui::SameLine();
    ImGui::TextDisabled("key %llu", static_cast<unsigned long long>(card.key));
  }
  const PickVerdict pick = field.rules().judge_pick(card.id);
  ImGui::TextWrapped("%s", pick.verdict ? fmt::format("may be picked up, {} {}", pick.run.count,
                                                      pick.run.count == 1 ? "card" : "cards")
                                              .c_str()
                                        : describe(pick.verdict, field.table()).c_str());
  if (ImGui::BeginCombo("face", deck.text(card.face).c_str())) {
    for (const FaceId face : deck.faces()) {
      if (!ImGui::Selectable(deck.text(face).c_str(), face == card.face)) continue;
      (void)field.edits().set_face(card.id, face);
      (void)setup.table.set_face(card.id, face);  // what is saved
    }
    ImGui::EndCombo();
  }
  bool open = card.face_up, sideways = card.sideways;
  if (ImGui::Checkbox("open", &open)) (void)field.edits().flip(card.id, open);
  ImGui::SameLine();
  if (ImGui::Checkbox("sideways", &sideways)) (void)field.edits().set_sideways(card.id, sideways);
  const auto pose = field.where().live_pose(card.id);
  for (const Explained& e : pose ? field.where().explain(pose->centre) : std::vector<Explained>{}) {
    if (e.what.card && field.table().card(e.what.card))
      ImGui::TextDisabled("%s: %s", deck.text(field.table().card(e.what.card)->face).c_str(),
                          std::string(place_in_stack(e.because)).c_str());
  }
}

void BenchView::zone_knobs(Playfield& field, TableSetup& setup, ZoneId zone) {
  const Zone& there = *field.table().zone(zone);
  const ZoneBehaviour before = setup.behaviour_of(zone);
  ZoneBehaviour behaviour = before;
  ImGui::Text("%s", there.name.c_str());
  ImGui::SameLine();
  ImGui::TextDisabled("a %s with %zu %s%s", std::string(traits_of(behaviour.layout.kind).name).c_str(),
                      there.cards.size(), there.cards.size() == 1 ? "card" : "cards",
                      field.where().crowded(zone) ? ", crowded" : "");
  bool changed = std::visit(LayoutKnobs{}, behaviour.layout.kind);
  changed = slider("factor", behaviour.layout.factor, 0.2f, 3) || changed;
  changed = slider("longest", behaviour.layout.longest, 0, 60) || changed;
  behaviour.layout.longest_covered = std::min(behaviour.layout.longest_covered, behaviour.layout.longest);
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
  for (const ZoneId other : meant(setup, zone)) {
    ZoneBehaviour own = setup.behaviour_of(other);
    set_changed(own, before, behaviour);
    try {
      if (field.edits().set_behaviour(other, own)) setup.set_behaviour(other, own);
    } catch (const Error& error) {  // what fits one zone may not fit another of its name
      panel_.set_message(error.what());
    }
  }
}

std::vector<ZoneId> BenchView::meant(const TableSetup& setup, ZoneId zone) const {
  std::vector<ZoneId> all{zone};
  const std::string stem = stem_of(setup.table.zone(zone)->name);
  for (const Zone& other : setup.table.zones()) {
    if (all_alike_ && other.id != zone && stem_of(other.name) == stem) all.push_back(other.id);
  }
  return all;
}

void BenchView::plan_knobs(Playfield& field, TableSetup& setup, ZoneId zone) {
  // A knob that is pulled stays with its plan, also where another one gives larger cards meanwhile.
  const auto used = std::find(setup.plans.begin(), setup.plans.end(), field.where().plan());
  if (!ImGui::IsAnyItemActive()) plan_ = static_cast<std::size_t>(used - setup.plans.begin());
  if (plan_ >= setup.plans.size()) return;
  Plan changed = setup.plans[plan_];
  bool any = false;
  if (PlanNode* list = list_with(changed.root, zone)) any = slider("gap beside it", list->gap.cards, 0, 2);
  any = slider("margin", changed.margin, 0, 120, "%.0f px") || any;
  if (!any) return;
  setup.plans[plan_] = std::move(changed);
  field.edits().set_plans(setup.plans);
}

void BenchView::zone_text(Playfield& field, TableSetup& setup) {
  const Card* card = field.table().card(last_.card);
  const ZoneId zone = card ? card->zone : last_.zone;
  if (!field.table().zone(zone))
    return ImGui::TextDisabled("Point at a zone: here it is as its file has it.");
  Json table = Json::parse(write_table(setup));
  const std::string name = setup.table.zone(zone)->name;
  const auto entry_of = [&](ZoneId id) -> Json& {
    return *std::find_if(table["zones"].begin(), table["zones"].end(),
                         [&](const Json& z) { return z["name"] == setup.table.zone(id)->name; });
  };
  Json own = entry_of(zone);
  own.erase("name");
  if (const std::string is = own.dump(2); edited_zone_ != zone || (is != edited_from_ && !editing_)) {
    edited_zone_ = zone;
    edited_from_ = is;
    edited_.fill(0);
    std::copy_n(is.begin(), std::min(is.size(), edited_.size() - 1), edited_.begin());
    edit_problem_.clear();
  }
  ImGui::AlignTextToFramePadding();
  ImGui::Text("%s", name.c_str());
  ImGui::SameLine();
  ImGui::Checkbox("all of its name", &all_alike_);
  constexpr float below = 110;  // buttons, and what is wrong
  ImGui::InputTextMultiline("##zone", edited_.data(), edited_.size(),
                            {-1, ImGui::GetContentRegionAvail().y - below});
  editing_ = ImGui::IsItemActive() || edited_from_ != edited_.data();
  if (ImGui::Button("Set")) {
    try {
      const Json was = own, is = Json::parse(edited_.data());
      for (const ZoneId id : meant(setup, zone)) {
        Json& entry = entry_of(id);
        for (const auto& [key, value] : was.items()) {
          if (!is.contains(key)) entry.erase(key);
        }
        for (const auto& [key, value] : is.items()) {
          if (was.value(key, Json()) != value) entry[key] = value;
        }
      }
      const auto read = parse_table(table.dump(), name);
      edit_problem_ = read ? "" : describe(read.error().front());
      for (const ZoneId id : read ? meant(setup, zone) : std::vector<ZoneId>{}) {
        const ZoneBehaviour behaviour = read->behaviour_of(id);
        if (field.edits().set_behaviour(id, behaviour)) setup.set_behaviour(id, behaviour);
      }
      if (read) edited_from_ = edited_.data();
    } catch (const std::exception& error) {
      edit_problem_ = error.what();
    }
  }
  ImGui::SameLine();
  if (ImGui::Button("As it was")) edited_zone_ = {};
  if (!edit_problem_.empty()) ImGui::TextWrapped("%s", edit_problem_.c_str());
}

}  // namespace apsidon::tool
