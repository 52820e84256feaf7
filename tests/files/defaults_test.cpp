// What the schemas state as defaults is what a file without the key means.
#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>

#include "apsidon/art/art_file.hpp"
#include "apsidon/files/feel_file.hpp"
#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/studio/recipe.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;
using Json = nlohmann::json;

namespace {

/// Goes through a document beside its schema, and finds each optional key that has a default there.
class Defaults {
 public:
  Defaults(const std::string& name, const Json& document)
      : schema_(Json::parse(contents(source("data/schemas/" + name + ".schema.json")))) {
    go(schema_, document, Json::json_pointer());
  }

  struct Found {
    Json::json_pointer at;
    Json value;
  };
  [[nodiscard]] const std::vector<Found>& found() const { return found_; }

 private:
  [[nodiscard]] const Json& resolved(const Json& schema) const {
    const Json* s = &schema;
    while (s->is_object() && s->contains("$ref"))
      s = &schema_.at(Json::json_pointer((*s)["$ref"].get<std::string>().substr(1)));
    return *s;
  }
  /// Whether one form of several is the one that the document has: by its kind, its keys, and its constants.
  [[nodiscard]] bool fits(const Json& form, const Json& document) const {
    const Json& s = resolved(form);
    if (s.contains("enum") || s.contains("const")) return false;  // nothing is within
    if (!s.contains("properties")) return s.value("type", "") == "array" ? document.is_array() : true;
    if (!document.is_object()) return false;
    for (const auto& key : s.value("required", Json::array()))
      if (!document.contains(key.get<std::string>())) return false;
    for (const auto& [key, value] : document.items()) {
      const auto known = s["properties"].find(key);
      if (known == s["properties"].end()) return s.value("additionalProperties", Json(true)) != Json(false);
      if (known->is_object() && known->contains("const") && (*known)["const"] != value) return false;
    }
    return true;
  }
  void go(const Json& schema, const Json& document, const Json::json_pointer& at) {
    const Json& s = resolved(schema);
    if (!s.is_object()) return;
    for (const char* several : {"oneOf", "anyOf"}) {
      for (const Json& form : s.value(several, Json::array()))
        if (fits(form, document)) go(form, document, at);
    }
    if (document.is_array() && s.value("items", Json()).is_object()) {
      for (std::size_t i = 0; i < document.size(); ++i) go(s["items"], document[i], at / i);
    }
    if (!document.is_object()) return;
    const Json properties = s.value("properties", Json::object());
    for (const auto& [key, value] : properties.items()) {
      if (value.is_object() && value.contains("default")) found_.push_back({at / key, value["default"]});
      if (document.contains(key)) go(s["properties"][key], document[key], at / key);
    }
    const auto others = s.find("additionalProperties");
    if (others == s.end() || !others->is_object()) return;
    for (const auto& [key, value] : document.items())
      if (!properties.contains(key)) go(*others, value, at / key);
  }

  Json schema_;
  std::vector<Found> found_;
};

/// With the key at its default, and without it, `read` gives the same. Returns how many were compared: a key
/// that another one needs cannot be left out.
template <class Read>
std::size_t check_defaults(const std::string& name, const Json& document, Read read) {
  std::size_t compared = 0;
  const Defaults defaults(name, document);
  for (const auto& [at, value] : defaults.found()) {
    Json with = document;
    Json without = document;
    with[at] = value;
    if (without.contains(at)) without[at.parent_pointer()].erase(at.back());
    const auto left_out = read(without.dump());
    if (!left_out) continue;
    const auto stated = read(with.dump());
    CAPTURE(name, at.to_string(), value.dump());
    REQUIRE(stated);
    CHECK(*stated == *left_out);
    ++compared;
  }
  return compared;
}

Json json_in_file(const std::string& file) { return Json::parse(contents(source(file))); }

/// What is read, in a form that can be compared; nothing where it was refused.
template <class Value, class Form>
std::optional<std::string> written_form(const Result<Value>& read, Form form) {
  return read ? std::optional<std::string>(form(*read)) : std::nullopt;
}

const std::string everything_file = "tests/reference/everything.table.json";

}  // namespace

TEST_CASE(
    "files: a key that is left out is at the default that its schema states, in tables, decks and feels") {
  CHECK(check_defaults("table", json_in_file(everything_file), [](const std::string& text) {
          return written_form(parse_table(text, source(everything_file), OtherFiles::anywhere), write_table);
        }) > 250);
  CHECK(check_defaults(
            "deck", json_in_file("tests/reference/everything.deck.json"),
            [](const std::string& text) { return written_form(parse_deck(text, "x"), write_deck); }) > 3);
  CHECK(check_defaults("feel", {{"apsidon", "feel"}, {"version", 1}}, [](const std::string& text) {
          return written_form(parse_feel(text, "x"), write_feel);
        }) == 9);
}

TEST_CASE(
    "files: a key that is left out is at the default that its schema states, in art, recipes and inputs") {
  const auto read = [](const auto& result) { return result ? std::optional(*result) : std::nullopt; };
  CHECK(check_defaults("art", json_in_file("tests/reference/everything.art.json"),
                       [&](const std::string& text) { return read(parse_art(text, "x")); }) > 1);
  CHECK(check_defaults("recipe", {{"apsidon", "recipe"}, {"version", 1}},
                       [&](const std::string& text) { return read(parse_recipe(text, "x")); }) == 5);
  const TableSetup table = table_of_log();
  std::size_t compared = 0;
  std::ifstream lines(source("tests/reference/everything.log"));
  std::string line;
  std::getline(lines, line);
  compared += check_defaults("input", Json::parse(line), [&](const std::string& text) {
    return written_form(parse_log(text, "x", table),
                        [&](const InputLog& log) { return write_log(log, table); });
  });
  CHECK(compared > 20);
  while (std::getline(lines, line)) {
    compared += check_defaults("input", Json::parse(line), [&](const std::string& text) {
      return written_form(parse_input(text, table),
                          [&](const Input& input) { return write_input(input, table); });
    });
  }
  CHECK(compared > 150);
}
