#include "play/decides/cells.hpp"

#include <algorithm>
#include <vector>

namespace apsidon {

bool give_cells(Table& table, ZoneId id) {
  const Zone& zone = *table.zone(id);
  const auto homeless = [&](CardId card) { return table.card(card)->cell < 0; };
  if (std::none_of(zone.cards.begin(), zone.cards.end(), homeless)) return false;
  std::vector<int> taken;
  for (const CardId card : zone.cards) {
    if (!homeless(card)) taken.push_back(table.card(card)->cell);
  }
  std::sort(taken.begin(), taken.end());
  auto next_taken = taken.begin();
  int cell = 0;
  for (const CardId card : zone.cards) {
    if (!homeless(card)) continue;
    while (next_taken != taken.end() && *next_taken <= cell) {
      if (*next_taken == cell) ++cell;
      ++next_taken;
    }
    table.set_cell(card, cell++);
  }
  return true;
}

}  // namespace apsidon
