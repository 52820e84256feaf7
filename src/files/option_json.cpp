#include "files/option_json.hpp"

#include <fmt/format.h>

#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "gesture/fields.hpp"
#include "motion/fields.hpp"
#include "play/fields.hpp"

namespace apsidon::files_detail {
namespace {

using Json = nlohmann::ordered_json;

struct OptionKeys {
  std::vector<std::string_view> keys;

  template <class Value, class... More>
  void number(std::string_view key, Value&, More...) {
    keys.push_back(key);
  }
  void whole(std::string_view key, int&, int, int) { keys.push_back(key); }
  void easing(std::string_view key, Easing&) { keys.push_back(key); }
  void spring(std::string_view key, std::optional<Spring>&) { keys.push_back(key); }
  void cues(std::string_view key, std::vector<Cue>&) { keys.push_back(key); }
  void text(std::string_view key, std::string&) { keys.push_back(key); }
  void truth(std::string_view key, bool&) { keys.push_back(key); }
  template <class Value, class Names>
  void words(std::string_view key, std::vector<Value>&, const Names&) {
    keys.push_back(key);
  }
  template <class Part>
  void part(std::string_view key, Part&) {
    keys.push_back(key);
  }
  template <class Value, class Names>
  void word(std::string_view key, Value&, const Names&) {
    keys.push_back(key);
  }
};

template <class Thing>
void read_fields(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside = {});

struct OptionReader {
  const Node& node;

  void number(std::string_view key, float& value, double least, double most) const {
    value = node.number_or(key, value, least, most);
  }
  void whole(std::string_view key, int& value, int least, int most) const {
    value = node.whole_or(key, value, least, most);
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
  void number(std::string_view key, double& value, double least, double most) const {
    if (node.has(key)) value = node.child(key).number(least, most);
  }
  void truth(std::string_view key, bool& value) const { value = node.truth_or(key, value); }
  template <class Value, class Names>
  void words(std::string_view key, std::vector<Value>& values, const Names& names) const {
    if (!node.has(key)) return;
    values.clear();
    for (const Node& word : node.child(key).items()) values.push_back(named(word, key, word.text(), names));
  }
  void text(std::string_view key, std::string& value) const { value = node.text_or(key, value); }
  template <class Part>
  void part(std::string_view key, Part& value) const {
    if (node.has(key)) read_fields(node.child(key), value);
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) const {
    if (node.has(key)) value = named(node.child(key), key, node.child(key).text(), names);
  }
};

template <class Thing>
void read_fields(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside) {
  OptionKeys keys;
  fields(thing, keys);
  keys.keys.insert(keys.keys.end(), beside.begin(), beside.end());
  node.expect_keys(keys.keys);
  OptionReader reader{node};
  fields(thing, reader);
}

struct OptionWriter {
  Json& json;

  void number(std::string_view key, float& value, double, double) { json[std::string(key)] = decimal(value); }
  void whole(std::string_view key, int& value, int, int) { json[std::string(key)] = value; }
  void easing(std::string_view key, Easing& value) { json[std::string(key)] = value.text(); }
  void spring(std::string_view key, std::optional<Spring>& value) {
    if (value) part(key, *value);
  }
  void cues(std::string_view key, std::vector<Cue>& value) {
    if (value.empty()) return;
    Json list = Json::array();
    for (const Cue& cue : value) list.push_back({{"name", cue.name}, {"at", decimal(cue.at)}});
    json[std::string(key)] = list;
  }
  void number(std::string_view key, double& value, double, double) { json[std::string(key)] = value; }
  void truth(std::string_view key, bool& value) { json[std::string(key)] = value; }
  template <class Value, class Names>
  void words(std::string_view key, std::vector<Value>& values, const Names& names) {
    json[std::string(key)] = Json::array();
    for (const Value value : values) json[std::string(key)].push_back(name_in(names, value));
  }
  void text(std::string_view key, std::string& value) { json[std::string(key)] = value; }
  template <class Part>
  void part(std::string_view key, Part& value) {
    Json own;
    OptionWriter writer{own};
    fields(value, writer);
    json[std::string(key)] = own;
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) {
    json[std::string(key)] = name_in(names, value);
  }
};

template <class Thing>
void read_checked(const Node& node, Thing& thing) {
  read_fields(node, thing);
  node.guard(ProblemCode::out_of_range, [&] { check(thing); });
}

template <class Thing>
Json written(Thing thing) {
  Json json;
  OptionWriter writer{json};
  fields(thing, writer);
  return json;
}

}  // namespace

void read_into(const Node& node, Feel& feel) { read_checked(node, feel); }
void read_into(const Node& node, DragOptions& options) { read_checked(node, options); }
void read_into(const Node& node, HoverOptions& options) { read_checked(node, options); }
void read_into(const Node& node, GestureThresholds& options) { read_checked(node, options); }

void read_into(const Node& node, CardEffect& effect) { read_checked(node, effect); }

nlohmann::ordered_json json_of(const Feel& feel) { return written(feel); }
nlohmann::ordered_json json_of(const DragOptions& options) { return written(options); }
nlohmann::ordered_json json_of(const HoverOptions& options) { return written(options); }
nlohmann::ordered_json json_of(const GestureThresholds& options) { return written(options); }
nlohmann::ordered_json json_of(const CardEffect& effect) { return written(effect); }

void read_feel_document(const Node& top, Feel& feel) {
  read_fields(top, feel, {"apsidon", "version"});
  top.guard(ProblemCode::out_of_range, [&] { check(feel); });
}

}  // namespace apsidon::files_detail
