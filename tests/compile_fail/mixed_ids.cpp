// Ids of different things do not mix.
#include "apsidon/apsidon.hpp"

const apsidon::Zone* find(const apsidon::Table& table, [[maybe_unused]] apsidon::CardId card,
                          [[maybe_unused]] apsidon::ZoneId zone) {
#if MUST_FAIL
  return table.zone(card);
#else
  return table.zone(zone);
#endif
}
