#pragma once
#include <cstddef>
#include <cstdint>
#include <span>
#include <string>

#include "apsidon/cards/card.hpp"
#include "apsidon/geometry/pose.hpp"

namespace apsidon {

/// What a layout knows of one card.
struct LaidCard {
  /// The card itself, for a layout of one's own that looks at its face, its key or what else there is of it:
  /// there while the layout runs. Null where a card is only tried, as for the outline of an empty zone.
  const Card* card = nullptr;
  bool face_up = true;    ///< which side shows
  bool sideways = false;  ///< turned by a quarter; takes its turned size
  std::int32_t cell =
      -1;  ///< of a grid that keeps cells: which, row by row from 0; -1: as many as lie below it
  Vec2 at = {0.5f, 0.5f};  ///< of a free layout: the middle, as shares of the room that the area leaves

  friend bool operator==(const LaidCard&, const LaidCard&) = default;
};

/// Toward which side of the window the lower edges of upright cards point: where the player sits who holds
/// them.
enum class Facing : std::uint8_t { bottom, left, top, right };

/// No card of a zone.
inline constexpr std::ptrdiff_t no_index = -1;

/// The room that a layout makes in a zone. With none of it a layout gives the neutral poses, else the
/// resting poses.
struct Room {
  std::ptrdiff_t raised = no_index;  ///< place of the card that is raised, or in a column looked at
  std::ptrdiff_t insert_at =
      no_index;  ///< before which place cards may be inserted; the number of cards: at the end
  std::size_t insert_count = 1;  ///< so many, which is how wide the gap is

  friend bool operator==(const Room&, const Room&) = default;
};

/// All that a layout works from.
struct LayoutInput {
  Rect area = {};                   ///< logical px
  Size card = {};                   ///< upright, logical px
  std::span<const LaidCard> cards;  ///< bottom to top
  Room room = {};                   ///< what room is made; none: neutral poses
  Facing facing = Facing::bottom;   ///< where their lower edges point
  Size window = {};                 ///< logical px; empty where there is none
  /// Cards keep their preferred strips and go on beyond the area, which shows a part of them and clips the
  /// rest.
  bool scrolls = false;
  float offset =
      0;  ///< of a zone that scrolls: how far its content is moved on, px, 0 to `content` less the length
};

/// What a layout tells beside the poses.
struct LayoutReport {
  bool crowded =
      false;          ///< strips are narrower than their stated minimum: the cards are still inside the area
  float content = 0;  ///< length of all that lies there along the direction in which it grows, px
  std::string thrown = {};  ///< what a layout of one's own threw: its cards lie as in a spread

  friend bool operator==(const LayoutReport&, const LayoutReport&) = default;
};

/// How many cards a zone has to be able to hold.
struct LayoutNeed {
  std::size_t cards = 1;    ///< in all, as `ZoneLayout::longest`
  std::size_t covered = 0;  ///< of these, lying face down below the others
  bool sideways = false;    ///< some of them may lie sideways

  friend bool operator==(const LayoutNeed&, const LayoutNeed&) = default;
};

/// Where cards lie along a line that has more room than they take.
enum class Align : std::uint8_t { start, centre, end };

}  // namespace apsidon
