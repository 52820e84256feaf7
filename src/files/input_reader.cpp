// One line of an input log, read.
#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <span>
#include <string>
#include <type_traits>
#include <utility>

#include "apsidon/files/table_file.hpp"
#include "files/input_json.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/option_json.hpp"
#include "files/plan_json.hpp"
#include "files/rules_json.hpp"
#include "files/zone_json.hpp"
#include "play/values/input_fields.hpp"

namespace apsidon::files_detail {
namespace {

using namespace play_detail;

constexpr double most_number = 1e15;

std::uint64_t whole_number(const Node& node) {
  if (!node.json().is_number_unsigned())
    node.stop(ProblemCode::wrong_type, "a whole number from 0 is expected");
  return node.json().get<std::uint64_t>();
}

std::uint32_t small_number(const Node& node) {
  const std::uint64_t number = whole_number(node);
  constexpr std::uint64_t most = std::numeric_limits<std::uint32_t>::max();
  if (number <= most) return static_cast<std::uint32_t>(number);
  node.stop(ProblemCode::out_of_range,
            fmt::format("{} is out of range: at most {} is expected", number, most));
}

/// A zone by its name, or by the number of one that this table does not have.
ZoneId read_zone(const Node& node, const TableSetup& setup) {
  if (!node.json().is_string()) return {small_number(node)};
  return zone_named(node, setup.table);
}

FaceId read_face(const Node& node, const TableSetup& setup) {
  const auto face = setup.table.deck().find(node.text());
  if (face) return *face;
  node.stop(ProblemCode::unknown_name,
            fmt::format("unknown face '{}': a face of the table's deck is expected", node.text()));
}

Reason read_reason(const Node& node) {
  const std::string word = node.text();
  std::vector<std::string> codes;
  for (int i = 0; i < reason_count; ++i) {
    codes.emplace_back(code_of(static_cast<Reason>(i)));
    if (codes.back() == word) return static_cast<Reason>(i);
  }
  node.stop_unknown("reason", word, codes);
}

/// What a refusal tells beside: a text, a whole number, or an object with a card or a zone.
decltype(VerdictArgument::value) read_argument(const Node& node, const TableSetup& setup) {
  if (node.json().is_string()) return node.text();
  if (node.json().is_object()) {
    node.expect_keys({"card", "zone"});
    if (node.has("card")) return CardId{small_number(node.child("card"))};
    return read_zone(node.at("zone"), setup);
  }
  if (!node.json().is_number_integer())
    node.stop(ProblemCode::wrong_type, "a text, a whole number, a card or a zone is expected");
  return node.json().get<std::int64_t>();
}

/// Values by themselves.
struct FromJson {
  const TableSetup& setup;

  void operator()(const Node& node, double& value) const { value = node.number(-most_number, most_number); }
  void operator()(const Node& node, float& value) const {
    value = static_cast<float>(node.number(-most_number, most_number));
  }
  void operator()(const Node& node, bool& value) const { value = node.truth(); }
  void operator()(const Node& node, int& value) const {
    constexpr int most = std::numeric_limits<int>::max();
    value = node.whole(-most, most);
  }
  void operator()(const Node& node, std::uint32_t& value) const { value = small_number(node); }
  void operator()(const Node& node, std::uint64_t& value) const { value = whole_number(node); }
  void operator()(const Node& node, std::string& value) const { value = node.text(); }
  template <class Thing>
  void operator()(const Node& node, Id<Thing>& value) const {
    value = {small_number(node)};
  }
  void operator()(const Node& node, ZoneId& value) const { value = read_zone(node, setup); }
  void operator()(const Node& node, SeatId& value) const {
    value = node.json().is_string() ? seat_named(node, setup.table) : SeatId{small_number(node)};
  }
  void operator()(const Node& node, FaceId& value) const {
    value = node.json().is_string() ? read_face(node, setup) : FaceId{small_number(node)};
  }
  void operator()(const Node& node, Vec2& value) const { value = node.point(-most_px, most_px); }
  void operator()(const Node& node, Size& value) const {
    const Vec2 size = node.point(0, most_px);
    value = {size.x, size.y};
  }
  void operator()(const Node& node, Insets& value) const {
    const auto sides = node.items();
    if (sides.size() != 4) node.stop(ProblemCode::wrong_type, "four numbers are expected");
    const auto length = [&](std::size_t i) { return static_cast<float>(sides[i].number(0, most_px)); };
    value = {length(0), length(1), length(2), length(3)};
  }
  template <class Value>
  void operator()(const Node& node, std::vector<Value>& values) const {
    for (const Node& item : node.items()) (*this)(item, values.emplace_back());
  }
  template <class Value>
  void operator()(const Node& node, SharedList<Value>& values) const {
    std::vector<Value> all;
    (*this)(node, all);
    values = std::move(all);
  }
  template <class Value>
  void maybe(const Node& node, std::string_view key, std::optional<Value>& value) const {
    if (node.has(key)) (*this)(node.child(key), value.emplace());
  }
  void operator()(const Node& node, WantedCard& card) const {
    node.expect_keys({"key", "face", "face_up", "sideways", "numbers"});
    (*this)(node.at("key"), card.key);
    maybe(node, "face", card.face);
    maybe(node, "face_up", card.face_up);
    maybe(node, "sideways", card.sideways);
    if (node.has("numbers")) card.numbers = read_numbers(node.child("numbers"));
  }
  void operator()(const Node& node, WantedZone& zone) const {
    node.expect_keys({"zone", "cards", "numbers"});
    (*this)(node.at("zone"), zone.key);
    (*this)(node.at("cards"), zone.cards);
    if (node.has("numbers")) zone.numbers = read_numbers(node.child("numbers"));
  }
};

/// Collects the keys of a kind; what they hold does not matter.
struct InputKeys {
  std::vector<std::string_view> all = {};

  template <class... More>
  void operator()(std::string_view key, More&&...) {
    all.push_back(key);
  }
  template <class Value>
  void always(std::string_view key, Value&) {
    all.push_back(key);
  }
  template <class Number>
  void number(std::string_view key, Number&, Number, double, double) {
    all.push_back(key);
  }
  void cut(std::string_view key, float&, float, double, double) { all.push_back(key); }
  template <class Value>
  void seconds(std::string_view key, Value&, double, double) {
    all.push_back(key);
  }
  void reason(std::string_view key, Reason&) { all.push_back(key); }
  void button(std::string_view key, PointerButton&) { all.push_back(key); }
  void judged(std::optional<Verdict>&) { all.insert(all.end(), {"verdict", "waits"}); }
  template <class Value>
  void part(std::string_view key, Value&) {
    all.push_back(key);
  }
  template <class Value>
  void parts(std::string_view key, Value&) {
    all.push_back(key);
  }
  template <class... More>
  void tag(std::string_view key, More&&...) {
    all.push_back(key);
  }
  template <class Value, std::size_t N, class... More>
  void tag(const Words<Value, N>& words, More&&...) {
    for (const auto& word : words) all.push_back(word.first);
  }
  template <class Value>
  void options(std::string_view key, Value&) {
    all.push_back(key);
  }
  void table(std::string_view key, std::shared_ptr<const TableSetup>&) { all.push_back(key); }
  void wanted(std::string_view key, std::vector<WantedZone>&) { all.push_back(key); }
  void arguments(std::string_view key, std::vector<VerdictArgument>&) { all.push_back(key); }
  void numbers(std::string_view key, Numbers&) { all.push_back(key); }
  void effect(std::string_view key, std::optional<CardEffect>&) { all.push_back(key); }
  void zone(std::string_view key, ZoneId, ZoneBehaviour&) { all.push_back(key); }
  void plans(std::string_view key, std::vector<Plan>&) { all.push_back(key); }
};

template <class Thing>
std::vector<std::string_view> keys_of() {
  Thing thing;
  InputKeys keys;
  fields(thing, keys);
  return keys.all;
}

struct InputReader {
  const Node& node;
  const TableSetup& setup;

  template <class Value, class... More>
  void operator()(std::string_view key, Value& value, const More&...) const {
    if (node.has(key)) FromJson{setup}(node.child(key), value);
  }
  template <class Value>
  void operator()(std::string_view key, std::optional<Value>& value) const {
    FromJson{setup}.maybe(node, key, value);
  }
  template <class Value, std::size_t N>
  void operator()(std::string_view key, Value& value, const Words<Value, N>& words, Value) const {
    if (node.has(key)) value = named(node.child(key), key, node.child(key).text(), words);
  }
  template <class Value>
  void always(std::string_view key, Value& value) const {
    FromJson{setup}(node.at(key), value);
  }
  template <class Number>
  void number(std::string_view key, Number& value, Number, double least, double most) const {
    if (node.has(key)) value = static_cast<Number>(node.child(key).number(least, most));
  }
  void cut(std::string_view key, float& value, float otherwise, double least, double most) const {
    number(key, value, otherwise, least, most);
  }
  void seconds(std::string_view key, double& value, double least, double most) const {
    if (node.has(key)) value = node.child(key).number(least, most);
  }
  void seconds(std::string_view key, std::vector<double>& values, double least, double most) const {
    if (!node.has(key)) return;
    for (const Node& item : node.child(key).items()) values.push_back(item.number(least, most));
  }
  void reason(std::string_view key, Reason& value) const {
    if (node.has(key)) value = read_reason(node.child(key));
  }
  void button(std::string_view key, PointerButton& value) const {
    value = static_cast<PointerButton>(node.whole_or(key, 0, 0, 4));
  }
  void judged(std::optional<Verdict>& verdict) const {
    if (node.truth_or("waits", false)) return;
    part("verdict", verdict.emplace());
  }
  template <class Part>
  static void read(const Node& from, const TableSetup& setup, Part& value) {
    from.expect_keys(keys_of<Part>());
    InputReader reader{from, setup};
    fields(value, reader);
  }
  template <class Part>
  void part(std::string_view key, Part& value) const {
    if (node.has(key)) read(node.child(key), setup, value);
  }
  template <class Part>
  void parts(std::string_view key, std::vector<Part>& values) const {
    if (!node.has(key)) return;
    for (const Node& part : node.child(key).items()) read(part, setup, values.emplace_back());
  }

  template <class Value, std::size_t N>
  void tag(std::string_view key, Value& value, const Words<Value, N>& words) const {
    value = named(node.at(key), key, node.at(key).text(), words);
  }
  void tag(std::string_view) const {}
  void tag(std::string_view key, Move& value) const { read(node.at(key), setup, value); }
  void tag(std::string_view key, Script& value) const { read(node.at(key), setup, value); }
  template <class Value>
  void tag(std::string_view key, Value& value) const {
    FromJson{setup}(node.at(key), value);
  }
  template <std::size_t N>
  void tag(const Words<ReasonInput::What, N>& words, ReasonInput::What& what, std::string& reason) const {
    for (const auto& [word, value] : words) {
      if (!node.has(word)) continue;
      what = value;
      reason = node.child(word).text();
    }
  }
  template <std::size_t N>
  void tag(const Words<bool, N>& words, bool& which) const {
    for (const auto& [word, value] : words) {
      if (node.has(word)) which = value;
    }
  }
  template <class Options>
  void options(std::string_view key, Options& value) const {
    read_into(node.at(key), value);
  }
  void table(std::string_view key, std::shared_ptr<const TableSetup>& value) const {
    const Node text = node.at(key);
    auto table = parse_table(text.text(), "the table in the log");
    if (!table) text.stop(table.error().front().code, describe(table.error().front()));
    value = std::make_shared<const TableSetup>(*std::move(table));
  }
  void wanted(std::string_view key, std::vector<WantedZone>& value) const {
    FromJson{setup}(node.at(key), value);
  }
  void arguments(std::string_view key, std::vector<VerdictArgument>& values) const {
    if (!node.has(key)) return;
    for (const Node& item : node.child(key).items()) {
      item.expect_keys({"name", "value"});
      values.push_back({.name = item.at("name").text(), .value = read_argument(item.at("value"), setup)});
    }
  }
  void numbers(std::string_view key, Numbers& value) const {
    if (node.has(key)) value = read_numbers(node.child(key));
  }
  void effect(std::string_view key, std::optional<CardEffect>& value) const {
    if (node.has(key)) read_into(node.child(key), value.emplace());
  }
  void zone(std::string_view key, ZoneId zone, ZoneBehaviour& value) const {
    const Node options = node.at(key);
    expect_option_keys(options);
    read_zone_layout(options, value.layout);
    read_zone_rules(options, setup, {zone}, value.rules, value.handling);
  }
  void plans(std::string_view key, std::vector<Plan>& value) const {
    const PlanNames nothing;
    PlanReader reader(setup, nothing);
    for (const Node& plan : node.at(key).items()) value.push_back(reader.read(plan));
  }
};

/// How many keys of a kind may say that it is this kind; they come first.
template <class Kind>
constexpr std::size_t tags = std::is_same_v<Kind, ReasonInput> ? play_detail::reason_words.size()
                             : std::is_same_v<Kind, UndoInput> ? play_detail::undo_words.size()
                                                               : 1;

template <class Kind>
std::span<const std::string_view> tags_of() {
  static const std::vector<std::string_view> keys = keys_of<Kind>();
  return std::span(keys).first(tags<Kind>);
}

/// Reads the input if it is of this kind.
template <class Kind>
bool read_as(const Node& node, const TableSetup& setup, AnyInput& input) {
  const auto own = tags_of<Kind>();
  if (std::none_of(own.begin(), own.end(), [&](std::string_view key) { return node.has(key); })) return false;
  std::vector<std::string_view> keys = keys_of<Kind>();
  keys.push_back("time");
  node.expect_keys(keys);
  Kind kind;
  InputReader reader{node, setup};
  fields(kind, reader);
  if (node.has("time")) kind.time = node.child("time").number(-most_seconds, most_seconds);
  input = std::move(kind);
  return true;
}

template <class... Kinds>
AnyInput read_any(const Node& node, const TableSetup& setup, const std::variant<Kinds...>*) {
  AnyInput input;
  if ((read_as<Kinds>(node, setup, input) || ...)) return input;
  std::string all;
  const auto list = [&](std::span<const std::string_view> keys) {
    for (const std::string_view key : keys) all += fmt::format("{}'{}'", all.empty() ? "" : ", ", key);
  };
  (list(tags_of<Kinds>()), ...);
  node.stop(ProblemCode::missing_key, fmt::format("no input: one of {} is expected", all));
}

}  // namespace

AnyInput read_input(const Node& node, const TableSetup& setup) {
  return read_any(node, setup, static_cast<const AnyInput*>(nullptr));
}

}  // namespace apsidon::files_detail
