#include "saved_knobs.hpp"

#include <array>

#include <nlohmann/json.hpp>

#include "apsidon/files/table_file.hpp"

namespace apsidon::tool {
namespace {

using Json = nlohmann::ordered_json;

const Json* zone_named(const Json& zones, const std::string& name) {
  for (const Json& zone : zones) {
    if (zone.value("id", "") == name) return &zone;
  }
  return nullptr;
}

/// What has changed of a value, set in what the file says; the file's own words stay for all else.
void set_changed(Json& in_file, const Json& before, const Json& now) {
  if (!before.is_object() || !now.is_object() || before.value("kind", "") != now.value("kind", "")) {
    in_file = now;
    return;
  }
  if (!in_file.is_object()) in_file = Json{{"kind", now.at("kind")}};
  for (const auto& [name, value] : now.items()) {
    if (!before.contains(name) || before.at(name) != value) in_file[name] = value;
  }
}

}  // namespace

std::string with_knobs(const std::string& text, const TableSetup& before, const TableSetup& now) {
  Json file = Json::parse(text);
  const Json was = Json::parse(write_table(before)), is = Json::parse(write_table(now));
  for (Json& zone : file["zones"]) {
    // What is repeated is alike: the first of them speaks for all.
    const std::string id = zone.value("id", "");
    for (const std::string& name : {id, id + "-1", id + "-1-1"}) {
      const Json* then = zone_named(was["zones"], name);
      const Json* here = zone_named(is["zones"], name);
      if (!then || !here) continue;
      for (const char* key : {"layout", "longest", "factor", "facing", "hover", "zoom"}) {
        const Json a = then->value(key, Json()), b = here->value(key, Json());
        if (a == b) continue;
        if (b.is_null()) zone.erase(key);
        if (!b.is_null()) set_changed(zone[key], a, b);
      }
      break;
    }
  }
  return file.dump(2) + "\n";
}

}  // namespace apsidon::tool
