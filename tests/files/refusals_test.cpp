// What is said of every single mistake: each value of a file of each kind is replaced by ones that do not
// fit, each key left out, each object given one too many. What comes of it is kept in
// tests/reference/refusals-KIND.txt; scripts/references makes it anew.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <regex>
#include <set>

#include "apsidon/art/art_file.hpp"
#include "apsidon/files/feel_file.hpp"
#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/studio/recipe.hpp"
#include "support/reference.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

using Json = nlohmann::ordered_json;

/// The first error without its place, or "taken".
template <class Read>
std::string answer(const Result<Read>& result) {
  if (result.has_value()) return "taken";
  static const std::regex place("^[^ ]*:[0-9]+:[0-9]+: (/[^ ]*: )?");
  return std::regex_replace(describe(result.error()[0]), place, "");
}

/// What stands instead of a value that a file has.
std::vector<Json> others_for(const Json& value) {
  if (value.is_number()) return {"seven", -1e9, 1e9, 0.5};
  if (value.is_string()) return {7, "nowhere"};
  if (value.is_boolean()) return {"yes", !value.get<bool>()};
  if (value.is_array()) return {"list", Json::array()};
  return {"thing", Json::object()};
}

/// Every change of one value, key or object, with the place and what it is.
template <class With>
void each_change(const Json& good, With with) {
  std::vector<std::string> open{""};
  while (!open.empty()) {
    const std::string at = open.back();
    open.pop_back();
    const Json& value = good.at(Json::json_pointer(at));
    for (const Json& other : others_for(value)) {
      Json changed = good;
      changed[Json::json_pointer(at)] = other;
      with(at + " = " + other.dump(), changed);
    }
    if (value.is_object()) {
      Json changed = good;
      changed[Json::json_pointer(at)]["surplus"] = 1;
      with(at + "/surplus = 1", changed);
      for (const auto& [key, part] : value.items()) {
        changed = good;
        changed[Json::json_pointer(at)].erase(key);
        with(at + "/" + key + " is left out", changed);
      }
    }
    if (!value.is_structured()) continue;
    const Json parts = value.flatten();
    std::set<std::string> keys;
    for (const auto& [pointer, part] : parts.items()) {
      if (!pointer.empty()) keys.insert(pointer.substr(0, pointer.find('/', 1)));
    }
    for (const std::string& key : keys) open.push_back(at + key);
  }
}

/// Reads each change of a file, and compares what is said with what is kept.
template <class Read>
void check_refusals(const std::string& kind, const Json& good, Read read) {
  REQUIRE(read(good.dump()) == "taken");
  // Of the many zones and cards of a table one of each kind says all: numbers in places are left out.
  static const std::regex number("/[0-9]+");
  std::set<std::string> lines;
  int refused = 0;
  each_change(good, [&](const std::string& what, const Json& changed) {
    const std::string told = read(changed.dump());
    refused += told == "taken" ? 0 : 1;
    lines.insert(std::regex_replace(what, number, "/N") + ": " + told);
  });
  CHECK(refused > 20);
  std::string now;
  for (const std::string& line : lines) now += line + "\n";
  check_kept("refusals-" + kind + ".txt", now);
}

Json json_in(const std::string& file) { return Json::parse(contents(source(file))); }

}  // namespace

TEST_CASE("files: what is said of each mistake in a table, a deck and a feel is what was written down") {
  check_refusals("table", json_in("tests/reference/everything.table.json"),
                 [](const std::string& text) { return answer(parse_table(text, "t.json")); });
  check_refusals("deck", json_in("tests/reference/everything.deck.json"),
                 [](const std::string& text) { return answer(parse_deck(text, "d.json")); });
  check_refusals("feel", json_in("data/springy.feel.json"),
                 [](const std::string& text) { return answer(parse_feel(text, "f.json")); });
}

TEST_CASE("art: what is said of each mistake in an art file and a recipe is what was written down") {
  check_refusals("art", json_in("tests/reference/everything.art.json"),
                 [](const std::string& text) { return answer(parse_art(text, "a.json")); });
  check_refusals("recipe", json_in("data/drawings/glasshouse.recipe.json"),
                 [](const std::string& text) { return answer(parse_recipe(text, "r.json")); });
}

TEST_CASE("files: what is said of each mistake in an input log is what was written down") {
  const TableSetup table = table_of_log();
  const std::string text = contents(source("tests/reference/everything.log"));
  REQUIRE(parse_log(text, "s.log", table));
  Json all = Json::array();
  for (const std::string& line : lines_of(text)) all.push_back(Json::parse(line));
  // The head, and the line that is another.
  check_refusals("log", all, [&](const std::string& changed) {
    std::string log;
    std::size_t i = 0;
    for (const Json& line : Json::parse(changed)) {
      if (i == 0 || line != all[i]) log += line.dump() + "\n";
      ++i;
    }
    return answer(parse_log(log, "s.log", table));
  });
}

TEST_CASE(
    "files: what is written of files with everything on them is what was written down, and is read again") {
  const auto table = load_table(source("tests/reference/everything.table.json"));
  REQUIRE(table);
  const std::string written = write_table(*table);
  check_kept("written.table.json", written);
  CHECK(write_table(*parse_table(written, "t.json")) == written);
  const auto deck = load_deck(source("tests/reference/everything.deck.json"));
  REQUIRE(deck);
  check_kept("written.deck.json", write_deck(*deck));
  CHECK(write_deck(*parse_deck(write_deck(*deck), "d.json")) == write_deck(*deck));
  const auto feel = load_feel(source("data/springy.feel.json"));
  REQUIRE(feel);
  check_kept("written.feel.json", write_feel(*feel));
  CHECK(write_feel(*parse_feel(write_feel(*feel), "f.json")) == write_feel(*feel));
}
