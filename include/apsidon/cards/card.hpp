#pragma once
#include <cstddef>
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/cards/number.hpp"
#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

/// What a card is made with.
struct CardOptions {
  FaceId face = hidden_face;  ///< what is on it; hidden: not known here
  std::uint64_t key = 0;   ///< the game's own number for the card; 0 for none, otherwise unique in the table
  bool face_up = true;     ///< which side shows
  bool sideways = false;   ///< lies turned by a quarter, clockwise
  int cell = -1;           ///< of a grid that keeps cells: which, from 0; -1: as many as lie below it
  Vec2 at = {0.5f, 0.5f};  ///< of a free zone: its middle, as shares of the room the zone leaves, [0, 1]
  Numbers numbers = {};    ///< those of the card that are not 0

  friend bool operator==(const CardOptions&, const CardOptions&) = default;
};

/// One card as it lies on the table.
struct Card {
  CardId id = {};             ///< never 0
  FaceId face = hidden_face;  ///< what is on it; hidden: not known here
  std::uint64_t key = 0;      ///< the game's own number; 0 for none
  bool face_up = true;        ///< which side shows
  bool sideways = false;      ///< lies turned by a quarter, clockwise
  int cell = -1;              ///< of a grid that keeps cells: which, from 0; -1: as many as lie below it
  Vec2 at = {0.5f, 0.5f};     ///< of a free zone: its middle, as shares of the room the zone leaves, [0, 1]
  ZoneId zone = {};           ///< where it lies
  std::size_t index = 0;      ///< in the zone, from the bottom, from 0

  friend bool operator==(const Card&, const Card&) = default;
};

/// What a zone is made with.
struct ZoneOptions {
  std::uint64_t key = 0;  ///< the game's own number for it; 0 for none, otherwise unique in the table
  int recycled = 0;       ///< how often a waste was recycled into it already, [0, 1000000]
  SeatId seat = {};       ///< to whom it belongs; none: to nobody
  Numbers numbers = {};   ///< those of the zone that are not 0

  friend bool operator==(const ZoneOptions&, const ZoneOptions&) = default;
};

/// A player's side of the table, to which zones may belong.
struct Seat {
  SeatId id = {};         ///< from 1, in the order of the table
  std::string name = {};  ///< not empty, unique in the table

  friend bool operator==(const Seat&, const Seat&) = default;
};

/// An ordered list of cards with one place on the table.
struct Zone {
  ZoneId id = {};                  ///< from 1, in the order in which zones were made
  std::string name = {};           ///< not empty, unique in the table
  std::uint64_t key = 0;           ///< the game's own number; 0 for none
  std::vector<CardId> cards = {};  ///< bottom to top
  int recycled = 0;                ///< how often a waste was recycled into it
  SeatId seat = {};                ///< to whom it belongs; none: to nobody
  std::uint64_t revision = 0;      ///< grows with every change of what lies here or how

  friend bool operator==(const Zone&, const Zone&) = default;
};

/// Cards that lie directly on each other in one zone and are moved together: `first` and what lies on it.
struct Run {
  CardId first = {};      ///< the lowest
  std::size_t count = 0;  ///< how many, with the first; 0: no run

  friend bool operator==(const Run&, const Run&) = default;
};

/// How one card lies, without its face.
struct LyingCard {
  CardId card = {};        ///< which one
  bool face_up = true;     ///< which side shows
  bool sideways = false;   ///< turned by a quarter, clockwise
  int cell = -1;           ///< as of `Card`
  Vec2 at = {0.5f, 0.5f};  ///< as of `Card`

  friend bool operator==(const LyingCard&, const LyingCard&) = default;
};

/// All that lies in a zone, and how.
struct ZoneContents {
  ZoneId zone = {};                   ///< which one
  int recycled = 0;                   ///< how often a waste was recycled into it
  std::vector<LyingCard> cards = {};  ///< bottom to top
  /// Of those of these cards that have any; those of no card are the zone's, and first.
  SharedList<std::pair<CardId, Numbers>> numbers = {};

  friend bool operator==(const ZoneContents&, const ZoneContents&) = default;
};

}  // namespace apsidon
