#include "apsidon/art/art_file.hpp"

#include <fmt/format.h>

#include "apsidon/files/read_file.hpp"
#include "art/art_json.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"
#include "files/verbatim.hpp"

namespace apsidon {
namespace {

using namespace art_detail;
using namespace files_detail;
using Json = nlohmann::ordered_json;

constexpr double most_sheet_px = 100'000;
constexpr std::array<std::pair<std::string_view, SheetOrder>, 2> orders{
    {{"by-suit", SheetOrder::by_suit}, {"by-rank", SheetOrder::by_rank}}};

std::vector<std::string> list_from(const Node& node, std::string_view key) {
  std::vector<std::string> out;
  if (!node.has(key)) return out;
  for (const Node& text : node.child(key).items()) out.push_back(text.text());
  return out;
}

/// A picture's name for all of it, or an object with a part of it.
PicturePart part_from(const Node& node) {
  if (node.json().is_string()) return {.picture = node.text()};
  node.expect_form(node.json().is_object(), "a picture, or an object with a part of one,");
  node.expect_keys({"picture", "x", "y", "width", "height"});
  const auto number = [&](const char* key, double least) {
    return static_cast<float>(node.at(key).number(least, most_sheet_px));
  };
  return {.picture = node.at("picture").text(),
          .part = rect_at({number("x", 0), number("y", 0)}, {number("width", 1), number("height", 1)})};
}

std::map<std::string, PicturePart> parts_from(const Node& node, std::string_view key) {
  std::map<std::string, PicturePart> out;
  if (!node.has(key)) return out;
  const Node parts = node.child(key);
  parts.expect_form(parts.json().is_object(), "an object with parts by name");
  for (const auto& item : parts.json().items()) out[item.key()] = part_from(parts.child(item.key()));
  return out;
}

std::map<std::string, JokerWords> jokers_from(const Node& top) {
  std::map<std::string, JokerWords> out;
  if (!top.has("jokers")) return out;
  const Node jokers = top.child("jokers");
  jokers.expect_form(jokers.json().is_object(), "an object with 'suit' and 'rank' by joker");
  for (const auto& item : jokers.json().items()) {
    const Node words = jokers.child(item.key());
    words.expect_keys({"suit", "rank"});
    out[item.key()] = {.suit = words.text_or("suit", ""), .rank = words.text_or("rank", "")};
  }
  return out;
}

ArtSheet sheet_from(const Node& node) {
  node.expect_keys({"picture", "columns", "cell", "margin", "spacing", "order", "suits", "ranks"});
  ArtSheet sheet{.picture = node.at("picture").text(),
                 .columns = node.at("columns").whole(1, 10'000),
                 .cell = size_from(node.at("cell"), most_sheet_px),
                 .suits = list_from(node, "suits"),
                 .ranks = list_from(node, "ranks")};
  if (node.has("margin")) sheet.margin = node.child("margin").point(0, most_sheet_px);
  if (node.has("spacing")) sheet.spacing = node.child("spacing").point(0, most_sheet_px);
  if (node.has("order"))
    sheet.order = named(node.child("order"), "order", node.child("order").text(), orders);
  return sheet;
}

Json part_json(const PicturePart& part) {
  if (part.part.empty()) return part.picture;
  return {{"picture", part.picture},
          {"x", decimal(part.part.min.x)},
          {"y", decimal(part.part.min.y)},
          {"width", decimal(part.part.width())},
          {"height", decimal(part.part.height())}};
}

Json part_json(const Size& size) {
  return {{"width", decimal(size.width)}, {"height", decimal(size.height)}};
}

Json part_json(const ArtSheet& sheet) {
  Json json;
  json["picture"] = sheet.picture;
  json["columns"] = sheet.columns;
  json["cell"] = part_json(sheet.cell);
  json["margin"] = {decimal(sheet.margin.x), decimal(sheet.margin.y)};
  json["spacing"] = {decimal(sheet.spacing.x), decimal(sheet.spacing.y)};
  json["order"] = name_in(orders, sheet.order);
  if (!sheet.suits.empty()) json["suits"] = sheet.suits;
  if (!sheet.ranks.empty()) json["ranks"] = sheet.ranks;
  return json;
}

}  // namespace

Result<Art> parse_art(std::string_view text, const std::filesystem::path& file) {
  return read_document<Art>(text, file, "art", [](const Node& top) {
    top.expect_keys({"apsidon", "version", "card", "sheets", "parts", "pattern", "detail_pattern", "names",
                     "jokers", "back", "backs", "sampling", "key_colour"});
    Art art{.parts = parts_from(top, "parts"),
            .pattern = top.text_or("pattern", ""),
            .detail_pattern = top.text_or("detail_pattern", ""),
            .names = texts_from(top, "names", "an object with a text for each word"),
            .jokers = jokers_from(top),
            .backs = parts_from(top, "backs")};
    if (top.has("card")) art.card = size_from(top.child("card"), most_sheet_px);
    if (top.has("sheets")) {
      for (const Node& sheet : top.child("sheets").items()) art.sheets.push_back(sheet_from(sheet));
    }
    if (top.has("back")) art.back = part_from(top.child("back"));
    art.sampling = sampling_from(top);
    if (top.has("key_colour")) art.key_colour = rgb_from(top.child("key_colour"));
    return art;
  });
}

Result<Art> load_art(const std::filesystem::path& file) {
  const auto text = read_file(file);
  return text ? parse_art(*text, file) : Result<Art>(text.error());
}

std::string write_art(const Art& art) {
  Json json;
  json["apsidon"] = "art";
  json["version"] = 1;
  if (!art.card.empty()) json["card"] = part_json(art.card);
  for (const ArtSheet& sheet : art.sheets) json["sheets"].push_back(part_json(sheet));
  for (const auto& [face, part] : art.parts) json["parts"][face] = part_json(part);
  if (!art.pattern.empty()) json["pattern"] = art.pattern;
  if (!art.detail_pattern.empty()) json["detail_pattern"] = art.detail_pattern;
  for (const auto& [word, name] : art.names) json["names"][word] = name;
  for (const auto& [joker, words] : art.jokers)
    json["jokers"][joker] = {{"suit", words.suit}, {"rank", words.rank}};
  if (!art.back.picture.empty()) json["back"] = part_json(art.back);
  for (const auto& [suit, part] : art.backs) json["backs"][suit] = part_json(part);
  json["sampling"] = name_in(sampling_names, art.sampling);
  if (art.key_colour) json["key_colour"] = text_of(*art.key_colour);
  return files_detail::dumped(json, 2) + "\n";
}

}  // namespace apsidon
