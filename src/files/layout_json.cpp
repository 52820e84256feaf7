#include "files/layout_json.hpp"

#include <fmt/format.h>

#include <cmath>

#include "apsidon/geometry/limits.hpp"
#include "files/names.hpp"
#include "layout/fields.hpp"

namespace apsidon::files_detail {
namespace {

struct FieldKeys {
  std::vector<std::string_view> keys{"kind"};

  void number(std::string_view key, float&, double, double) { keys.push_back(key); }
  void least(std::string_view key, float&, float, double) { keys.push_back(key); }
  void whole(std::string_view key, int&, int, int) { keys.push_back(key); }
  void truth(std::string_view key, bool&) { keys.push_back(key); }
  void angle(std::string_view key, Angle&, double, double) { keys.push_back(key); }
  void seed(std::string_view key, std::uint32_t&) { keys.push_back(key); }
  template <class Value, class Names>
  void word(std::string_view key, Value&, const Names&) {
    keys.push_back(key);
  }
};

struct FieldReader {
  const Node& node;

  void number(std::string_view key, float& value, double least, double most) const {
    value = node.number_or(key, value, least, most);
  }
  void least(std::string_view key, float& value, float preferred, double most) const {
    value = node.number_or(key, std::min(value, preferred), 0, most);
  }
  void whole(std::string_view key, int& value, int least, int most) const {
    value = node.whole_or(key, value, least, most);
  }
  void truth(std::string_view key, bool& value) const { value = node.truth_or(key, value); }
  void angle(std::string_view key, Angle& value, double least, double most) const {
    if (node.has(key)) value = Angle::degrees(node.child(key).number(least, most));
  }
  void seed(std::string_view key, std::uint32_t& value) const {
    if (node.has(key)) value = static_cast<std::uint32_t>(node.child(key).number(0, 4294967295.0));
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) const {
    if (node.has(key)) value = named(node.child(key), key, node.child(key).text(), names);
  }
};

struct FieldWriter {
  nlohmann::ordered_json& json;

  void number(std::string_view key, float& value, double, double) { json[std::string(key)] = decimal(value); }
  void least(std::string_view key, float& value, float, double) { json[std::string(key)] = decimal(value); }
  void whole(std::string_view key, int& value, int, int) { json[std::string(key)] = value; }
  void truth(std::string_view key, bool& value) { json[std::string(key)] = value; }
  void seed(std::string_view key, std::uint32_t& value) { json[std::string(key)] = value; }
  /// The fewest decimals of a degree that are read again as the same angle: 3.5 rather than 3.500000034.
  void angle(std::string_view key, Angle& value, double, double) {
    double degrees = value.degrees();
    for (double steps = 1; steps < 1e12; steps *= 10) {
      const double rounded = std::round(value.degrees() * steps) / steps;
      if (Angle::degrees(rounded) != value) continue;
      degrees = rounded;
      break;
    }
    json[std::string(key)] = degrees;
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) {
    json[std::string(key)] = name_in(names, value);
  }
};

template <class L>
Layout read_as(const Node& node) {
  L layout;
  if (node.json().is_object()) {
    FieldKeys keys;
    fields(layout, keys);
    node.expect_keys(keys.keys);
    FieldReader reader{node};
    fields(layout, reader);
  }
  node.guard(ProblemCode::out_of_range, [&] { check(layout); });
  return layout;
}

struct Kind {
  std::string_view name;
  Layout (*read)(const Node&);
};
constexpr std::array<Kind, 8> layout_kinds{{{"slot", read_as<SlotLayout>},
                                            {"pile", read_as<PileLayout>},
                                            {"column", read_as<ColumnLayout>},
                                            {"spread", read_as<SpreadLayout>},
                                            {"hand", read_as<HandLayout>},
                                            {"grid", read_as<GridLayout>},
                                            {"ring", read_as<RingLayout>},
                                            {"free", read_as<FreeLayout>}}};

struct WriteLayout {
  nlohmann::ordered_json& json;
  template <class L>
  void operator()(L layout) const {
    FieldWriter writer{json};
    fields(layout, writer);
  }
  void operator()(const CustomLayout&) const {}
};

}  // namespace

nlohmann::ordered_json decimal(float value) {
  return nlohmann::ordered_json::parse(fmt::format("{}", value));
}

Layout layout_from(const Node& node) {
  if (node.has("own")) {
    node.expect_keys({"own"});
    CustomLayout own{.name = node.child("own").text()};
    node.guard(ProblemCode::wrong_type, [&] { check(own); });
    return own;
  }
  node.expect_form(node.json().is_string() || node.json().is_object(),
                   "the name of a layout, or an object with its 'kind',");
  const Node word = node.json().is_string() ? node : node.at("kind");
  const std::string name = word.text();
  std::vector<std::string> names;
  for (const Kind& kind : layout_kinds) {
    if (kind.name == name) return kind.read(node);
    names.emplace_back(kind.name);
  }
  word.stop_unknown("layout", name, names);
}

nlohmann::ordered_json json_of(const Layout& layout) {
  nlohmann::ordered_json json;
  if (std::holds_alternative<CustomLayout>(layout)) return {{"own", name_of(layout)}};
  json["kind"] = name_of(layout);
  std::visit(WriteLayout{json}, layout);
  return json;
}

namespace {

/// A number, or how many lie covered and how many open.
void read_longest(const Node& node, ZoneLayout& layout) {
  const int most = static_cast<int>(most_cards);
  layout.longest_covered = 0;
  node.expect_form(node.json().is_object() || node.json().is_number(),
                   "a number, or an object with 'covered' and 'open',");
  if (!node.json().is_object()) {
    layout.longest = node.whole(0, most);
    return;
  }
  node.expect_keys({"covered", "open"});
  layout.longest_covered = node.whole_or("covered", 0, 0, most / 2);
  layout.longest = layout.longest_covered + node.whole_or("open", 0, 0, most / 2);
}

}  // namespace

void read_zone_layout(const Node& node, ZoneLayout& layout) {
  if (node.has("layout")) layout.layout = layout_from(node.child("layout"));
  if (node.has("longest")) read_longest(node.child("longest"), layout);
  layout.off_table = node.truth_or("off_table", layout.off_table);
  layout.factor = node.number_or("factor", layout.factor, 0.05, 20);
  layout.sideways = node.truth_or("sideways", layout.sideways);
  layout.scrolls = node.truth_or("scrolls", layout.scrolls);
  layout.gives_up = node.truth_or("gives_up", layout.gives_up);
  layout.snaps = node.truth_or("snaps", layout.snaps);
  if (node.has("facing"))
    layout.facing = named(node.child("facing"), "facing", node.child("facing").text(), facing_names);
}

void write_zone_layout(nlohmann::ordered_json& json, const ZoneLayout& layout) {
  json["layout"] = json_of(layout.layout);
  if (layout.longest_covered > 0 && layout.longest <= static_cast<int>(most_cards) / 2) {
    json["longest"] = {{"covered", layout.longest_covered},
                       {"open", layout.longest - layout.longest_covered}};
  } else {
    json["longest"] = layout.longest;
  }
  if (layout.off_table) json["off_table"] = true;
  if (layout.facing != Facing::bottom) json["facing"] = name_in(facing_names, layout.facing);
  if (layout.factor != 1) json["factor"] = decimal(layout.factor);
  if (layout.sideways) json["sideways"] = true;
  if (layout.scrolls) json["scrolls"] = true;
  if (layout.gives_up) json["gives_up"] = true;
  if (!layout.snaps) json["snaps"] = false;
}

}  // namespace apsidon::files_detail
