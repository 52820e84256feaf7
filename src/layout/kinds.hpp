#pragma once
// What each kind of layout does, which layout.cpp alone asks. Not installed.
#include <cstddef>
#include <optional>
#include <span>

#include "apsidon/layout/layout.hpp"

namespace apsidon::layout_detail {

// Three functions a kind, which neither allocate nor remember. Its options and their ranges are in
// fields.hpp.
//
//   traits_of    what it is
//   lay_out      writes one pose per card; O(cards); `poses` is as long as the cards of `in`
//   least_size   the smallest area that holds so many at their least strips, for cards that face the bottom;
//                in proportion to the card's size

LayoutTraits traits_of(const SlotLayout& layout);
LayoutReport lay_out(const SlotLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const SlotLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const PileLayout& layout);
LayoutReport lay_out(const PileLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const PileLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const ColumnLayout& layout);
LayoutReport lay_out(const ColumnLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const ColumnLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const SpreadLayout& layout);
LayoutReport lay_out(const SpreadLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const SpreadLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const HandLayout& layout);
LayoutReport lay_out(const HandLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const HandLayout& layout, const LayoutNeed& need, Size card);

// Its least size is that without overlap; a grid of 0 columns counts as nearly square.
LayoutTraits traits_of(const GridLayout& layout);
LayoutReport lay_out(const GridLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const GridLayout& layout, const LayoutNeed& need, Size card);

// Its least size is that on which all cards lie at their least spacing, and none touches the middle.
LayoutTraits traits_of(const RingLayout& layout);
LayoutReport lay_out(const RingLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const RingLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const FreeLayout& layout);
LayoutReport lay_out(const FreeLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const FreeLayout& layout, const LayoutNeed& need, Size card);

LayoutTraits traits_of(const CustomLayout& layout);
LayoutReport lay_out(const CustomLayout& layout, const LayoutInput& in, std::span<Pose> poses);
Size least_size(const CustomLayout& layout, const LayoutNeed& need, Size card);

/// What a layout of one's own says of an insertion; nothing where it has no function for that, or that threw.
std::optional<std::size_t> own_insertion(const Layout& layout, const LayoutInput& in,
                                         std::span<const Pose> neutral, Vec2 point);

/// The area in which so many cards have the strips that they prefer; at least as large as `least_size`.
[[nodiscard]] Size preferred_size(const Layout& layout, const LayoutNeed& need, Size card);

/// A layout as its outline shows it: nothing turned or moved by chance.
template <class Kind>
const Kind& tidy(const Kind& layout) {
  return layout;
}
PileLayout tidy(PileLayout layout);

}  // namespace apsidon::layout_detail
