#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/limits.hpp"

#include "files/names.hpp"
#include "files/plan_json.hpp"
#include "layout/fields.hpp"

namespace apsidon::files_detail {
namespace {

/// A number of card widths, or an object with cards and px.
Length length_from(const Node& node) {
  if (node.json().is_number()) return {.cards = static_cast<float>(node.number(0, 1000))};
  node.expect_form(node.json().is_object(), "a number of card widths, or an object with 'cards' and 'px',");
  node.expect_keys({"cards", "px"});
  return {.cards = node.number_or("cards", 0, 0, 1000), .px = node.number_or("px", 0, 0, 100'000)};
}

Length length_or(const Node& node, std::string_view key, const Length& otherwise) {
  return node.has(key) ? length_from(node.child(key)) : otherwise;
}

constexpr std::array<std::string_view, 9> node_kinds{"across", "down",      "layers", "zone", "each",
                                                     "panel",  "formation", "slots",  "seats"};

/// The keys that every node may have beside its own.
void expect_node(const Node& node, std::vector<std::string_view> keys) {
  keys.insert(keys.end(), {"share", "least", "most", "cross", "place"});
  node.expect_keys(keys);
}

}  // namespace

std::string nth_name(std::string_view base, int n) { return fmt::format("{}-{}", base, n); }

ZoneId zone_named(const Node& node, const Table& table) {
  const std::string name = node.text();
  if (const auto zone = table.find_zone(name)) return *zone;
  std::vector<std::string> names;
  for (const Zone& zone : table.zones()) names.push_back(zone.name);
  node.stop_unknown("zone", name, names);
}

PlanReader::PlanReader(const TableSetup& setup, const PlanNames& names) : setup_(setup), names_(names) {
  for (std::size_t i = 0; i < setup.panels.size(); ++i)
    panels_.emplace(setup.panels[i].name, PanelId{static_cast<std::uint32_t>(i + 1)});
}

Plan PlanReader::read(const Node& node) {
  node.expect_keys(
      {"name", "margin", "aspect", "largest_width", "whole_multiples", "mirrored", "root", "overlays"});
  placed_.clear();
  shown_.clear();
  Plan plan{.name = node.text_or("name", ""), .root = {}};
  plan.margin = node.number_or("margin", plan.margin, 0, 10'000);
  const Size& art = setup_.art_size;
  if (!art.empty()) plan.aspect = art.width / art.height;
  plan.aspect = node.number_or("aspect", plan.aspect, 0.05, 20);
  plan.mirrored = node.truth_or("mirrored", false);
  plan.largest_width = node.number_or("largest_width", plan.largest_width, 0, 1e6);
  if (node.truth_or("whole_multiples", false)) {
    if (art.empty()) {
      node.child("whole_multiples")
          .stop(ProblemCode::missing_key,
                "the table does not say how large its pictures are: \"art\": {\"width\", \"height\"} is "
                "expected");
    }
    plan.whole_multiples_of = art;
  }
  auto roots = read_node(node.at("root"));
  if (roots.size() != 1)
    node.child("root").stop(ProblemCode::misplaced, "one node is expected at the root of a plan");
  plan.root = std::move(roots.front());
  if (node.has("overlays")) {
    for (const Node& overlay : node.child("overlays").items()) plan.overlays.push_back(read_overlay(overlay));
  }
  for (const Zone& zone : setup_.table.zones()) {
    if (!placed_.contains(zone.id) && !setup_.layout_of(zone.id).off_table) {
      node.child("root").stop(
          ProblemCode::misplaced,
          fmt::format("zone '{}' has no place: every zone is expected in the plan", zone.name));
    }
  }
  node.guard(ProblemCode::out_of_range, [&] { check(plan, setup_.layouts(), setup_.panels.size()); });
  return plan;
}

void PlanReader::place(const Node& node, ZoneId id) {
  if (placed_.insert(id).second) return;
  node.stop(ProblemCode::misplaced, fmt::format("zone '{}' has a place already: each zone is expected once",
                                                setup_.table.zone(id)->name));
}

/// In what stands for the n-th of a group, a name means the n-th of that name, where there is one.
std::string PlanReader::name_in_each(const Node& node) const {
  return nth_ == 0 ? node.text() : nth_name(node.text(), nth_);
}

ZoneId PlanReader::place(const Node& node) {
  const auto nth = setup_.table.find_zone(name_in_each(node));
  const ZoneId id = nth ? *nth : zone_named(node, setup_.table);
  place(node, id);
  return id;
}

PanelId PlanReader::place_panel(const Node& node) {
  const std::string name = node.text();
  for (const std::string& looked_for : {name_in_each(node), name}) {
    const auto found = panels_.find(looked_for);
    if (found == panels_.end()) continue;
    const PanelId id = found->second;
    if (shown_.insert(id).second) return id;
    node.stop(ProblemCode::misplaced,
              fmt::format("panel '{}' has a place already: each panel is expected at most once",
                          shown(looked_for)));
  }
  std::vector<std::string> names;
  for (const PanelSetup& panel : setup_.panels) names.push_back(panel.name);
  if (names.empty())
    node.stop(ProblemCode::unknown_name,
              fmt::format("unknown panel '{}': the table has no panels", shown(name)));
  node.stop_unknown("panel", name_in_each(node), names);
}

void PlanReader::read_common(const Node& node, PlanNode& into) const {
  into.share = node.number_or("share", into.share, 0, 1000);
  into.least = length_or(node, "least", into.least);
  if (node.has("most")) into.most = length_from(node.child("most"));
  if (node.has("cross"))
    into.cross = named(node.child("cross"), "cross", node.child("cross").text(), cross_names);
  if (!node.has("place")) return;
  const auto both = node.child("place").items();
  if (both.size() != 2)
    node.child("place").stop(ProblemCode::wrong_type, "two words are expected: across and down");
  into.place = Placement{named(both[0], "place", both[0].text(), align_names),
                         named(both[1], "place", both[1].text(), align_names)};
}

PlanNode PlanReader::read_list(const Node& node, std::string_view direction) {
  expect_node(node, {direction, "gap", "justify"});
  PlanNode list{.kind = direction == "across" ? PlanKind::across
                        : direction == "down" ? PlanKind::down
                                              : PlanKind::layers};
  list.gap = length_or(node, "gap", list.gap);
  if (node.has("justify")) {
    list.justify = named(node.child("justify"), "justify", node.child("justify").text(), justify_names);
  }
  for (const Node& part : node.child(direction).items()) {
    for (PlanNode& read : read_node(part)) list.parts.push_back(std::move(read));
  }
  if (list.parts.empty())
    node.child(direction).stop(ProblemCode::missing_key, "no parts: at least one is expected");
  return list;
}

PlanNode PlanReader::read_seats(const Node& node) {
  expect_node(node, {"seats", "middle", "gap"});
  std::vector<PlanNode> taken;
  for (const Node& seat : node.child("seats").items()) {
    for (PlanNode& read : read_node(seat)) taken.push_back(std::move(read));
  }
  if (taken.empty()) node.child("seats").stop(ProblemCode::missing_key, "no seats: at least one is expected");
  auto middle = read_node(node.at("middle"));
  if (middle.size() != 1)
    node.child("middle").stop(ProblemCode::misplaced, "one node is expected in the middle");
  return seats(std::move(taken), std::move(middle.front()), node.number_or("gap", 0.3f, 0, 100));
}

PlanNode PlanReader::read_panel(const Node& node) {
  expect_node(node, {"panel", "width", "height"});
  return panel(place_panel(node.child("panel")), length_or(node, "width", {}), length_or(node, "height", {}));
}

PlanNode PlanReader::read_formation(const Node& node) {
  expect_node(node, {"formation"});
  const Node name = node.child("formation");
  const auto found = names_.formations.find(name.text());
  if (found == names_.formations.end()) {
    std::vector<std::string> known;
    for (const auto& [id, formation] : names_.formations) known.push_back(id);
    if (known.empty()) name.stop(ProblemCode::unknown_name, "no zone of the table is a formation");
    name.stop_unknown("formation", name.text(), known);
  }
  count(node, found->second.places.size());
  for (const FormationSlot& slot : found->second.places) place(name, slot.zone);
  return found->second;
}

PlanNode PlanReader::read_slots(const Node& node) {
  expect_node(node, {"slots"});
  std::vector<FormationSlot> slots;
  for (const Node& slot : node.child("slots").items()) {
    slot.expect_keys({"zone", "at"});
    const ZoneId id = place(slot.at("zone"));
    slots.push_back({.zone = id, .at = slot.at("at").point(-100'000, 100'000)});
  }
  if (slots.empty()) node.child("slots").stop(ProblemCode::missing_key, "no slots: at least one is expected");
  return formation(std::move(slots));
}

std::vector<PlanNode> PlanReader::read_each(const Node& node) {
  expect_node(node, {"each", "as"});
  const Node base = node.child("each");
  const auto group = names_.groups.find(base.text());
  if (group == names_.groups.end()) {
    std::vector<std::string> known;
    for (const auto& [name, ids] : names_.groups) known.push_back(name);
    if (known.empty()) base.stop(ProblemCode::unknown_name, "no zone of the table is repeated");
    base.stop_unknown("repeated zone", base.text(), known);
  }
  std::vector<PlanNode> nodes;
  count(node, group->second.size());
  for (const ZoneId id : group->second) {
    if (node.has("as")) {
      nodes.push_back(read_nth(node.child("as"), static_cast<int>(nodes.size()) + 1));
    } else {
      place(base, id);
      nodes.push_back(zone(id));
    }
    read_common(node, nodes.back());
  }
  return nodes;
}

PlanNode PlanReader::read_nth(const Node& node, int n) {
  if (nth_ != 0)
    node.stop(ProblemCode::misplaced, "'as' within another 'as': 'each' alone is expected there");
  nth_ = n;
  auto nodes = read_node(node);
  nth_ = 0;
  if (nodes.size() != 1) node.stop(ProblemCode::misplaced, "one node is expected in the place of each");
  return std::move(nodes.front());
}

/// A short file can ask for many nodes: they are counted as they come.
void PlanReader::count(const Node& node, std::size_t nodes) {
  nodes_ += nodes;
  if (nodes_ <= most_plan_nodes) return;
  node.stop(ProblemCode::too_many,
            fmt::format("more than {} nodes in the plans of a table: fewer are expected", most_plan_nodes));
}

/// Several nodes for "each", one for all others.
std::vector<PlanNode> PlanReader::read_node(const Node& node) {
  node.expect_form(node.json().is_object(), "an object with one of 'across', 'down', 'zone' and the like");
  count(node, 1);
  std::vector<std::string_view> kinds;
  for (const std::string_view kind : node_kinds) {
    if (node.has(kind)) kinds.push_back(kind);
  }
  // A space may be a list's or a node of its own.
  if (node.has("space")) kinds.push_back("space");
  if (kinds.size() != 1) {
    std::vector<std::string_view> keys(node_kinds.begin(), node_kinds.end());
    keys.insert(keys.end(), {"space", "gap", "justify", "width", "height", "middle", "as"});
    expect_node(node, keys);
    node.stop(ProblemCode::wrong_type,
              fmt::format("{} of 'across', 'down', 'layers', 'zone', 'each', 'panel', "
                          "'formation', 'slots', 'seats', 'space': exactly "
                          "one is expected",
                          kinds.size()));
  }
  const std::string_view kind = kinds.front();
  if (kind == "each") return read_each(node);
  PlanNode read;
  if (kind == "zone") {
    expect_node(node, {"zone"});
    read = zone(place(node.child("zone")));
  } else if (kind == "panel") {
    read = read_panel(node);
  } else if (kind == "formation") {
    read = read_formation(node);
  } else if (kind == "slots") {
    read = read_slots(node);
  } else if (kind == "seats") {
    read = read_seats(node);
  } else if (kind == "space") {
    expect_node(node, {"space"});
    read.space = length_from(node.child("space"));
  } else {
    read = read_list(node, kind);
  }
  read_common(node, read);
  return {read};
}

Overlay PlanReader::read_overlay(const Node& node) {
  node.expect_keys({"panel", "width", "height", "across", "down", "hits", "inside", "padding"});
  const auto align = [&](std::string_view key) {
    return node.has(key) ? named(node.child(key), key, node.child(key).text(), align_names) : Align::centre;
  };
  Overlay overlay{.panel = place_panel(node.at("panel")),
                  .width = length_from(node.at("width")),
                  .height = length_from(node.at("height")),
                  .across = align("across"),
                  .down = align("down")};
  if (node.has("hits"))
    overlay.hits = named(node.child("hits"), "hits", node.child("hits").text(), overlay_hits_names);
  overlay.padding = length_or(node, "padding", overlay.padding);
  if (!node.has("inside")) return overlay;
  auto inside = read_node(node.child("inside"));
  if (inside.size() != 1)
    node.child("inside").stop(ProblemCode::misplaced, "one node is expected inside an overlay");
  overlay.inside = std::move(inside.front());
  return overlay;
}

}  // namespace apsidon::files_detail
