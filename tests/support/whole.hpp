#pragma once
// That no card is lost or doubled, for properties.
#include <vector>

#include "support/property.hpp"
#include "support/tables.hpp"

namespace apsidon::test {

/// Every card of the table lies in exactly one zone, and knows where.
inline void assert_whole(const Table& table, std::size_t cards) {
  std::vector<int> seen(table.slot_count(), 0);
  std::size_t count = 0;
  for (const Zone& zone : table.zones()) {
    for (std::size_t i = 0; i < zone.cards.size(); ++i) {
      const Card* card = table.card(zone.cards[i]);
      RC_ASSERT(card != nullptr);
      RC_ASSERT(card->zone == zone.id);
      RC_ASSERT(card->index == i);
      RC_ASSERT(++seen[*table.slot(card->id)] == 1);
      ++count;
    }
  }
  RC_ASSERT(count == cards);
  RC_ASSERT(table.card_count() == cards);
}

}  // namespace apsidon::test
