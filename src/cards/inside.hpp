#pragma once
// What is asked of a table by who fills it, and by who goes on from another. Not installed.
#include <span>

#include "apsidon/cards/edit.hpp"
#include "apsidon/cards/table.hpp"

namespace apsidon::cards_detail {

struct Inside {
  /// Throws what `create_card` would of the first of these cards that cannot be made. O(cards).
  static void check_new(const Table& table, std::span<const CardOptions> cards);
  static void give_ids(Table& table, std::span<const CardId> ids, CardId last);
  /// Gives every card another id, above `last`, in the same order: for a new round whose cards must not be
  /// taken for those of the round before. Ids from before are stale.
  static void give_ids_after(Table& table, CardId last);
  /// Gives new cards ids above `last`, which is not below those that cards have. Cards keep theirs.
  static void keep_ids_ahead_of(Table& table, CardId last);
};

/// Gives every card the id that it has elsewhere: `ids` in the order of the ids that the cards have now, and
/// `last`, the last that was given there. Ids from before are stale. Throws when there are not as many ids as
/// cards, or one is none, given twice or above `last`. O(cards log cards).
APSIDON_CORE_EXPORT void give_ids(Table& table, std::span<const CardId> ids, CardId last);

/// Changes a table as an edit says. One that makes a card, and one that changes nothing, is for who asks.
Verdict change(Table& table, const Edit& edit);

}  // namespace apsidon::cards_detail
