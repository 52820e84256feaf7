// Habits that would decay silently: names of tests, lists in the docs, links.
#include <catch2/catch.hpp>
#include <filesystem>
#include <functional>
#include <nlohmann/json.hpp>
#include <regex>
#include <set>
#include <sstream>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::vector<std::filesystem::path> files_under(const std::string& folder, const std::string& ending) {
  std::vector<std::filesystem::path> files;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(source(folder))) {
    if (entry.path().string().ends_with(ending)) files.push_back(entry.path());
  }
  return files;
}

}  // namespace

TEST_CASE("style: docs/errors.md lists every code, and no other") {
  std::set<std::string> codes;
  for (int i = 0; i < reason_count; ++i) codes.insert(std::string(code_of(static_cast<Reason>(i))));
  for (int i = 0; i < problem_code_count; ++i)
    codes.insert(std::string(code_of(static_cast<ProblemCode>(i))));
  std::set<std::string> listed;
  for (const std::string& line : lines_of(contents(source("docs/errors.md")))) {
    if (line.starts_with("| `")) listed.insert(line.substr(3, line.find('`', 3) - 3));
  }
  CHECK(listed == codes);
}

TEST_CASE(
    "style: the page of each layout lists every option of the schema, and draws its picture from a table") {
  const auto schema = nlohmann::json::parse(contents(source("data/schemas/table.schema.json")));
  const std::vector<std::string> kinds = layout_kinds();
  const auto words = schema["definitions"]["layout"]["oneOf"][0]["enum"].get<std::vector<std::string>>();
  CHECK(std::set<std::string>(words.begin(), words.end()) ==
        std::set<std::string>(kinds.begin(), kinds.end()));
  const std::string page = contents(source("docs/layouts.md"));
  for (const std::string& kind : kinds) {
    CHECK(page.find("](layouts/" + kind + ".md)") != std::string::npos);
    std::set<std::string> options;
    for (const auto& variant : schema["definitions"]["layout"]["oneOf"]) {
      if (variant.value("/properties/kind/const"_json_pointer, "") != kind) continue;
      for (const auto& item : variant["properties"].items()) options.insert(item.key());
    }
    options.erase("kind");
    std::set<std::string> listed;
    for (const std::string& line : lines_of(contents(source("docs/layouts/" + kind + ".md")))) {
      if (line.starts_with("| `")) listed.insert(line.substr(3, line.find('`', 3) - 3));
    }
    CAPTURE(kind);
    CHECK(listed == options);
    CHECK(tool({"place", "docs/layouts/" + kind + ".table.json", "--trust"}).code == 0);
  }
}

TEST_CASE("style: every test is a sentence with its part first") {
  const std::set<std::string> parts{"geometry", "cards", "layout",   "plan",  "motion", "hit",
                                    "rules",    "art",   "gesture",  "play",  "files",  "draw",
                                    "studio",   "tool",  "examples", "style", "sdl",    "budget"};
  const std::regex test_case("\\nTEST_CASE\\(\\s*\"([^\"]*)\"");
  int tests = 0;
  int all = 0;
  for (const auto& file : files_under("tests", "_test.cpp")) {
    const std::string text = "\n" + contents(file);
    for (std::size_t at = 0; (at = text.find("\nTEST_CASE(", at)) != std::string::npos; ++at) ++all;
    for (std::sregex_iterator it(text.begin(), text.end(), test_case), end; it != end; ++it) {
      const std::string name = (*it)[1];
      CAPTURE(file.string(), name);
      CHECK(parts.contains(name.substr(0, name.find(':'))));
      ++tests;
    }
  }
  CHECK(tests == all);
  CHECK(tests > 100);
}

TEST_CASE(
    "style: the pages become one site: all is described, every link leads somewhere, words are spelt right") {
  const auto outcome = run(source("scripts/site").string(), {"--check"});
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(outcome.out.find(", 0 problems") != std::string::npos);
}

TEST_CASE("style: what the pages have of files is as the schemas have it") {
  std::size_t values = 0;
  for (const auto& page : files_under("docs", ".md")) {
    bool inside = false;
    std::stringstream block;
    for (const std::string& line : lines_of(contents(page))) {
      if (line.starts_with("```")) {
        inside = line == "```json";
      } else if (inside) {
        block << line << '\n';
      }
    }
    for (nlohmann::json value; block >> std::ws && !block.eof();) {
      block >> value;
      CAPTURE(page.string(), value.dump());
      ++values;
      if (value.contains("apsidon")) {
        CHECK(Schema(value["apsidon"].get<std::string>()).accepts(value));
      } else if (value.contains("overlays")) {
        for (const auto& overlay : value["overlays"]) CHECK(Schema("table", "overlay").accepts(overlay));
      } else if (value.contains("root")) {
        CHECK(Schema("table", "plan").accepts(value));
      } else {
        CHECK(Schema("table", value.contains("kind") ? "panel" : "zone").accepts(value));
      }
    }
  }
  CHECK(values > 10);
}

TEST_CASE("style: fuzzers begin with tables that are accepted, and know every key of a file") {
  int tables = 0;
  for (const auto& file : files_under("fuzz/corpus/table", ".json")) {
    const auto read = load_table(file, OtherFiles::anywhere);
    CAPTURE(file.string(), read ? "" : describe(read.error().front()));
    CHECK(read.has_value());
    ++tables;
  }
  CHECK(tables > 2);
  const std::string words = contents(source("fuzz/json.dict"));
  const std::function<void(const nlohmann::json&)> look = [&](const nlohmann::json& schema) {
    if (schema.is_object() && schema.value("properties", nlohmann::json()).is_object()) {
      for (const auto& item : schema["properties"].items()) {
        CAPTURE(item.key());
        CHECK(words.find("\\\"" + item.key() + "\\\"") != std::string::npos);
      }
    }
    if (schema.is_structured())
      for (const auto& part : schema) look(part);
  };
  for (const char* name : {"table", "deck", "feel", "art", "recipe", "input"})
    look(nlohmann::json::parse(contents(source("data/schemas/" + std::string(name) + ".schema.json"))));
}

TEST_CASE("style: a hundred questions are answered, each found by its own words") {
  const auto outcome = run("/usr/bin/env", {"python3", source("scripts/questions").string(), "--check"});
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(outcome.out.find(", 0 problems") != std::string::npos);
}

TEST_CASE("style: every screenshot is linked from the README, and there are few") {
  const std::string readme = contents(source("README.md"));
  int shots = 0;
  for (const auto& shot : files_under("docs/screenshots", ".png")) {
    CAPTURE(shot.string());
    CHECK(readme.find(shot.filename().string()) != std::string::npos);
    ++shots;
  }
  CHECK(shots > 4);
  CHECK(shots < 20);
}

TEST_CASE("style: every mistake that is planted can be planted: its source has the text that it changes") {
  int planted = 0;
  for (const char* list : {"scripts/mutations.txt", "scripts/mutants/same.txt"}) {
    for (const std::string& line : lines_of(contents(source(list)))) {
      if (!line.starts_with("src/") && !line.starts_with("include/") && !line.starts_with("tools/")) continue;
      const std::size_t bar = line.find('|');
      std::string text;
      for (std::size_t i = bar + 1; i < line.size() && line[i] != '|'; ++i) {
        if (line[i] == '\\' && i + 1 < line.size() && line[i + 1] == '|') ++i;
        text += line[i];
      }
      CAPTURE(list, line);
      const auto file = source(line.substr(0, bar));
      REQUIRE(std::filesystem::exists(file));
      CHECK(contents(file).find(text) != std::string::npos);
      ++planted;
    }
  }
  CHECK(planted > 50);
}
