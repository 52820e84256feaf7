#include <fmt/format.h>

#include "apsidon/files/read_file.hpp"
#include "apsidon/studio/recipe.hpp"
#include "art/art_json.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace art_detail;
using namespace files_detail;

constexpr std::string_view pictures_by_name = "an object with pictures by name";

/// An object, or false for none.
CornerMark mark_from(const Node& node, CornerMark otherwise) {
  if (node.json() == nlohmann::json(false)) return {};
  node.expect_form(node.json().is_object(), "an object with 'at' and 'width', or false for none,");
  node.expect_keys({"at", "width"});
  if (node.has("at")) otherwise.at = node.child("at").point(0, 1);
  otherwise.width = node.number_or("width", otherwise.width, 0.01, 1);
  return otherwise;
}

std::map<std::string, Rgb> tints_from(const Node& top) {
  std::map<std::string, Rgb> out;
  if (!top.has("tints")) return out;
  const Node node = top.child("tints");
  node.expect_form(node.json().is_object(), "an object with colours by suit, or by the colour of suits,");
  for (const auto& item : node.json().items()) out[item.key()] = rgb_from(node.child(item.key()));
  return out;
}

std::map<std::string, std::vector<Vec2>> spots_from(const Node& top) {
  std::map<std::string, std::vector<Vec2>> out;
  if (!top.has("spots")) return out;
  const Node node = top.child("spots");
  node.expect_form(node.json().is_object(), "an object with places by rank");
  for (const auto& item : node.json().items()) {
    for (const Node& spot : node.child(item.key()).items()) out[item.key()].push_back(spot.point(0, 1));
  }
  return out;
}

}  // namespace

Result<Recipe> parse_recipe(std::string_view text, const std::filesystem::path& file) {
  return read_document<Recipe>(text, file, "recipe", [](const Node& top) {
    top.expect_keys({"apsidon", "version", "card", "suits", "ranks", "spots", "spot_width", "turns_lower",
                     "rank_mark", "suit_mark", "both_corners", "middles", "middle", "frame", "frames", "back",
                     "tints", "tints_suits", "sampling"});
    Recipe recipe{.suits = texts_from(top, "suits", pictures_by_name),
                  .ranks = texts_from(top, "ranks", pictures_by_name),
                  .spots = spots_from(top),
                  .middles = texts_from(top, "middles", pictures_by_name),
                  .frame = top.text_or("frame", ""),
                  .frames = texts_from(top, "frames", pictures_by_name),
                  .back = top.text_or("back", ""),
                  .tints = tints_from(top),
                  .tints_suits = top.truth_or("tints_suits", false),
                  .sampling = sampling_from(top)};
    if (top.has("card")) recipe.card = size_from(top.child("card"), 2000);
    recipe.spot_width = top.number_or("spot_width", recipe.spot_width, 0.01, 1);
    recipe.turns_lower = top.truth_or("turns_lower", recipe.turns_lower);
    if (top.has("rank_mark")) recipe.rank_mark = mark_from(top.child("rank_mark"), recipe.rank_mark);
    if (top.has("suit_mark")) recipe.suit_mark = mark_from(top.child("suit_mark"), recipe.suit_mark);
    recipe.both_corners = top.truth_or("both_corners", recipe.both_corners);
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
