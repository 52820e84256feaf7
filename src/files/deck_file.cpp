#include <fmt/format.h>

#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace files_detail {

namespace {

constexpr std::array<std::pair<std::string_view, bool>, 2> backs_names{{{"alike", false}, {"by-suit", true}}};

}  // namespace

Deck deck_from(const Node& node, DataTexts& texts) {
  node.expect_keys(
      {"apsidon", "version", "name", "suits", "ranks", "jokers", "sets", "copies", "backs", "data"});
  if (node.has("apsidon") || node.has("version")) expect_kind(node, "deck");
  DeckOptions options{.name = node.text_or("name", ""), .data = texts.of(node)};
  for (const Node& suit : node.at("suits").items()) {
    suit.expect_keys({"name", "colour"});
    options.suits.push_back({.name = suit.at("name").text(), .colour = suit.at("colour").text()});
  }
  for (const Node& rank : node.at("ranks").items()) options.ranks.push_back(rank.text());
  for (const char* list : {"suits", "ranks"}) {
    if (node.at(list).items().empty()) {
      node.child(list).stop(ProblemCode::missing_key,
                            fmt::format("the deck has no {}: at least one is expected", list));
    }
  }
  if (node.has("jokers")) {
    for (const Node& joker : node.child("jokers").items()) {
      joker.expect_keys({"name", "colour"});
      options.jokers.push_back({.name = joker.at("name").text(), .colour = joker.text_or("colour", "")});
    }
  }
  if (node.has("sets")) {
    for (const Node& set : node.child("sets").items()) {
      set.expect_keys({"faces", "special"});
      FaceSet read{.special = set.truth_or("special", false)};
      for (const Node& face : set.at("faces").items()) read.faces.push_back(face.text());
      options.sets.push_back(std::move(read));
    }
  }
  options.copies = node.whole_or("copies", 1, 1, 1'000'000);
  if (node.has("backs"))
    options.suit_backs = named(node.child("backs"), "backs", node.child("backs").text(), backs_names);
  return node.guard(ProblemCode::repeated_name, [&] { return Deck(std::move(options)); });
}

nlohmann::ordered_json json_of(const Deck& deck, Verbatim& verbatim) {
  const DeckOptions& options = deck.options();
  nlohmann::ordered_json json;
  json["name"] = options.name;
  for (const Suit& suit : options.suits) {
    nlohmann::ordered_json entry;
    entry["name"] = suit.name;
    entry["colour"] = suit.colour;
    json["suits"].push_back(entry);
  }
  json["ranks"] = options.ranks;
  for (const Joker& joker : options.jokers) {
    nlohmann::ordered_json entry;
    entry["name"] = joker.name;
    if (!joker.colour.empty()) entry["colour"] = joker.colour;
    json["jokers"].push_back(entry);
  }
  for (const FaceSet& set : options.sets) {
    nlohmann::ordered_json entry;
    entry["faces"] = set.faces;
    if (set.special) entry["special"] = true;
    json["sets"].push_back(entry);
  }
  json["copies"] = options.copies;
  if (options.suit_backs) json["backs"] = name_in(backs_names, true);
  if (!options.data.empty()) json["data"] = verbatim.stand_in(options.data);
  return json;
}

}  // namespace files_detail

using namespace files_detail;

Result<Deck> parse_deck(std::string_view text, const std::filesystem::path& file) {
  return read_document<Deck>(text, file, "deck", [&](const Node& top) {
    DataTexts texts(text);
    return deck_from(top, texts);
  });
}

Result<Deck> load_deck(const std::filesystem::path& file) {
  const auto text = read_file(file);
  return text ? parse_deck(*text, file) : Result<Deck>(text.error());
}

std::string write_deck(const Deck& deck) {
  Verbatim verbatim;
  nlohmann::ordered_json json;
  json["apsidon"] = "deck";
  json["version"] = 1;
  json.update(json_of(deck, verbatim));
  return verbatim.written(json);
}

}  // namespace apsidon
