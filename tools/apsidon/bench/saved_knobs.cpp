#include "bench/saved_knobs.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <string_view>

#include <nlohmann/json.hpp>

#include "apsidon/files/table_file.hpp"
#include "bench/json_text.hpp"

namespace apsidon::tool {
namespace {

using Json = nlohmann::ordered_json;

/// A number as the file would have it: without what a float adds.
Json number_of(float value) { return std::stod(fmt::format("{:.4g}", value)); }

JsonPath joined(JsonPath path, std::initializer_list<std::string> more) {
  path.insert(path.end(), more);
  return path;
}

bool has_same_parts(const PlanNode& a, const PlanNode& b) {
  return a.kind == b.kind &&
         std::equal(a.parts.begin(), a.parts.end(), b.parts.begin(), b.parts.end(), has_same_parts);
}

/// Whether two tables are one, whose knobs may stand otherwise.
bool is_same_table(const TableSetup& a, const TableSetup& b) {
  const auto same_zone = [](const Zone& x, const Zone& y) {
    return x.name == y.name && x.cards.size() == y.cards.size();
  };
  const auto same_plan = [](const Plan& x, const Plan& y) {
    return x.name == y.name && has_same_parts(x.root, y.root);
  };
  const auto zones_a = a.table.zones(), zones_b = b.table.zones();
  return a.table.deck() == b.table.deck() &&
         std::equal(zones_a.begin(), zones_a.end(), zones_b.begin(), zones_b.end(), same_zone) &&
         std::equal(a.plans.begin(), a.plans.end(), b.plans.begin(), b.plans.end(), same_plan);
}

class Saver {
 public:
  Saver(const std::string& text, const TableSetup& before, const TableSetup& now)
      : file_(Json::parse(text)), saved_(text), before_(before), now_(now) {}

  SavedKnobs save() {
    const Json was = Json::parse(write_table(before_)), is = Json::parse(write_table(now_));
    const Zones zones_were = by_id(was), zones_are = by_id(is);
    for (std::size_t i = 0; i < file_["zones"].size(); ++i) save_zones(i, zones_were, zones_are);
    for (std::size_t i = 0; i < before_.plans.size(); ++i) save_plan(i);
    save_faces();
    return {saved_.text(), std::move(left_out_)};
  }

 private:
  using Zones = std::map<std::string, Json>;

  static Zones by_id(const Json& table) {
    Zones zones;
    for (const Json& zone : table.at("zones")) zones[zone.at("name")] = zone;
    return zones;
  }

  /// "column-3" is one of the zones that the entry "column" makes.
  static bool is_of(const std::string& name, const std::string& id) {
    return name == id || (name.starts_with(id + "-") &&
                          name.find_first_not_of("-0123456789", id.size()) == std::string::npos);
  }

  /// One entry speaks for all that it repeats: what is not alike in them has no place in it.
  void save_zones(std::size_t entry, const Zones& was, const Zones& is) {
    const Json& in_file = file_["zones"][entry];
    const std::string id = in_file.value("name", "");
    const bool makes_several = in_file.contains("repeat") || in_file.contains("formation");
    std::vector<std::string> names;
    for (const auto& [name, then] : was) {
      if ((makes_several ? is_of(name, id) : name == id) && is.contains(name)) names.push_back(name);
    }
    if (names.empty()) return;
    const std::string& first = names.front();
    const bool all_alike =
        std::all_of(names.begin(), names.end(), [&](const auto& n) { return alike(is.at(first), is.at(n)); });
    if (all_alike) return save_zone({"zones", std::to_string(entry)}, in_file, was.at(first), is.at(first));
    for (const std::string& name : names) {
      if (was.at(name) == is.at(name)) continue;
      left_out_.push_back(fmt::format(
          "what has changed of '{}' alone is not saved: the file has one entry for all of '{}'", name, id));
    }
  }
  static bool alike(Json a, Json b) {
    a.erase("name");
    b.erase("name");
    return a == b;
  }

  void save_zone(const JsonPath& path, const Json& in_file, const Json& then, const Json& here) {
    for (const Json& side : {then, here}) {
      for (const auto& [key, value] : side.items()) {
        const Json a = then.value(key, Json()), b = here.value(key, Json());
        if (a == b) continue;
        if (b.is_null()) {
          saved_.erase(joined(path, {key}));
        } else {
          save_value(joined(path, {key}), in_file.value(key, Json()), a, b);
        }
      }
    }
  }

  /// Of a layout only the options that have changed; the file's own words stay for all else.
  void save_value(const JsonPath& path, const Json& in_file, const Json& then, const Json& here) {
    const auto kind = [](const Json& value) -> Json {
      return value.is_object() ? value.value("kind", Json()) : value;
    };
    if (!here.is_object() || kind(here).is_null() || kind(then) != kind(here)) {
      saved_.set(path, here);
      return;
    }
    Json options = in_file.is_object() ? Json::object() : Json{{"kind", kind(here)}};
    for (const auto& [name, value] : here.items()) {
      if (!then.is_object() || then.value(name, Json()) != value) options[name] = value;
    }
    if (!in_file.is_object()) {
      saved_.set(path, options);
      return;
    }
    for (const auto& [name, value] : options.items()) saved_.set(joined(path, {name}), value);
  }

  void save_plan(std::size_t i) {
    const JsonPath path{"plans", std::to_string(i)};
    const Plan &then = before_.plans[i], &here = now_.plans[i];
    if (then.margin != here.margin) saved_.set(joined(path, {"margin"}), number_of(here.margin));
    if (then.root == here.root) return;
    if (!save_node(joined(path, {"root"}), file_["plans"][i]["root"], then.root, here.root))
      left_out_.push_back(fmt::format(
          "a gap of the plan '{}' is not saved: it lies within 'seats' or 'as', which one entry stands for",
          then.name));
  }

  /// The same node in the file and in both plans. Returns whether all that has changed could be put there.
  bool save_node(const JsonPath& path, const Json& in_file, const PlanNode& then, const PlanNode& here) {
    const auto list =
        std::find_if(lists.begin(), lists.end(), [&](std::string_view key) { return in_file.contains(key); });
    if (list == lists.end()) return then == here;
    if (!(then.gap == here.gap)) {
      const Json cards = number_of(here.gap.cards);
      const Json px = number_of(here.gap.px);
      saved_.set(joined(path, {"gap"}), here.gap.px == 0 ? cards : Json{{"cards", cards}, {"px", px}});
    }
    bool all = true;
    std::size_t next = 0;
    const Json& parts = in_file.at(std::string(*list));
    for (std::size_t i = 0; i < parts.size(); ++i) {
      const std::size_t stands_for = parts[i].contains("each") ? repeated(parts[i]["each"]) : 1;
      for (std::size_t k = 0; k < stands_for && next < then.parts.size(); ++k, ++next) {
        const JsonPath part = joined(path, {std::string(*list), std::to_string(i)});
        all = save_node(part, parts[i], then.parts[next], here.parts[next]) && all;
      }
    }
    return all;
  }
  [[nodiscard]] std::size_t repeated(const std::string& id) const {
    const auto zones = before_.table.zones();
    return static_cast<std::size_t>(
        std::count_if(zones.begin(), zones.end(), [&](const Zone& z) { return is_of(z.name, id); }));
  }

  void save_faces() {
    for (const Zone& zone : before_.table.zones()) {
      for (std::size_t i = 0; i < zone.cards.size(); ++i) {
        const Card* here = now_.table.card(zone.cards[i]);
        if (!here || here->face == before_.table.card(zone.cards[i])->face) continue;
        const std::string face = now_.table.deck().text(here->face);
        if (!save_face(zone.name, i, face))
          left_out_.push_back(fmt::format(
              "the face {} of a card in '{}' is not saved: the file has a whole deck there, not its cards",
              face, zone.name));
      }
    }
  }
  bool save_face(const std::string& zone, std::size_t index, const std::string& face) {
    const Json entry = file_.value("cards", Json::object()).value(zone, Json());
    if (entry.is_array()) return save_card({"cards", zone}, entry, index, face);
    if (!entry.is_object() || entry.contains("deck")) return false;
    const Json covered = entry.value("covered", Json::array()), open = entry.value("open", Json::array());
    if (index < covered.size()) return save_card({"cards", zone, "covered"}, covered, index, face);
    return save_card({"cards", zone, "open"}, open, index - covered.size(), face);
  }
  bool save_card(const JsonPath& path, const Json& cards, std::size_t index, const std::string& face) {
    if (index >= cards.size()) return false;
    const JsonPath card = joined(path, {std::to_string(index)});
    return saved_.set(cards[index].is_object() ? joined(card, {"face"}) : card, face);
  }

  static constexpr std::array<std::string_view, 3> lists{"across", "down", "layers"};

  Json file_;
  JsonText saved_;
  const TableSetup& before_;
  const TableSetup& now_;
  std::vector<std::string> left_out_ = {};
};

}  // namespace

SavedKnobs with_knobs(const std::string& text, const TableSetup& before, const TableSetup& now) {
  if (!is_same_table(before, now))
    return {text, {"the file has become another table's meanwhile: nothing is saved"}};
  return Saver(text, before, now).save();
}

}  // namespace apsidon::tool
