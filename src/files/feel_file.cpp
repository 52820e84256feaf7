#include "apsidon/files/feel_file.hpp"

#include <fmt/format.h>

#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using Json = nlohmann::ordered_json;

constexpr std::array<std::pair<std::string_view, DealOrder>, 2> deal_orders{
    {{"rounds", DealOrder::rounds}, {"zones", DealOrder::zones}}};
constexpr std::array<std::pair<std::string_view, StaggerBy>, 2> staggers{
    {{"order", StaggerBy::order}, {"distance", StaggerBy::distance}}};
constexpr std::array<std::pair<std::string_view, ShuffleLook>, 2> looks{
    {{"riffle", ShuffleLook::riffle}, {"wash", ShuffleLook::wash}}};

// `fields(thing, visitor)` shows the visitor each number and word of it, one list for reader and writer.

template <class V>
void fields(Glide& g, V& v) {
  v.number("seconds", g.seconds, 0, 60);
  v.easing("curve", g.curve);
  v.spring("spring", g.spring);
  v.number("lift", g.lift, 0, 10);
  v.number("bend", g.bend, -4, 4);
  v.number("flip_from", g.flip_from, 0, 1);
  v.number("flip_to", g.flip_to, 0, 1);
}

template <class V>
void fields(Choreography& c, V& v) {
  fields(c.glide, v);
  v.number("stagger", c.stagger, 0, 60);
  v.word("by", c.by, staggers);
  v.number("longest", c.longest, 0, 600);
  v.cues("cues", c.cues);
}

template <class V>
void fields(CardEffect& e, V& v) {
  v.number("seconds", e.seconds, 0, 60);
  v.number("swings", e.swings, 0, 100);
  v.number("width", e.width, 0, 10);
  v.number("turn_deg", e.turn_deg, -360, 360);
  v.number("growth", e.growth, -1, 10);
  v.number("brightness", e.brightness, -1, 10);
  v.number("lift", e.lift, 0, 10);
}

template <class V>
void fields(Spring& s, V& v) {
  v.number("period", s.period, 0.001, 60);
  v.number("damping", s.damping, 0.02, 20);
}

template <class V>
void fields(Feel& f, V& v) {
  v.text("name", f.name);
  v.part("move", f.move);
  v.number("trail", f.trail, 0, 5);
  v.part("shift", f.shift);
  v.part("flip", f.flip);
  v.number("flip_axis_deg", f.flip_axis_deg, -180, 180);
  v.part("back", f.back);
  v.part("carry", f.carry);
  v.number("carry_lift", f.carry_lift, 0, 10);
  v.number("tilt_deg", f.tilt_deg, 0, 90);
  v.part("tilt", f.tilt);
  v.part("raise", f.raise);
  v.part("zoom", f.zoom);
  v.word("deal_order", f.deal_order, deal_orders);
  v.part("deal", f.deal);
  v.part("gather", f.gather);
  v.word("shuffle_look", f.shuffle_look, looks);
  v.part("shuffle", f.shuffle);
  v.whole("shuffle_rounds", f.shuffle_rounds, 1, 10);
  v.part("draw", f.draw);
  v.part("reveal", f.reveal);
  v.part("collect", f.collect);
  v.part("finale", f.finale);
  v.number("finale_stay", f.finale_stay, 0, 60);
  v.part("shake", f.shake);
  v.part("pulse", f.pulse);
}

struct Keys {
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
void read_into(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside = {});

struct Reader {
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
    read_into(node.child(key), *value);
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
    if (node.has(key)) read_into(node.child(key), value);
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) const {
    if (node.has(key)) value = named(node.child(key), key, node.child(key).text(), names);
  }
};

template <class Thing>
void read_into(const Node& node, Thing& thing, std::initializer_list<std::string_view> beside) {
  Keys keys;
  fields(thing, keys);
  keys.keys.insert(keys.keys.end(), beside.begin(), beside.end());
  node.expect_keys(keys.keys);
  Reader reader{node};
  fields(thing, reader);
}

struct Writer {
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
  void text(std::string_view key, std::string& value) { json[std::string(key)] = value; }
  template <class Part>
  void part(std::string_view key, Part& value) {
    Json own;
    Writer writer{own};
    fields(value, writer);
    json[std::string(key)] = own;
  }
  template <class Value, class Names>
  void word(std::string_view key, Value& value, const Names& names) {
    json[std::string(key)] = name_in(names, value);
  }
};

}  // namespace

Result<Feel> parse_feel(std::string_view text, const std::filesystem::path& file) {
  return read_document<Feel>(text, file, "feel", [](const Node& top, const Places&) {
    Feel feel;
    read_into(top, feel, {"apsidon", "version"});
    top.guard(ProblemCode::out_of_range, [&] { check(feel); });
    return feel;
  });
}

Result<Feel> load_feel(const std::filesystem::path& file) {
  const auto text = read_text(file);
  return text ? parse_feel(*text, file) : Result<Feel>(text.error());
}

std::string write_feel(const Feel& feel) {
  Json json;
  json["apsidon"] = "feel";
  json["version"] = 1;
  Feel copy = feel;
  Writer writer{json};
  fields(copy, writer);
  return json.dump(2) + "\n";
}

}  // namespace apsidon
