#pragma once
#include <cstddef>
#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "apsidon/cards/card.hpp"
#include "apsidon/cards/deck.hpp"
#include "apsidon/cards/verdict.hpp"
#include "apsidon/cards/wanted.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

namespace cards_detail {
struct Inside;
}

/// All zones and cards: who lies where, in what order, face up or down. Nothing else stores that. Every
/// change happens whole or not at all, and a card is in exactly one zone at all times. A value: copies are
/// independent.
class APSIDON_CORE_EXPORT Table {
 public:
  /// A table without zones, for cards of this deck.
  explicit Table(Deck deck);

  /// What its cards are of.
  [[nodiscard]] const Deck& deck() const { return deck_; }

  // Set-up calls: throw Error on misuse, before anything is changed.

  /// Adds an empty zone. `name`: not empty, unique in the table, "bed-1". Throws when that, or an option, is
  /// not as it should be.
  ZoneId create_zone(std::string name, const ZoneOptions& options = {});
  /// Adds a seat; there are `most_seats` at most. `name`: not empty, unique among the seats. Throws when it
  /// is not so.
  SeatId create_seat(std::string name, Numbers numbers = {});
  /// Lays a new card on top of a zone. Throws on an unknown zone, a foreign face, or a key that is taken.
  CardId create_card(ZoneId zone, const CardOptions& options);

  // Questions. Pointers and spans are valid until the next change of the table.

  /// By ZoneId - 1.
  [[nodiscard]] std::span<const Zone> zones() const { return zones_; }
  /// Null when there is none of this id. O(1).
  [[nodiscard]] const Zone* zone(ZoneId id) const;
  /// Nothing when no zone has this name. O(zones).
  [[nodiscard]] std::optional<ZoneId> find_zone(std::string_view name) const;
  /// The zones that a repeated zone or a formation made, in order: "bed" finds bed-1 … bed-4, "trellis"
  /// trellis-1-1 and so on. O(zones).
  [[nodiscard]] std::vector<ZoneId> find_group(std::string_view name) const;
  /// Nothing when no zone has this number of the game's. O(zones).
  [[nodiscard]] std::optional<ZoneId> find_zone_by_key(std::uint64_t key) const;
  /// Null when there is none of this id, or it has been taken away. O(1).
  [[nodiscard]] const Card* card(CardId id) const {
    const auto s = slot(id);
    return s ? &cards_[*s] : nullptr;
  }
  /// The seats, in the order in which they were made; and whose turn it is, in that order: of one, of
  /// several, or of none.
  [[nodiscard]] std::span<const Seat> seats() const { return seats_; }
  /// Nothing when no seat has this name. O(seats).
  [[nodiscard]] std::optional<SeatId> find_seat(std::string_view name) const;
  /// Whose turn it is, in ascending order; none: nobody's.
  [[nodiscard]] std::span<const SeatId> turn() const { return turn_; }
  /// Whether it is this seat's turn.
  [[nodiscard]] bool is_on_turn(SeatId seat) const;
  /// A number of the table, or of a zone, a card or a seat; one that was never set is 0. "cards" of a zone is
  /// how many lie there. O(numbers of its owner + log of owners).
  [[nodiscard]] int number(std::string_view name, const NumberOwner& of = {}) const;
  /// All that were set there, by name.
  [[nodiscard]] Numbers numbers(const NumberOwner& of = {}) const;
  /// Nothing when no card has this number of the game's. O(1) on average.
  [[nodiscard]] std::optional<CardId> find_card_by_key(std::uint64_t key) const;
  /// The last id that was given to a card; none when there was none.
  [[nodiscard]] CardId last_id() const { return {used_ids_ + static_cast<std::uint32_t>(slot_of_.size())}; }
  /// Cards on the table.
  [[nodiscard]] std::size_t card_count() const { return cards_.size() - free_slots_.size(); }
  /// The top card of a zone; nothing when it is empty or unknown.
  [[nodiscard]] std::optional<CardId> top(ZoneId zone) const;
  /// The card and all that lie on it; a run of no cards when the id is stale.
  [[nodiscard]] Run run_from(CardId first) const;
  /// The cards of a run, bottom to top; empty when the zone does not hold all of them.
  [[nodiscard]] std::span<const CardId> cards_of(const Run& run) const;

  /// Where the table keeps a card: below `slot_count()`, given to another card only after this one has
  /// retired. For arrays beside the table. Nothing when the id is stale.
  [[nodiscard]] std::optional<std::size_t> slot(CardId id) const {
    if (id.value <= used_ids_ || id.value - used_ids_ > slot_of_.size()) return std::nullopt;
    const std::size_t s = slot_of_[id.value - used_ids_ - 1];
    return s < cards_.size() && cards_[s].id == id ? std::optional(s) : std::nullopt;
  }
  /// How many slots there are, those that are free with them: more than any card's slot.
  [[nodiscard]] std::size_t slot_count() const { return cards_.size(); }

  /// Grows with every change. A call that changes nothing leaves it as it is.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  // Changes. Never throw: what cannot be done is a refused verdict, and then nothing has changed.

  /// Moves a run to the top of a zone. O(cards of both zones).
  Verdict move(const Run& run, ZoneId to);
  /// Moves a run so that its first card gets the index `at`, counted without the run itself.
  Verdict move(const Run& run, ZoneId to, std::size_t at);
  /// Flips a card face up or down.
  Verdict flip(CardId card, bool face_up);
  /// Lays a card sideways or upright.
  Verdict set_sideways(CardId card, bool sideways);
  /// Puts a card into a cell of its zone's grid; -1 for none. A card loses its cell when it moves to another
  /// zone.
  Verdict set_cell(CardId card, int cell);
  /// Puts a card at a position of its free zone, shares of the room from 0 to 1; others are cut to that.
  Verdict set_position(CardId card, Vec2 at);
  /// Gives a card another face, or reveals one that was hidden. Refused for a face that the deck does not
  /// have.
  Verdict set_face(CardId card, FaceId face);
  /// Puts the cards of a zone in another order, the same for the same seed on every platform. Cards keep
  /// their ids, faces and sides; in a grid that keeps cells, cards change cells and gaps stay where they are.
  /// O(cards).
  Verdict shuffle(ZoneId zone, std::uint64_t seed);
  /// A shuffle that this client cannot see: all cards of the zone are covered, and their faces are not known
  /// any more, so that no id tells a face.
  Verdict conceal(ZoneId zone);
  /// Moves the `count` topmost cards of a zone below the others.
  Verdict cut(ZoneId zone, std::size_t count);
  /// Moves all cards of a zone onto another, one by one from the top, flipped: a waste becomes a stock
  /// again, and gives its cards in the order in which they came.
  Verdict recycle(ZoneId from, ZoneId to);
  /// Lays the cards of some zones anew: each of those cards once, in any of those zones. Refused when a zone
  /// or card is named twice, or cards are missing. O(cards of those zones).
  Verdict arrange(std::span<const ZoneContents> contents);
  /// How a zone's cards lie now; empty for a stale id.
  [[nodiscard]] ZoneContents contents_of(ZoneId zone) const;
  /// Moves up to `count` cards from the top of a zone onto another, one by one, on the stated side.
  /// Says how many there were; none is an answer, not an error.
  std::size_t take(ZoneId from, ZoneId to, std::size_t count, bool face_up);
  /// Moves cards from anywhere onto a zone, in this order, covered and upright. Refused when one is named
  /// twice. O(cards of all zones).
  Verdict gather(std::span<const CardId> cards, ZoneId to, bool keeps_sides = false);
  /// Gives the cards of a zone free positions by chance, the same for a seed on every platform. O(cards).
  Verdict scatter(ZoneId zone, std::uint64_t seed);
  /// Exchanges two cards.
  Verdict swap(CardId a, CardId b);
  /// Sets a number of the table, or of a zone, a card or a seat. Refused when its owner is not there, the
  /// value or the name is none that it can have, or its owner has `most_numbers` others.
  Verdict set_number(std::string_view name, int value, const NumberOwner& of = {});
  /// Whose turn it is from now on. Refused when a seat is not there.
  Verdict set_turn(std::span<const SeatId> seats);
  /// Takes a card off the table for good. Its id is given to no other card.
  Verdict remove(CardId card);
  /// Makes the wanted zones hold exactly the wanted cards, in one step and with as few moves as it takes.
  /// Zones not named keep what they have, except cards that are wanted elsewhere. O(n log n) in the cards of
  /// those zones.
  SyncReport sync(std::span<const WantedZone> wanted);

 private:
  friend struct cards_detail::Inside;
  Card* find(CardId id);
  template <class Value>
  Verdict change(const Card& card, Value& of_card, const Value& value);
  Verdict check(std::span<const WantedZone> wanted) const;
  CardId add_card(const CardOptions& options);
  void check_new(const CardOptions& options) const;
  void retire(CardId id);
  void keep(CardId id, const CardOptions& options);
  [[nodiscard]] Verdict check_owner(const NumberOwner& owner) const;
  void set_numbers(const NumberOwner& owner, const Numbers& numbers);
  /// Turns a card to this side, for the game or by a rule: no player has opened it.
  void lay(Card& card, bool face_up);
  bool forget_opened(CardId card);
  void renumber(Zone& zone, std::size_t from);
  void touch(Zone& zone);

  Deck deck_;
  std::vector<Zone> zones_;  // by ZoneId - 1
  std::vector<Card> cards_;  // by slot; a free slot has no id
  std::vector<std::uint32_t> free_slots_;
  std::uint32_t used_ids_ = 0;          // by rounds before
  std::vector<std::uint32_t> slot_of_;  // by CardId - used_ids_ - 1
  std::unordered_map<std::uint64_t, CardId> card_by_key_;
  std::map<std::string, ZoneId, std::less<>> zone_by_name_;
  std::unordered_map<std::uint64_t, ZoneId> zone_by_key_;
  std::vector<Seat> seats_;   // by SeatId - 1
  std::vector<SeatId> turn_;  // in order
  std::map<std::uint64_t, Numbers> numbers_;
  std::uint64_t own_revision_ = 0;  // of whose turn it is, and of the numbers of table and seats
  std::vector<std::pair<CardId, CardOptions>> retired_;  // the last that were, for History
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon
