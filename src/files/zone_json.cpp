#include "files/zone_json.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <utility>

#include "apsidon/geometry/limits.hpp"
#include "files/fields.hpp"
#include "files/plan_json.hpp"
#include "play/values/fields.hpp"

namespace apsidon::files_detail {
namespace {

using Json = nlohmann::ordered_json;

/// A number, or how many lie covered and how many open.
void read_longest(const Node& node, int& longest, int& covered) {
  const int most = static_cast<int>(most_cards);
  covered = 0;
  node.expect_form(node.json().is_object() || node.json().is_number(),
                   "a number, or an object with 'covered' and 'open',");
  if (!node.json().is_object()) {
    longest = node.whole(0, most);
    return;
  }
  node.expect_keys({"covered", "open"});
  covered = node.whole_or("covered", 0, 0, most / 2);
  longest = covered + node.whole_or("open", 0, 0, most / 2);
}

StockRule read_stock(const Node& node, const TableSetup& setup, ZoneRange own) {
  node.expect_keys({"to", "gives", "passes", "recycled"});
  StockRule stock{.to = other_zone(node.at("to"), setup, own),
                  .passes = node.whole_or("passes", 0, 0, 1'000'000)};
  if (!node.has("gives")) return stock;
  const Node gives = node.child("gives");
  const auto cards = [](const Node& pass) { return pass.whole(1, static_cast<int>(most_cards)); };
  gives.expect_form(gives.json().is_array() || gives.json().is_number(),
                    "a number, or an array with one for each pass,");
  if (!gives.json().is_array()) {
    stock.gives = {cards(gives)};
    return stock;
  }
  std::vector<int> all;
  for (const Node& pass : gives.items()) all.push_back(cards(pass));
  stock.gives = std::move(all);
  if (stock.gives.empty())
    gives.stop(ProblemCode::missing_key, "a stock that gives nothing: a number is expected");
  return stock;
}

MatchRule read_match(const Node& node, const TableSetup& setup, ZoneRange own) {
  node.expect_keys({"open", "end", "to", "seconds"});
  MatchRule match{.open = node.whole_or("open", 2, 1, 100)};
  if (node.has("end")) match.end = named(node.child("end"), "end", node.child("end").text(), match_end_names);
  if (match.end != MatchEnd::stay) match.to = other_zone(node.at("to"), setup, own);
  if (node.has("seconds")) match.seconds = node.child("seconds").number(0, 60);
  return match;
}

/// A zone, or zones by the direction.
FlickTargets read_flicks(const Node& node, const TableSetup& setup, ZoneRange own) {
  if (node.json().is_string()) return FlickTargets::anywhere(other_zone(node, setup, own));
  node.expect_form(node.json().is_object(), "a zone, or an object with zones by the direction,");
  node.expect_keys({"left", "right", "up", "down"});
  FlickTargets flicks;
  const auto read = [&](std::string_view key, ZoneId& to) {
    if (node.has(key)) to = other_zone(node.child(key), setup, own);
  };
  read("left", flicks.left);
  read("right", flicks.right);
  read("up", flicks.up);
  read("down", flicks.down);
  return flicks;
}

/// Reads what has a shape of its own in the options of a zone.
struct ZoneReader : FieldReader {
  const TableSetup& setup;
  ZoneRange own;

  void pick(std::string_view key, PickRule& value) const {
    if (node.has(key)) value = read_pick(node.child(key), setup.table);
  }
  void rule(std::string_view key, Rule& value) const {
    if (node.has(key)) value = read_rule(node.child(key), setup.table);
  }
  void stock(std::string_view key, Shared<StockRule>& value) const {
    if (node.has(key)) value = read_stock(node.child(key), setup, own);
  }
  void zones(std::string_view key, SharedList<ZoneId>& value) const {
    if (node.has(key)) value = zones_named(node.child(key), setup.table);
  }
  void flicks(std::string_view key, FlickTargets& value) const {
    if (node.has(key)) value = read_flicks(node.child(key), setup, own);
  }
  void select(std::string_view key, Shared<SelectRule>& value) const {
    if (node.has(key)) value = read_select(node.child(key), setup.table);
  }
  void match(std::string_view key, Shared<MatchRule>& value) const {
    if (node.has(key)) value = read_match(node.child(key), setup, own);
  }
};

/// Likewise in how it lies, which is read before there are other zones to name.
struct LayoutReader : FieldReader {
  void layout(std::string_view key, Layout& value) const {
    if (node.has(key)) value = layout_from(node.child(key));
  }
  void longest(std::string_view key, int& longest, int& covered) const {
    if (node.has(key)) read_longest(node.child(key), longest, covered);
  }
};

Json flicks_json(const FlickTargets& flicks, const Table& table) {
  if (flicks == FlickTargets::anywhere(flicks.left)) return table.zone(flicks.left)->name;
  Json json = Json::object();
  const auto write = [&](const char* key, ZoneId to) {
    if (to) json[key] = table.zone(to)->name;
  };
  write("left", flicks.left);
  write("right", flicks.right);
  write("up", flicks.up);
  write("down", flicks.down);
  return json;
}

/// Writes all options of a zone.
struct ZoneWriter : FieldWriter {
  const Table& table;
  int recycled;

  void layout(std::string_view key, Layout& value) { put(key, json_of(value)); }
  void longest(std::string_view key, int& longest, int& covered) {
    // A number says what an object cannot: more than half of all cards that there may be.
    if (covered > 0 && longest <= static_cast<int>(most_cards) / 2) {
      put(key, {{"covered", covered}, {"open", longest - covered}});
    } else {
      put(key, longest);
    }
  }
  void pick(std::string_view key, PickRule& value) { put(key, json_of(value, table)); }
  void rule(std::string_view key, Rule& value) { put(key, json_of(value, table)); }
  void stock(std::string_view key, Shared<StockRule>& value) {
    if (!value) return;
    Json stock{{"to", table.zone(value->to)->name}, {"gives", value->gives}};
    if (value->passes != 0) stock["passes"] = value->passes;
    if (recycled != 0) stock["recycled"] = recycled;
    put(key, std::move(stock));
  }
  void zones(std::string_view key, SharedList<ZoneId>& value) {
    if (value.empty()) return;
    Json names = Json::array();
    for (const ZoneId zone : value) names.push_back(table.zone(zone)->name);
    put(key, std::move(names));
  }
  void flicks(std::string_view key, FlickTargets& value) {
    if (value != FlickTargets{}) put(key, flicks_json(value, table));
  }
  void select(std::string_view key, Shared<SelectRule>& value) {
    if (value) put(key, json_of(*value, table));
  }
  void match(std::string_view key, Shared<MatchRule>& value) {
    if (!value) return;
    Json match{{"open", value->open}};
    if (value->end != MatchEnd::move) match["end"] = name_in(match_end_names, value->end);
    if (value->to) match["to"] = table.zone(value->to)->name;
    match["seconds"] = value->seconds;
    put(key, std::move(match));
  }
};

Json all_options(ZoneBehaviour zone, const Table& table, int recycled) {
  Json json = Json::object();
  ZoneWriter writer{{json}, table, recycled};
  fields(zone, writer);
  return json;
}

}  // namespace

void expect_option_keys(const Node& options) { options.expect_keys(keys_of_fields<ZoneBehaviour>()); }

void expect_zone_keys(const Node& zone) {
  std::vector<std::string_view> keys = keys_of_fields<ZoneBehaviour>();
  keys.insert(keys.end(), {"name", "repeat", "formation", "key", "seat", "numbers", "data"});
  zone.expect_keys(keys);
}

int recycled_of(const Node& zone) {
  return zone.has("stock") ? zone.child("stock").whole_or("recycled", 0, 0, 1'000'000) : 0;
}

void read_zone_layout(const Node& node, ZoneLayout& layout) {
  LayoutReader reader{{node}};
  fields(layout, reader);
}

void read_zone_rules(const Node& node, const TableSetup& setup, ZoneRange own, ZoneRules& rules,
                     ZoneHandling& handling) {
  ZoneReader reader{{node}, setup, own};
  fields(rules, reader);
  fields(handling, reader);
}

void write_zone(Json& json, const ZoneBehaviour& zone, const Table& table, int recycled) {
  // Said of every zone: a reader of the file looks for them.
  static constexpr std::array<std::string_view, 4> always{"layout", "longest", "pick", "drop"};
  const Json plain = all_options({}, table, 0);
  Json all = all_options(zone, table, recycled);
  for (auto& [name, value] : all.items()) {
    const bool said = std::find(always.begin(), always.end(), name) != always.end();
    if (said || !plain.contains(name) || plain[name] != value) json[name] = std::move(value);
  }
}

}  // namespace apsidon::files_detail
