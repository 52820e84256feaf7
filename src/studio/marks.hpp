#pragma once
// Whether a mark in the corner of a card looks like a word. Not installed.
#include <array>
#include <optional>

#include "apsidon/art/pixels.hpp"
#include "apsidon/geometry/rect.hpp"

namespace apsidon::studio_detail {

/// A mark brought to one size: how much of each field is ink, 0 to 1.
struct MarkShape {
  static constexpr int side = 16;
  std::array<float, std::size_t{side}* side> ink = {};
  float aspect = 1;  ///< width over height, as it was
};

/// Of a word that is lettered on a transparent ground; nothing where it has no ink.
std::optional<MarkShape> shape_of_word(const Pixels& word);
/// Of the highest mark in the top left corner of a card; nothing where none is large enough to be told from
/// others.
std::optional<MarkShape> shape_in_corner(const Pixels& picture, const Rect& card);
/// How alike two are: 1 for the same, about 0 for any two others.
float likeness(const MarkShape& a, const MarkShape& b);

}  // namespace apsidon::studio_detail
