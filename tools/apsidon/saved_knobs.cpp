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

}  // namespace

std::string with_knobs(const std::string& text, const TableSetup& setup) {
  Json file = Json::parse(text);
  const Json whole = Json::parse(write_table(setup));
  for (Json& zone : file["zones"]) {
    // What is repeated is alike: the first of them speaks for all.
    const std::string id = zone.value("id", "");
    const Json* now = nullptr;
    for (const std::string& name : {id, id + "-1", id + "-1-1"})
      now = now ? now : zone_named(whole["zones"], name);
    if (!now) continue;
    for (const char* key : {"layout", "longest", "factor", "facing", "hover", "zoom"}) {
      if (now->contains(key)) zone[key] = now->at(key);
      if (!now->contains(key)) zone.erase(key);
    }
  }
  return file.dump(2) + "\n";
}

}  // namespace apsidon::tool
