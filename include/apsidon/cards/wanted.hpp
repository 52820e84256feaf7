#pragma once
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/cards/number.hpp"
#include "apsidon/cards/verdict.hpp"

namespace apsidon {

/// One card as the game wants it, named by the game's own key.
struct WantedCard {
  std::uint64_t key = 0;                ///< not 0; a key the table does not know makes a new card
  std::optional<FaceId> face = {};      ///< left as it is when not given; hidden on a new card
  std::optional<bool> face_up = {};     ///< left as it is when not given; up on a new card
  std::optional<bool> sideways = {};    ///< left as it is when not given; upright on a new card
  std::optional<Numbers> numbers = {};  ///< likewise, all of them; none on a new card

  friend bool operator==(const WantedCard&, const WantedCard&) = default;
};

/// What should lie in one zone, bottom to top.
struct WantedZone {
  std::uint64_t key = 0;                ///< not 0; a zone of the table
  std::vector<WantedCard> cards = {};   ///< bottom to top
  std::optional<Numbers> numbers = {};  ///< all of the zone's; left as they are when not given

  friend bool operator==(const WantedZone&, const WantedZone&) = default;
};

/// What `Table::sync` did, or why it did nothing. Lists are in the order of the wanted zones, bottom to top.
struct SyncReport {
  Verdict verdict = {};              ///< refused: nothing was changed
  std::vector<CardId> moved = {};    ///< lie elsewhere now; as few as make the difference
  std::vector<CardId> created = {};  ///< new on the table
  std::vector<CardId> changed = {};  ///< show another face, lie on the other side or turned otherwise, or
                                     ///< have other numbers
  std::vector<CardId> retired = {};  ///< lay in a wanted zone and are wanted nowhere: no longer on the table
};

}  // namespace apsidon
