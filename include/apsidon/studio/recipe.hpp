#pragma once
#include <filesystem>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/art/art.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/studio_export.hpp"

namespace apsidon {

/// A mark in the corner of a card.
struct CornerMark {
  Vec2 at = {};     ///< its middle
  float width = 0;  ///< [0.01, 1]; 0: there is none

  friend constexpr bool operator==(const CornerMark&, const CornerMark&) = default;
};

/// How a whole deck's faces are made of few drawings. Pictures are files, relative to the recipe's; lengths
/// and places are shares of the card's width and height.
struct Recipe {
  Size card = {200, 280};                         ///< of the cards that come of it, px, [1, 2000]
  std::map<std::string, std::string> suits = {};  ///< by suit: the picture of its shape
  std::map<std::string, std::string> ranks =
      {};  ///< by rank: the picture of its mark; where there is none its name is set
  std::map<std::string, std::vector<Vec2>> spots = {};  ///< by rank: the middles of the suit's shapes
  float spot_width = 0.19f;                             ///< of a shape, [0.01, 1]
  bool turns_lower = true;                          ///< whether shapes in the lower half stand on their head
  CornerMark rank_mark = {{0.13f, 0.1f}, 0.16f};    ///< the rank's, in the upper left corner
  CornerMark suit_mark = {{0.13f, 0.22f}, 0.13f};   ///< the suit's shape, small
  bool both_corners = true;                         ///< again, turned, in the opposite corner
  std::map<std::string, std::string> middles = {};  ///< by face: a picture in the place of shapes
  Rect middle = {{0.2f, 0.17f}, {0.8f, 0.83f}};     ///< where that is fitted in
  std::string frame = {};                          ///< over the whole card, below all else; none: plain paper
  std::map<std::string, std::string> frames = {};  ///< by suit or face, where they differ
  std::string back = {};                           ///< the picture of all backs; empty: one is drawn
  /// By suit, or by the colour that suits share: what marks of ranks are drawn in, whatever their picture's
  /// colour; and the suits' shapes, where `tints_suits`.
  std::map<std::string, Rgb> tints = {};
  bool tints_suits = false;  ///< suits' shapes are drawn in their tint, too
  /// `nearest`, for pixel art: drawings in whole multiples of their size, or as they are, on whole px.
  Sampling sampling = Sampling::smooth;

  friend bool operator==(const Recipe&, const Recipe&) = default;
};

/// The recipe in a file.
[[nodiscard]] APSIDON_STUDIO_EXPORT Result<Recipe> load_recipe(const std::filesystem::path& file);
/// The same from a text in memory; `file` is used in problems.
[[nodiscard]] APSIDON_STUDIO_EXPORT Result<Recipe> parse_recipe(std::string_view text,
                                                                const std::filesystem::path& file);

}  // namespace apsidon
