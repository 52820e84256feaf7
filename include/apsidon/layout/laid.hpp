#pragma once
#include <cstddef>
#include <span>

#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// What a layout has to know of one card.
struct LaidCard {
  bool face_up = true;
  bool sideways = false;  ///< turned by a quarter about its middle; its place is kept as for an upright card

  friend bool operator==(const LaidCard&, const LaidCard&) = default;
};

inline constexpr std::ptrdiff_t no_place = -1;

/// The room that a layout makes in a zone. With none of it a layout gives the neutral poses, else the resting
/// poses.
struct Room {
  std::ptrdiff_t raised = no_place;  ///< place of the card that is raised
  std::ptrdiff_t insert_at =
      no_place;  ///< before which place a card may be inserted; the number of cards: at the end

  friend bool operator==(const Room&, const Room&) = default;
};

/// All that a layout works from.
struct LayoutInput {
  Rect area = {};                   ///< logical px
  Size card = {};                   ///< upright, logical px
  std::span<const LaidCard> cards;  ///< bottom to top
  Room room = {};
};

/// What a layout tells beside the poses.
struct LayoutReport {
  bool crowded =
      false;  ///< strips are narrower than their stated minimum: the cards are still inside the area

  friend bool operator==(const LayoutReport&, const LayoutReport&) = default;
};

// Every layout is a struct of options and these functions, which neither allocate nor remember:
//
//   void check(const XLayout&)                    throws Error when an option is out of its stated range
//   LayoutReport lay_out(const XLayout&, const LayoutInput&, std::span<Pose> poses)
//                                                 writes one pose a card; O(cards); `poses` is as long as
//                                                 `cards`
//   Size least_size(const XLayout&, std::size_t cards, Size card)
//                                                 the smallest area that holds so many at their least strips;
//                                                 in proportion to the card's size

}  // namespace apsidon
