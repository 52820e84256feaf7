#include <fmt/format.h>

#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace files_detail {

Deck deck_from(const Node& node, std::string data) {
  DeckOptions options{.name = node.text_or("name", ""), .data = std::move(data)};
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
  if (!options.data.empty()) json["data"] = verbatim.stand_in(options.data);
  return json;
}

}  // namespace files_detail

using namespace files_detail;

Result<Deck> parse_deck(std::string_view text, const std::filesystem::path& file) {
  return read_document<Deck>(text, file, "deck", [&](const Node& top) {
    top.expect_keys({"apsidon", "version", "name", "suits", "ranks", "jokers", "sets", "copies", "data"});
    return deck_from(top, data_text(top, text));
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
