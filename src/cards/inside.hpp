#pragma once
// What is asked of a table by who fills it, and by who goes on from another. Not installed.
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/cards/edit.hpp"
#include "apsidon/cards/history.hpp"
#include "apsidon/cards/table.hpp"

namespace apsidon::cards_detail {

struct Inside {
  /// Throws what `create_card` would of the first of these cards that cannot be made. O(cards).
  static void check_new(const Table& table, std::span<const CardOptions> cards);
  static Numbers take_numbers(Table& table, CardId id);
  static void give_ids(Table& table, std::span<const CardId> ids, CardId last);
  /// Gives every card another id, above `last`, in the same order: for a new round whose cards must not be
  /// taken for those of the round before. Ids from before are stale.
  static void give_ids_after(Table& table, CardId last);
  /// Gives new cards ids above `last`, which is not below those that cards have. Cards keep theirs.
  static void keep_ids_ahead_of(Table& table, CardId last);

  /// Cards that lie open, and that a player's move has opened to compare them, first one first. O(cards that
  /// have numbers).
  [[nodiscard]] static std::vector<CardId> opened_cards(const Table& table);
  static void forget_opened(Table& table, CardId card);

  // For History.

  [[nodiscard]] static CardOptions options_of(const Table& table, CardId id);
  /// Of a card that has retired lately: how it was.
  [[nodiscard]] static std::optional<CardOptions> find_retired(const Table& table, CardId id);
  /// Changes with whose turn it is, and with the numbers of table and seats.
  [[nodiscard]] static std::uint64_t sides_revision(const Table& table) { return table.own_revision_; }
  [[nodiscard]] static Sides sides_of(const Table& table);
  static void set_sides(Table& table, const Sides& sides);
  /// As `Table::arrange`, but cards that lie in those zones and are not named retire, if `back` is not null,
  /// and cards that are named and not on the table come back, which `back` has, in the order of ids.
  static Verdict arrange(Table& table, std::span<const ZoneContents> contents,
                         const std::vector<KeptCard>* back);
};

/// Gives every card the id that it has elsewhere: `ids` in the order of the ids that the cards have now, and
/// `last`, the last that was given there. Ids from before are stale. Throws when there are not as many ids as
/// cards, or one is none, given twice or above `last`. O(cards log cards).
APSIDON_CORE_EXPORT void give_ids(Table& table, std::span<const CardId> ids, CardId last);

/// The numbers by their names, as they are given.
[[nodiscard]] Numbers sorted(const Numbers& numbers);
/// The same; throws Error when a name or value is none that a number can have, or a name comes twice.
[[nodiscard]] APSIDON_CORE_EXPORT Numbers checked(const Numbers& numbers, std::string_view whose,
                                                  bool of_zone = false);

/// Changes a table as an edit says. One that marks a move is for who asks.
Verdict change(Table& table, const Edit& edit);

}  // namespace apsidon::cards_detail
