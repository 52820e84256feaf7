#include "files/panel_json.hpp"

#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/rules_json.hpp"
#include "play/values/input_fields.hpp"

namespace apsidon::files_detail {

namespace {

using Json = nlohmann::ordered_json;

}  // namespace

PanelSetup read_panel(const Node& node, const Table& table) {
  node.expect_keys(
      {"name", "repeat", "kind", "text", "fill", "tone", "seat", "round", "hidden", "off", "data"});
  PanelSetup panel{.name = node.at("name").name()};
  if (node.has("kind"))
    panel.kind = named(node.child("kind"), "kind of panel", node.child("kind").text(), panel_names);
  if (node.has("fill") && node.child("fill").json().is_object()) {
    const Node fill = node.child("fill");
    fill.expect_keys({"number", "of"});
    panel.filled_by = fill.at("number").text();
    const Node of = fill.at("of");
    const bool whole = of.json().is_number();
    panel.full_at = whole ? std::to_string(of.whole(1, largest_number)) : of.text();
  } else {
    panel.fill = node.number_or("fill", panel.fill, 0, 1);
  }
  if (node.has("tone"))
    panel.tone = named(node.child("tone"), "tone", node.child("tone").text(), play_detail::tone_words);
  if (node.has("seat")) panel.seat = seat_named(node.child("seat"), table);
  panel.round = node.truth_or("round", false);
  panel.hidden = node.truth_or("hidden", false);
  panel.off = node.truth_or("off", false);
  return panel;
}

Json json_of(const PanelSetup& panel, const Table& table, Verbatim& verbatim) {
  Json json;
  json["name"] = panel.name;
  json["kind"] = name_in(panel_names, panel.kind);
  if (!panel.text.empty()) json["text"] = panel.text;
  if (!panel.filled_by.empty()) {
    json["fill"] = {{"number", panel.filled_by}, {"of", panel.full_at}};
  } else if (panel.fill != 1) {
    json["fill"] = decimal(panel.fill);
  }
  if (panel.tone != PanelTone::neutral) json["tone"] = name_in(play_detail::tone_words, panel.tone);
  if (panel.seat) json["seat"] = table.seats()[panel.seat.value - 1].name;
  if (panel.round) json["round"] = true;
  if (panel.hidden) json["hidden"] = true;
  if (panel.off) json["off"] = true;
  if (!panel.data.empty()) json["data"] = verbatim.stand_in(panel.data);
  return json;
}

}  // namespace apsidon::files_detail
