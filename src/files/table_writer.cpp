#include <fmt/format.h>

#include <cmath>

#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/names.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using Json = nlohmann::ordered_json;

/// A float by its shortest decimal digits: 0.62 rather than 0.6200000047683716.
Json decimal(float value) { return Json::parse(fmt::format("{}", value)); }

/// The fewest decimals of a degree that are read again as the same angle: 3.5 rather than 3.500000034.
double degrees(Angle angle) {
  for (double steps = 1; steps < 1e12; steps *= 10) {
    const double rounded = std::round(angle.degrees() * steps) / steps;
    if (Angle::degrees(rounded) == angle) return rounded;
  }
  return angle.degrees();
}

struct LayoutJson {
  Json json;
  void operator()(const SlotLayout&) {}
  void operator()(const PileLayout& l) {
    json["thickness"] = decimal(l.thickness);
    json["most_thickness"] = decimal(l.most_thickness);
  }
  void operator()(const ColumnLayout& l) {
    json["open_strip"] = decimal(l.open_strip);
    json["covered_strip"] = decimal(l.covered_strip);
    json["least_open_strip"] = decimal(l.least_open_strip);
    json["least_covered_strip"] = decimal(l.least_covered_strip);
  }
  void operator()(const HandLayout& l) {
    json["spacing"] = decimal(l.spacing);
    json["least_spacing"] = decimal(l.least_spacing);
    json["step_deg"] = degrees(l.step);
    json["largest_angle_deg"] = degrees(l.largest_angle);
    json["raise"] = decimal(l.raise);
    json["part"] = decimal(l.part);
  }
  void operator()(const GridLayout& l) {
    json["columns"] = l.columns;
    json["gap"] = decimal(l.gap);
    json["least_strip"] = decimal(l.least_strip);
  }
};

Json json_of(const Layout& layout) {
  LayoutJson out;
  out.json["kind"] = name_of(layout);
  std::visit([&](const auto& l) { out(l); }, layout);
  return out.json;
}

Json json_of(const Rule& rule, const Deck& deck) {
  const std::string name(name_in(rule_names, rule.kind));
  if (!has_argument(rule.kind)) return name;
  Json json;
  if (rule.kind == RuleKind::at_most) {
    json[name] = rule.number;
  } else if (rule.kind == RuleKind::rank_on_empty) {
    json[name] = deck.options().ranks[static_cast<std::size_t>(rule.number)];
  } else if (rule.kind == RuleKind::negate) {
    json[name] = json_of(rule.parts.front(), deck);
  } else {
    json[name] = Json::array();
    for (const Rule& part : rule.parts) json[name].push_back(json_of(part, deck));
  }
  return json;
}

Json json_of(const PickRule& pick, const Deck& deck) {
  const std::string name(name_in(pick_names, pick.kind));
  if (pick.kind != PickKind::run) return name;
  Json json;
  json[name] = json_of(pick.link, deck);
  return json;
}

Json json_of(const Card& card, const Deck& deck, bool open) {
  if (card.key == 0 && !card.sideways && card.face_up == open) return deck.text(card.face);
  Json json;
  json["face"] = deck.text(card.face);
  if (card.key != 0) json["key"] = card.key;
  if (card.face_up != open) json["face_up"] = card.face_up;
  if (card.sideways) json["sideways"] = true;
  return json;
}

/// An array of open cards, or the covered ones below the open ones where a zone lies so.
Json cards_json(const Table& table, const Zone& zone) {
  std::size_t covered = 0;
  while (covered < zone.cards.size() && !table.card(zone.cards[covered])->face_up) ++covered;
  Json lower = Json::array();
  Json upper = Json::array();
  for (std::size_t i = 0; i < zone.cards.size(); ++i) {
    const bool open = i >= covered;
    (open ? upper : lower).push_back(json_of(*table.card(zone.cards[i]), table.deck(), open));
  }
  if (covered == 0) return upper;
  Json json;
  json["covered"] = lower;
  if (!upper.empty()) json["open"] = upper;
  return json;
}

Json json_of(const PlanNode& node, const Table& table) {
  Json json;
  if (node.kind == PlanKind::zone) json["zone"] = table.zone(node.zone)->name;
  if (node.kind == PlanKind::space) json["space"] = decimal(node.space);
  if (node.kind == PlanKind::across || node.kind == PlanKind::down) {
    Json& parts = json[node.kind == PlanKind::across ? "across" : "down"];
    for (const PlanNode& part : node.parts) parts.push_back(json_of(part, table));
    json["gap"] = decimal(node.gap);
    json["justify"] = name_in(justify_names, node.justify);
  }
  if (node.share != 0) json["share"] = decimal(node.share);
  return json;
}

}  // namespace

std::string write_table(const TableSetup& setup) {
  const Table& table = setup.table;
  Verbatim verbatim;
  Json json;
  json["apsidon"] = "table";
  json["version"] = 1;
  if (!setup.name.empty()) json["name"] = setup.name;
  json["deck"] = json_of(table.deck(), verbatim);
  json["zones"] = Json::array();
  json["cards"] = Json::object();
  for (const Zone& zone : table.zones()) {
    const std::size_t i = zone.id.value - 1;
    Json entry;
    entry["id"] = zone.name;
    if (zone.key != 0) entry["key"] = zone.key;
    entry["layout"] = json_of(setup.places[i].layout);
    entry["longest"] = setup.places[i].longest;
    entry["pick"] = json_of(setup.rules[i].pick, table.deck());
    entry["drop"] = json_of(setup.rules[i].drop, table.deck());
    json["zones"].push_back(entry);
    if (!zone.cards.empty()) json["cards"][zone.name] = cards_json(table, zone);
  }
  json["plans"] = Json::array();
  for (const Plan& plan : setup.plans) {
    Json entry;
    if (!plan.name.empty()) entry["name"] = plan.name;
    entry["margin"] = decimal(plan.margin);
    entry["aspect"] = decimal(plan.aspect);
    if (plan.largest_width > 0) entry["largest_width"] = decimal(plan.largest_width);
    entry["root"] = json_of(plan.root, table);
    json["plans"].push_back(entry);
  }
  if (setup.deal_from) json["deal_from"] = table.zone(setup.deal_from)->name;
  if (!setup.data.empty()) json["data"] = verbatim.stand_in(setup.data);
  return verbatim.written(json);
}

}  // namespace apsidon
