#pragma once
#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/cards/card.hpp"

namespace apsidon {

/// What a game may change of its table.
enum class EditKind : std::uint8_t {
  move,          ///< `run` goes to `zone`, to the index `at` if there is one
  swap,          ///< `card` and `other` exchange places
  flip,          ///< `card` lies face up if `on`, else face down
  set_sideways,  ///< `card` lies sideways if `on`, else upright
  set_face,      ///< `card` has `face`
  set_cell,      ///< `card` lies in `cell` of a grid
  set_position,  ///< `card` lies at `position` of a free zone
  scatter,       ///< the cards of `zone`, a free one, get positions by chance, by `seed`
  shuffle,       ///< the cards of `zone` get another order, by `seed`
  conceal,       ///< the cards of `zone` are covered, and their faces not known any more
  cut,           ///< the `count` topmost cards of `zone` go below the others
  create,        ///< a card like `made` lies on top of `zone`
  remove,        ///< `card` is taken off the table for good
  set_number,    ///< the number `name` of `card`, `zone` or `seat`, or else of the table, is `value`
  set_turn,      ///< it is the turn of `seats`
  mark_move,     ///< nothing; what the game has changed becomes a move of its own in undo
};

/// A change of the table by the game itself, as a value: not judged, and nothing follows from it. What does
/// not apply is left at its default.
struct Edit {
  EditKind kind = EditKind::move;      ///< what is done; it says which of the others count
  Run run = {};                        ///< of move
  CardId card = {};                    ///< of all kinds that are about one card
  CardId other = {};                   ///< of swap
  ZoneId zone = {};                    ///< where it happens, or goes
  std::optional<std::size_t> at = {};  ///< of move: an index from the bottom; none: on top
  std::size_t count = 0;               ///< of cut, cards
  bool on = false;                     ///< of flip and set_sideways
  FaceId face = {};                    ///< of set_face
  int cell = -1;                       ///< of set_cell, from 0
  Vec2 position = {};                  ///< of set_position, shares as of `CardOptions::at`
  std::uint64_t seed = 0;              ///< of scatter and shuffle: the same seed does the same
  CardOptions made = {};               ///< of create
  std::string name = {};               ///< of set_number, not empty
  int value = 0;                       ///< of set_number, within ±`largest_number`
  SeatId seat = {};                    ///< of set_number
  std::vector<SeatId> seats = {};      ///< of set_turn; none: nobody's

  friend bool operator==(const Edit&, const Edit&) = default;
};

}  // namespace apsidon
