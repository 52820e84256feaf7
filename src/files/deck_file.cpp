#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace files_detail {

Deck deck_from(const Node& node) {
  DeckOptions options{.name = node.text_or("name", "")};
  for (const Node& suit : node.at("suits").items()) {
    suit.expect_keys({"name", "colour"});
    options.suits.push_back({.name = suit.at("name").text(), .colour = suit.at("colour").text()});
  }
  for (const Node& rank : node.at("ranks").items()) options.ranks.push_back(rank.text());
  options.copies = node.whole_or("copies", 1, 1, 1'000'000);
  return node.guard(ProblemCode::repeated_name, [&] { return Deck(std::move(options)); });
}

nlohmann::ordered_json json_of(const Deck& deck) {
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
  json["copies"] = options.copies;
  return json;
}

}  // namespace files_detail

using namespace files_detail;

Result<Deck> parse_deck(std::string_view text, const std::filesystem::path& file) {
  return read_document<Deck>(text, file, "deck", [](const Node& top, const Places&) {
    top.expect_keys({"apsidon", "version", "name", "suits", "ranks", "copies", "data"});
    return deck_from(top);
  });
}

Result<Deck> load_deck(const std::filesystem::path& file) {
  const auto text = read_text(file);
  return text ? parse_deck(*text, file) : Result<Deck>(text.error());
}

std::string write_deck(const Deck& deck) {
  nlohmann::ordered_json json;
  json["apsidon"] = "deck";
  json["version"] = 1;
  json.update(json_of(deck));
  return json.dump(2) + '\n';
}

}  // namespace apsidon
