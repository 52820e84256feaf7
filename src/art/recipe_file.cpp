#include <fmt/format.h>

#include "apsidon/art/recipe.hpp"
#include "apsidon/files/read_file.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace files_detail;

std::map<std::string, std::string> pictures_from(const Node& top, std::string_view key) {
  std::map<std::string, std::string> out;
  if (!top.has(key)) return out;
  const Node node = top.child(key);
  if (!node.json().is_object())
    node.stop(ProblemCode::wrong_type, "an object with pictures by name is expected");
  for (const auto& item : node.json().items()) out[item.key()] = node.child(item.key()).text();
  return out;
}

std::map<std::string, std::vector<Vec2>> spots_from(const Node& top) {
  std::map<std::string, std::vector<Vec2>> out;
  if (!top.has("spots")) return out;
  const Node node = top.child("spots");
  if (!node.json().is_object())
    node.stop(ProblemCode::wrong_type, "an object with places by rank is expected");
  for (const auto& item : node.json().items()) {
    for (const Node& spot : node.child(item.key()).items()) out[item.key()].push_back(spot.point(0, 1));
  }
  return out;
}

}  // namespace

Result<Recipe> parse_recipe(std::string_view text, const std::filesystem::path& file) {
  return read_document<Recipe>(text, file, "recipe", [](const Node& top) {
    top.expect_keys({"apsidon", "version", "card", "suits", "ranks", "spots", "spot_width", "turns_lower",
                     "corner", "corner_width", "middles", "middle", "frame", "frames", "back"});
    Recipe recipe{.suits = pictures_from(top, "suits"),
                  .ranks = pictures_from(top, "ranks"),
                  .spots = spots_from(top),
                  .middles = pictures_from(top, "middles"),
                  .frame = top.text_or("frame", ""),
                  .frames = pictures_from(top, "frames"),
                  .back = top.text_or("back", "")};
    if (top.has("card")) {
      const Node card = top.child("card");
      card.expect_keys({"width", "height"});
      recipe.card = {static_cast<float>(card.at("width").number(1, 2000)),
                     static_cast<float>(card.at("height").number(1, 2000))};
    }
    recipe.spot_width = top.number_or("spot_width", recipe.spot_width, 0.01, 1);
    recipe.turns_lower = top.truth_or("turns_lower", recipe.turns_lower);
    recipe.corner_width = top.number_or("corner_width", recipe.corner_width, 0.01, 1);
    if (top.has("corner")) recipe.corner = top.child("corner").point(0, 1);
    if (top.has("middle")) {
      const auto both = top.child("middle").items();
      if (both.size() != 2) {
        top.child("middle").stop(ProblemCode::wrong_type,
                                 "two points, top left and bottom right, are expected");
      }
      recipe.middle = {both[0].point(0, 1), both[1].point(0, 1)};
      if (recipe.middle.empty()) {
        top.child("middle").stop(ProblemCode::out_of_range,
                                 "the second point is not below and right of the first");
      }
    }
    return recipe;
  });
}

Result<Recipe> load_recipe(const std::filesystem::path& file) {
  const auto text = read_file(file);
  return text ? parse_recipe(*text, file) : Result<Recipe>(text.error());
}

}  // namespace apsidon
