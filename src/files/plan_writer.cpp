#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/plan_json.hpp"
#include "layout/fields.hpp"

namespace apsidon::files_detail {
namespace {

using Json = nlohmann::ordered_json;

Json json_of(const Length& length) {
  if (length.px == 0) return decimal(length.cards);
  Json json;
  if (length.cards != 0) json["cards"] = decimal(length.cards);
  json["px"] = decimal(length.px);
  return json;
}

Json json_of(const PlanNode& node, const TableSetup& setup) {
  Json json;
  switch (node.kind) {
    case PlanKind::zone:
      json["zone"] = setup.table.zone(node.zone)->name;
      break;
    case PlanKind::panel:
      json["panel"] = setup.panels[node.panel.value - 1].name;
      json["width"] = json_of(node.width);
      json["height"] = json_of(node.height);
      break;
    case PlanKind::space:
      json["space"] = json_of(node.space);
      break;
    case PlanKind::formation:
      for (const FormationSlot& place : node.places) {
        Json slot;
        slot["zone"] = setup.table.zone(place.zone)->name;
        slot["at"] = {decimal(place.at.x), decimal(place.at.y)};
        json["slots"].push_back(slot);
      }
      break;
    case PlanKind::layers:
      for (const PlanNode& part : node.parts) json["layers"].push_back(json_of(part, setup));
      break;
    case PlanKind::across:
    case PlanKind::down: {
      Json& parts = json[node.kind == PlanKind::across ? "across" : "down"];
      for (const PlanNode& part : node.parts) parts.push_back(json_of(part, setup));
      json["gap"] = json_of(node.gap);
      json["justify"] = name_in(justify_names, node.justify);
      break;
    }
  }
  if (node.share != 0) json["share"] = decimal(node.share);
  if (node.least != Length{}) json["least"] = json_of(node.least);
  if (node.most) json["most"] = json_of(*node.most);
  if (node.place) {
    json["place"] = {name_in(align_names, node.place->across), name_in(align_names, node.place->down)};
  }
  if (node.cross != Cross::stretch) json["cross"] = name_in(cross_names, node.cross);
  return json;
}

}  // namespace

Json json_of(const Plan& plan, const TableSetup& setup) {
  Json json;
  if (!plan.name.empty()) json["name"] = plan.name;
  json["margin"] = decimal(plan.margin);
  json["aspect"] = decimal(plan.aspect);
  if (plan.mirrored) json["mirrored"] = true;
  if (plan.largest_width > 0) json["largest_width"] = decimal(plan.largest_width);
  if (!plan.whole_multiples_of.empty()) json["whole_multiples"] = true;
  json["root"] = json_of(plan.root, setup);
  for (const Overlay& overlay : plan.overlays) {
    Json entry;
    entry["panel"] = setup.panels[overlay.panel.value - 1].name;
    entry["width"] = json_of(overlay.width);
    entry["height"] = json_of(overlay.height);
    entry["across"] = name_in(align_names, overlay.across);
    entry["down"] = name_in(align_names, overlay.down);
    if (overlay.hits != OverlayHits::own) entry["hits"] = name_in(overlay_hits_names, overlay.hits);
    if (overlay.inside != PlanNode{}) entry["inside"] = json_of(overlay.inside, setup);
    if (overlay.padding != Overlay{}.padding) entry["padding"] = json_of(overlay.padding);
    json["overlays"].push_back(entry);
  }
  return json;
}

}  // namespace apsidon::files_detail
