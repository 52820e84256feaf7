// One line of an input log, written.
#include <string>
#include <type_traits>

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

using Json = nlohmann::ordered_json;
using namespace play_detail;

/// Values by themselves.
struct ToJson {
  const TableSetup& setup;

  Json operator()(double value) const { return value; }
  Json operator()(float value) const { return decimal(value); }
  Json operator()(bool value) const { return value; }
  Json operator()(int value) const { return value; }
  Json operator()(std::uint32_t value) const { return value; }
  Json operator()(std::uint64_t value) const { return value; }
  Json operator()(const std::string& value) const { return value; }
  template <class Thing>
  Json operator()(const Id<Thing>& value) const {
    return value.value;
  }
  Json operator()(ZoneId value) const {
    const Zone* zone = setup.table.zone(value);
    return zone ? Json(zone->name) : Json(value.value);
  }
  Json operator()(SeatId value) const {
    const auto seats = setup.table.seats();
    return value && value.value <= seats.size() ? Json(seats[value.value - 1].name) : Json(value.value);
  }
  Json operator()(FaceId value) const {
    const Deck& deck = setup.table.deck();
    return value == hidden_face || deck.has(value) ? Json(deck.text(value)) : Json(value.value);
  }
  Json operator()(const Vec2& value) const { return {decimal(value.x), decimal(value.y)}; }
  Json operator()(const Size& value) const { return {decimal(value.width), decimal(value.height)}; }
  Json operator()(const Insets& value) const {
    return {decimal(value.left), decimal(value.top), decimal(value.right), decimal(value.bottom)};
  }
  template <class Value>
  Json operator()(const std::vector<Value>& values) const {
    Json list = Json::array();
    for (const Value& value : values) list.push_back((*this)(value));
    return list;
  }
  template <class Value>
  Json operator()(const SharedList<Value>& values) const {
    return (*this)(std::vector<Value>(values.begin(), values.end()));
  }
  Json operator()(const WantedCard& wanted) const {
    Json card{{"key", wanted.key}};
    if (wanted.face) card["face"] = (*this)(*wanted.face);
    if (wanted.face_up) card["face_up"] = *wanted.face_up;
    if (wanted.sideways) card["sideways"] = *wanted.sideways;
    if (wanted.numbers) card["numbers"] = json_of(*wanted.numbers);
    return card;
  }
  Json operator()(const WantedZone& zone) const {
    Json json{{"zone", zone.key}, {"cards", (*this)(zone.cards)}};
    if (zone.numbers) json["numbers"] = json_of(*zone.numbers);
    return json;
  }
};

/// Writes what is not at its default.
struct InputWriter {
  Json& json;
  const TableSetup& setup;

  template <class Value>
  void put(std::string_view key, const Value& value) const {
    json[std::string(key)] = ToJson{setup}(value);
  }
  template <class Value>
  void operator()(std::string_view key, Value& value, std::type_identity_t<Value> otherwise = {}) const {
    if (!(value == otherwise)) put(key, value);
  }
  template <class Value>
  void operator()(std::string_view key, std::optional<Value>& value) const {
    if (value) put(key, *value);
  }
  template <class Value, std::size_t N>
  void operator()(std::string_view key, Value& value, const Words<Value, N>& words, Value otherwise) const {
    if (value != otherwise) put(key, std::string(name_in(words, value)));
  }
  template <class Value>
  void always(std::string_view key, Value& value) const {
    put(key, value);
  }
  template <class Number>
  void number(std::string_view key, Number& value, Number otherwise, double, double) const {
    if (value != otherwise) put(key, value);
  }
  void cut(std::string_view key, float& value, float otherwise, double least, double most) const {
    number(key, value, otherwise, least, most);
  }
  template <class Value>
  void seconds(std::string_view key, Value& value, double, double) const {
    if (value != Value{}) put(key, value);
  }
  void reason(std::string_view key, Reason& value) const {
    if (value != Reason::allowed) put(key, std::string(code_of(value)));
  }
  void button(std::string_view key, PointerButton& value) const {
    if (value != PointerButton::primary) put(key, static_cast<int>(value));
  }
  void judged(std::optional<Verdict>& verdict) const {
    if (!verdict) return put("waits", true);
    part("verdict", *verdict);
  }
  template <class Part>
  [[nodiscard]] Json written(Part& value) const {
    Json own = Json::object();
    InputWriter writer{own, setup};
    fields(value, writer);
    return own;
  }
  template <class Part>
  void part(std::string_view key, Part& value) const {
    if (!(value == Part{})) json[std::string(key)] = written(value);
  }
  template <class Part>
  void parts(std::string_view key, std::vector<Part>& values) const {
    for (Part& value : values) json[std::string(key)].push_back(written(value));
  }

  template <class Value, std::size_t N>
  void tag(std::string_view key, Value& value, const Words<Value, N>& words) const {
    put(key, std::string(name_in(words, value)));
  }
  void tag(std::string_view key) const { put(key, true); }
  void tag(std::string_view key, Move& value) const { json[std::string(key)] = written(value); }
  void tag(std::string_view key, Script& value) const { json[std::string(key)] = written(value); }
  template <class Value>
  void tag(std::string_view key, Value& value) const {
    put(key, value);
  }
  template <std::size_t N>
  void tag(const Words<ReasonInput::What, N>& words, ReasonInput::What& what, std::string& reason) const {
    put(name_in(words, what), reason);
  }
  template <std::size_t N>
  void tag(const Words<bool, N>& words, bool& which) const {
    put(name_in(words, which), true);
  }
  template <class Options>
  void options(std::string_view key, Options& value) const {
    json[std::string(key)] = json_of(value);
  }
  void table(std::string_view key, std::shared_ptr<const TableSetup>& value) const {
    json[std::string(key)] = write_table(*value);
  }
  void wanted(std::string_view key, std::vector<WantedZone>& value) const { put(key, value); }
  void numbers(std::string_view key, Numbers& value) const {
    if (!value.empty()) json[std::string(key)] = json_of(value);
  }
  void arguments(std::string_view key, std::vector<VerdictArgument>& values) const {
    const auto written = [&](const auto& value) -> Json {
      using Value = std::remove_cvref_t<decltype(value)>;
      if constexpr (std::is_same_v<Value, CardId>) return {{"card", ToJson{setup}(value)}};
      if constexpr (std::is_same_v<Value, ZoneId>) return {{"zone", ToJson{setup}(value)}};
      if constexpr (!std::is_same_v<Value, CardId> && !std::is_same_v<Value, ZoneId>) return value;
    };
    for (const VerdictArgument& argument : values)
      json[std::string(key)].push_back(
          {{"name", argument.name}, {"value", std::visit(written, argument.value)}});
  }
  void effect(std::string_view key, std::optional<CardEffect>& value) const {
    if (value) json[std::string(key)] = json_of(*value);
  }
  void zone(std::string_view key, ZoneId zone, ZoneBehaviour& value) const {
    check(value, zone, setup);
    Json own = Json::object();
    write_zone(own, value, setup.table);
    json[std::string(key)] = own;
  }
  void plans(std::string_view key, std::vector<Plan>& value) const {
    check(value, setup);
    json[std::string(key)] = Json::array();
    for (const Plan& plan : value) json[std::string(key)].push_back(json_of(plan, setup));
  }
};

}  // namespace

nlohmann::ordered_json json_of(const AnyInput& input, const TableSetup& setup) {
  Json json{{"time", time_of(input)}};
  AnyInput copy = input;
  InputWriter writer{json, setup};
  std::visit([&](auto& kind) { fields(kind, writer); }, copy);
  return json;
}

}  // namespace apsidon::files_detail
