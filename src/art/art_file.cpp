#include "apsidon/art/art_file.hpp"

#include <fmt/format.h>

#include "apsidon/files/read_file.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using Json = nlohmann::ordered_json;

constexpr double most_px = 100'000;
constexpr std::array<std::pair<std::string_view, SheetOrder>, 2> orders{
    {{"by-suit", SheetOrder::by_suit}, {"by-rank", SheetOrder::by_rank}}};
constexpr std::array<std::pair<std::string_view, Sampling>, 2> samplings{
    {{"smooth", Sampling::smooth}, {"nearest", Sampling::nearest}}};

Size size_from(const Node& node) {
  node.expect_keys({"width", "height"});
  return {static_cast<float>(node.at("width").number(1, most_px)),
          static_cast<float>(node.at("height").number(1, most_px))};
}

std::vector<std::string> texts_from(const Node& node, std::string_view key) {
  std::vector<std::string> out;
  if (!node.has(key)) return out;
  for (const Node& text : node.child(key).items()) out.push_back(text.text());
  return out;
}

/// A picture's name for all of it, or an object with a part of it.
PicturePart part_from(const Node& node) {
  if (node.json().is_string()) return {.picture = node.text()};
  node.expect_keys({"picture", "x", "y", "width", "height"});
  const auto number = [&](const char* key, double least) {
    return static_cast<float>(node.at(key).number(least, most_px));
  };
  return {.picture = node.at("picture").text(),
          .part = rect_at({number("x", 0), number("y", 0)}, {number("width", 1), number("height", 1)})};
}

std::map<std::string, PicturePart> parts_from(const Node& node, std::string_view key) {
  std::map<std::string, PicturePart> out;
  if (!node.has(key)) return out;
  const Node parts = node.child(key);
  if (!parts.json().is_object())
    parts.stop(ProblemCode::wrong_type, "an object with parts by name is expected");
  for (const auto& item : parts.json().items()) out[item.key()] = part_from(parts.child(item.key()));
  return out;
}

ArtSheet sheet_from(const Node& node) {
  node.expect_keys({"picture", "columns", "cell", "margin", "spacing", "order", "suits", "ranks"});
  ArtSheet sheet{.picture = node.at("picture").text(),
                 .columns = node.at("columns").whole(1, 10'000),
                 .cell = size_from(node.at("cell")),
                 .suits = texts_from(node, "suits"),
                 .ranks = texts_from(node, "ranks")};
  if (node.has("margin")) sheet.margin = node.child("margin").point(0, most_px);
  if (node.has("spacing")) sheet.spacing = node.child("spacing").point(0, most_px);
  if (node.has("order"))
    sheet.order = named(node.child("order"), "order", node.child("order").text(), orders);
  return sheet;
}

Json json_of(const PicturePart& part) {
  if (part.part.empty()) return part.picture;
  return {{"picture", part.picture},
          {"x", decimal(part.part.min.x)},
          {"y", decimal(part.part.min.y)},
          {"width", decimal(part.part.width())},
          {"height", decimal(part.part.height())}};
}

Json json_of(const Size& size) { return {{"width", decimal(size.width)}, {"height", decimal(size.height)}}; }

Json json_of(const ArtSheet& sheet) {
  Json json;
  json["picture"] = sheet.picture;
  json["columns"] = sheet.columns;
  json["cell"] = json_of(sheet.cell);
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
    top.expect_keys({"apsidon", "version", "card", "sheets", "parts", "pattern", "detail_pattern", "back",
                     "backs", "sampling"});
    Art art{.parts = parts_from(top, "parts"),
            .pattern = top.text_or("pattern", ""),
            .detail_pattern = top.text_or("detail_pattern", ""),
            .backs = parts_from(top, "backs")};
    if (top.has("card")) art.card = size_from(top.child("card"));
    if (top.has("sheets")) {
      for (const Node& sheet : top.child("sheets").items()) art.sheets.push_back(sheet_from(sheet));
    }
    if (top.has("back")) art.back = part_from(top.child("back"));
    if (top.has("sampling")) {
      art.sampling = named(top.child("sampling"), "sampling", top.child("sampling").text(), samplings);
    }
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
  if (!art.card.empty()) json["card"] = json_of(art.card);
  for (const ArtSheet& sheet : art.sheets) json["sheets"].push_back(json_of(sheet));
  for (const auto& [face, part] : art.parts) json["parts"][face] = json_of(part);
  if (!art.pattern.empty()) json["pattern"] = art.pattern;
  if (!art.detail_pattern.empty()) json["detail_pattern"] = art.detail_pattern;
  if (!art.back.picture.empty()) json["back"] = json_of(art.back);
  for (const auto& [suit, part] : art.backs) json["backs"][suit] = json_of(part);
  json["sampling"] = name_in(samplings, art.sampling);
  return json.dump(2) + "\n";
}

}  // namespace apsidon
