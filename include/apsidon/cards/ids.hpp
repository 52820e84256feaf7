#pragma once
#include <compare>
#include <cstdint>

namespace apsidon {

/// A small number that stands for one thing; ids of different things do not mix. 0 stands for none.
template <class Thing>
struct Id {
  std::uint32_t value = 0;  ///< 0: none

  constexpr explicit operator bool() const { return value != 0; }  ///< whether it is the id of anything
  friend constexpr bool operator==(const Id&, const Id&) = default;
  friend constexpr auto operator<=>(const Id&, const Id&) = default;  ///< by value; for maps and sorted lists
};

/// One physical card of a table. Never reused, and never derived from the face: two cards may show the same
/// face.
using CardId = Id<struct CardThing>;

/// One zone of a table.
using ZoneId = Id<struct ZoneThing>;

/// A player's side of the table.
using SeatId = Id<struct SeatThing>;

/// What is printed on a card, as an entry of its deck. Faces of equal id look alike. None: the face is
/// hidden.
using FaceId = Id<struct FaceThing>;

/// That of a card whose face is not known.
inline constexpr FaceId hidden_face{};

}  // namespace apsidon
