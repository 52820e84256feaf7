#pragma once
#include <cstdint>
#include <string>
#include <string_view>

#include "apsidon/cards/ids.hpp"
#include "apsidon/geometry/shared_list.hpp"

namespace apsidon {

/// How far from 0 a number of a table may be.
inline constexpr int largest_number = 1'000'000'000;

/// The number of a card that a player has opened where cards are compared: as which of them, from 1. Any
/// other flip, and the end of comparing, ends it.
inline constexpr std::string_view opened_number = "opened";

/// A named whole number of the table, a zone, a card or a seat: points, redeals left, three of a kind.
struct Number {
  std::string name = {};  ///< not empty, and not "cards": how many lie in a zone the table counts itself
  int value = 0;          ///< [-1000000000, 1000000000]

  friend bool operator==(const Number&, const Number&) = default;
};

/// The numbers of one of them, by name; each name comes once.
using Numbers = SharedList<Number>;

/// Whose a number is: the table's, or of what it is made from.
struct NumberOwner {
  ZoneId zone = {};  ///< whose it is, if it is a zone's
  CardId card = {};  ///< likewise a card's
  SeatId seat = {};  ///< likewise a seat's

  constexpr NumberOwner() = default;
  // Implicit: `table.number("points", seat)`.
  /// A zone's; a ZoneId may stand wherever an owner is wanted.
  constexpr NumberOwner(ZoneId of) : zone(of) {}
  /// Likewise a card's.
  constexpr NumberOwner(CardId of) : card(of) {}
  /// Likewise a seat's.
  constexpr NumberOwner(SeatId of) : seat(of) {}

  friend constexpr bool operator==(const NumberOwner&, const NumberOwner&) = default;
};

}  // namespace apsidon
