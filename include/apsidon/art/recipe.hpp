#pragma once
#include <filesystem>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/geometry/rect.hpp"

namespace apsidon {

/// How a whole deck's faces are made of few drawings. Pictures are files, relative to the recipe's; lengths
/// and places are shares of the card's width and height.
struct Recipe {
  Size card = {200, 280};                         ///< of the cards that come of it, px, [1, 2000]
  std::map<std::string, std::string> suits = {};  ///< by suit: the picture of its shape
  std::map<std::string, std::string> ranks =
      {};  ///< by rank: the picture of its mark; where there is none its name is set
  std::map<std::string, std::vector<Vec2>> spots = {};  ///< by rank: the middles of the suit's shapes
  float spot_width = 0.19f;                             ///< of a shape, [0.01, 1]
  bool turns_lower = true;      ///< whether shapes in the lower half stand on their head
  Vec2 corner = {0.13f, 0.1f};  ///< middle of the rank's mark; again, turned, in the opposite corner
  float corner_width = 0.16f;   ///< of the mark and of the small shape below it, [0.01, 1]
  std::map<std::string, std::string> middles = {};  ///< by face: a picture in the place of shapes
  Rect middle = {{0.2f, 0.17f}, {0.8f, 0.83f}};     ///< where that is fitted in
  std::string frame = {};                          ///< over the whole card, below all else; none: plain paper
  std::map<std::string, std::string> frames = {};  ///< by suit or face, where they differ
  std::string back = {};

  friend bool operator==(const Recipe&, const Recipe&) = default;
};

[[nodiscard]] APSIDON_FILES_EXPORT Result<Recipe> load_recipe(const std::filesystem::path& file);
/// The same from a text in memory; `file` is used in problems.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Recipe> parse_recipe(std::string_view text,
                                                               const std::filesystem::path& file);

}  // namespace apsidon
