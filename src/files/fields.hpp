#pragma once
// How files read and write what a list of fields shows: a layout, the options of a feel or of the hand, a
// zone. Not installed.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/geometry/angle.hpp"
#include "apsidon/motion/choreography.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"
#include "geometry/each_field.hpp"
#include "motion/fields.hpp"

namespace apsidon::files_detail {

/// The keys of all fields.
template <class Thing>
std::vector<std::string_view> keys_of_fields() {
  std::vector<std::string_view> keys;
  geometry_detail::EachField note{[&](std::string_view key, const auto&...) { keys.push_back(key); }};
  Thing thing;
  fields(thing, note);
  return keys;
}

template <class Thing>
void read_fields(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside = {});

/// Reads each field that is there; others stay as they are.
struct FieldReader {
  const Node& node;

  void number(std::string_view key, float& value, double least, double most) const {
    value = node.number_or(key, value, least, most);
  }
  void number(std::string_view key, double& value, double least, double most) const {
    if (node.has(key)) value = node.child(key).number(least, most);
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
    if (node.has(key)) value = static_cast<std::uint32_t>(node.child(key).whole_number(0, 4294967295.0));
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) const {
    if (node.has(key)) value = named(node.child(key), key, node.child(key).text(), names);
  }
  template <class Value, class Names>
  void words(std::string_view key, std::vector<Value>& values, const Names& names) const {
    if (!node.has(key)) return;
    values.clear();
    for (const Node& word : node.child(key).items()) values.push_back(named(word, key, word.text(), names));
  }
  void easing(std::string_view key, Easing& value) const {
    if (!node.has(key)) return;
    const Node text = node.child(key);
    value = text.guard(ProblemCode::out_of_range, [&] { return Easing::parse(text.text()); });
  }
  void spring(std::string_view key, std::optional<Spring>& value) const {
    if (!node.has(key)) return;
    value.emplace();
    read_fields(node.child(key), *value);
  }
  void cues(std::string_view key, std::vector<Cue>& value) const {
    if (!node.has(key)) return;
    value.clear();
    for (const Node& cue : node.child(key).items()) {
      cue.expect_keys({"name", "at"});
      value.push_back({.name = cue.at("name").text(), .at = static_cast<float>(cue.at("at").number(0, 1))});
    }
  }
  void text(std::string_view key, std::string& value) const { value = node.text_or(key, value); }
  template <class Part>
  void part(std::string_view key, Part& value) const {
    if (node.has(key)) read_fields(node.child(key), value);
  }
};

/// An object with these fields, and with keys `beside` that somebody else reads.
template <class Thing>
void read_fields(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside) {
  std::vector<std::string_view> keys(beside);
  const std::vector<std::string_view> own = keys_of_fields<Thing>();
  keys.insert(keys.end(), own.begin(), own.end());
  node.expect_keys(keys);
  FieldReader reader{node};
  fields(thing, reader);
}

/// Writes every field.
struct FieldWriter {
  nlohmann::ordered_json& json;

  void number(std::string_view key, float& value, double, double) { put(key, decimal(value)); }
  void number(std::string_view key, double& value, double, double) { put(key, value); }
  void least(std::string_view key, float& value, float, double) { put(key, decimal(value)); }
  void whole(std::string_view key, int& value, int, int) { put(key, value); }
  void truth(std::string_view key, bool& value) { put(key, value); }
  void seed(std::string_view key, std::uint32_t& value) { put(key, value); }
  /// The fewest decimals of a degree that are read again as the same angle: 3.5 rather than 3.500000034.
  void angle(std::string_view key, Angle& value, double, double) {
    double degrees = value.degrees();
    for (double steps = 1; steps < 1e12; steps *= 10) {
      const double rounded = std::round(value.degrees() * steps) / steps;
      if (Angle::degrees(rounded) != value) continue;
      degrees = rounded;
      break;
    }
    put(key, degrees);
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) {
    put(key, std::string(name_in(names, value)));
  }
  template <class Value, class Names>
  void word(std::string_view key, std::optional<Value>& value, const Names& names) {
    if (value) word(key, *value, names);
  }
  template <class Value, class Names>
  void words(std::string_view key, std::vector<Value>& values, const Names& names) {
    auto all = nlohmann::ordered_json::array();
    for (const Value value : values) all.push_back(name_in(names, value));
    put(key, std::move(all));
  }
  void easing(std::string_view key, Easing& value) { put(key, value.text()); }
  void spring(std::string_view key, std::optional<Spring>& value) {
    if (value) part(key, *value);
  }
  void cues(std::string_view key, std::vector<Cue>& value) {
    if (value.empty()) return;
    auto list = nlohmann::ordered_json::array();
    for (const Cue& cue : value) list.push_back({{"name", cue.name}, {"at", decimal(cue.at)}});
    put(key, std::move(list));
  }
  void text(std::string_view key, std::string& value) { put(key, value); }
  template <class Part>
  void part(std::string_view key, Part& value) {
    nlohmann::ordered_json own;
    FieldWriter writer{own};
    fields(value, writer);
    put(key, std::move(own));
  }

 protected:
  void put(std::string_view key, nlohmann::ordered_json value) { json[std::string(key)] = std::move(value); }
};

template <class Thing>
nlohmann::ordered_json written_fields(Thing thing) {
  nlohmann::ordered_json json;
  FieldWriter writer{json};
  fields(thing, writer);
  return json;
}

}  // namespace apsidon::files_detail
