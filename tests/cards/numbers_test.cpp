// Numbers of a table, seats and whose turn it is; and undo of these, and of cards that come and go.
#include <catch2/catch.hpp>
#include <map>

#include "apsidon/cards/history.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct Counted {
  Table table{glasshouse()};
  SeatId south = table.create_seat("south", {{"points", 3}});
  SeatId north = table.create_seat("north");
  ZoneId hand = table.create_zone("hand", {.seat = south, .numbers = {{"draws", 1}, {"bids", 2}}});
  ZoneId pile = table.create_zone("pile");
  CardId card = table.create_card(hand, {.face = {1}, .numbers = {{"hits", 4}}});
};

}  // namespace

TEST_CASE("cards: a number is of the table, a zone, a card or a seat, and 0 until it is set") {
  Counted c;
  CHECK(c.table.number("points", c.south) == 3);
  CHECK(c.table.number("points", c.north) == 0);
  CHECK(c.table.number("points") == 0);
  CHECK(c.table.number("hits", c.card) == 4);
  CHECK(c.table.number("bids", c.hand) == 2);
  const std::uint64_t before = c.table.revision();
  REQUIRE(c.table.set_number("points", 3, c.south));
  CHECK(c.table.revision() == before);  // it was that already
  REQUIRE(c.table.set_number("points", -7, c.south));
  CHECK(c.table.number("points", c.south) == -7);
  CHECK(c.table.revision() > before);
  REQUIRE(c.table.set_number("sold", 0));
  CHECK(c.table.numbers() == Numbers{{"sold", 0}});
  // How many cards lie there is a number, too, and nobody sets it.
  CHECK(c.table.number("cards", c.hand) == 1);
  CHECK(c.table.number("cards", c.card) == 0);
  CHECK(c.table.set_number("cards", 3, c.hand).reason == Reason::out_of_range);
  CHECK(c.table.set_number("cards", 3, c.card));
  // A card takes its numbers along; what was removed has none any more.
  REQUIRE(c.table.move({c.card, 1}, c.pile));
  CHECK(c.table.number("hits", c.card) == 4);
  REQUIRE(c.table.remove(c.card));
  CHECK(c.table.number("hits", c.card) == 0);
}

TEST_CASE("cards: what a number cannot be, or be called, is refused with what is expected") {
  Counted c;
  const auto problem = [&](std::string_view name, int value, NumberOwner of = {}) {
    const Verdict verdict = c.table.set_number(name, value, of);
    REQUIRE(verdict.reason == Reason::out_of_range);
    return std::get<std::string>(verdict.arguments.at(0).value);
  };
  CHECK(problem("", 1).find("no name") != std::string::npos);
  CHECK(problem("a\x1b", 1).find("U+001B") != std::string::npos);
  CHECK(problem("far", 1'000'000'001) ==
        "table: number 'far' is 1000000001: -1000000000 to 1000000000 is expected");
  CHECK(c.table.set_number("far", 1'000'000'000));
  CHECK(c.table.set_number("far", -1'000'000'000));
  CHECK(c.table.set_number("x", 1, CardId{99}).reason == Reason::unknown_card);
  CHECK(c.table.set_number("x", 1, ZoneId{99}).reason == Reason::unknown_zone);
  CHECK(c.table.set_number("x", 1, SeatId{3}).reason == Reason::unknown_seat);
  for (std::size_t i = 1; i < most_numbers; ++i) REQUIRE(c.table.set_number("n" + std::to_string(i), 1));
  CHECK(problem("more", 1).find("100") != std::string::npos);
  CHECK(c.table.set_number("n7", 2));
  CHECK_THROWS_WITH(c.table.create_seat("south"),
                    "seat 'south': the table has one of that name: a new name is expected");
  CHECK_THROWS_WITH(c.table.create_seat("east", {{"a", 1}, {"a", 2}}),
                    "seat 'east': number 'a' is given twice: each is expected once");
  CHECK_THROWS_WITH(c.table.create_zone("z", {.seat = {9}}),
                    "zone 'z': seat 9: a seat of the table, or none, is expected");
  CHECK_THROWS_WITH(c.table.create_zone("z", {.numbers = {{"cards", 1}}}),
                    "zone 'z': its cards are counted by the table: another name than 'cards' is expected");
  CHECK_THROWS_AS(c.table.create_card(c.pile, {.numbers = {{"", 1}}}), Error);
  for (std::size_t i = c.table.seats().size(); i < most_seats; ++i) c.table.create_seat(std::to_string(i));
  CHECK_THROWS_WITH(c.table.create_seat("x"), "seat 'x': the table has 100 seats: no more are expected");
}

TEST_CASE("cards: it is the turn of one seat, of several, or of none") {
  Counted c;
  CHECK(c.table.turn().empty());
  REQUIRE(c.table.set_turn(std::vector{c.north, c.south, c.north}));
  CHECK(std::vector(c.table.turn().begin(), c.table.turn().end()) == std::vector{c.south, c.north});
  CHECK(c.table.is_on_turn(c.south));
  CHECK(c.table.set_turn(std::vector{SeatId{3}}).reason == Reason::unknown_seat);
  CHECK(c.table.set_turn(std::vector{SeatId{}}).reason == Reason::unknown_seat);
  CHECK(c.table.turn().size() == 2);
  REQUIRE(c.table.set_turn({}));
  CHECK_FALSE(c.table.is_on_turn(c.south));
  CHECK(c.table.find_seat("north") == c.north);
  CHECK_FALSE(c.table.find_seat("hand"));
}

TEST_CASE("cards: undo brings numbers, turns, and cards that came or went back as they were, and redo does") {
  for_all("numbers undone", 20, [](Random& r) {
    Counted c;
    Table& table = c.table;
    table.create_card(c.pile, {.face = {2}, .key = 5});
    History history;
    history.start(table);
    std::vector<std::string> states{state_of(table)};
    const auto some_card = [&] {
      std::vector<CardId> cards;
      for (const Zone& zone : table.zones()) cards.insert(cards.end(), zone.cards.begin(), zone.cards.end());
      return cards.empty() ? CardId{} : cards[r.below(cards.size())];
    };
    const auto some_owner = [&]() -> NumberOwner {
      switch (r.below(4)) {
        case 0:
          return c.south;
        case 1:
          return c.pile;
        case 2:
          return some_card();
        default:
          return {};
      }
    };
    const auto change = [&] {
      switch (r.below(6)) {
        case 0:
          (void)table.set_number(r.chance(0.5f) ? "points" : "hits", r.between(-3, 3), some_owner());
          break;
        case 1:
          (void)table.set_turn(r.chance(0.3f) ? std::vector<SeatId>{}
                                              : std::vector{r.chance(0.5f) ? c.south : c.north});
          break;
        case 2:
          table.create_card(r.chance(0.5f) ? c.hand : c.pile, {.face = {3}, .numbers = {{"hits", 1}}});
          break;
        case 3:
          (void)table.remove(some_card());
          break;
        default:
          if (const CardId card = some_card()) (void)table.move({card, 1}, r.chance(0.5f) ? c.hand : c.pile);
          break;
      }
    };
    for (int step = 0; step < 12; ++step) {
      for (int i = r.between(1, 4); i > 0; --i) change();
      const std::string now = state_of(table);
      history.note(table);
      if (now != states.back()) states.push_back(now);
    }
    std::size_t at = states.size() - 1;
    for (int i = 0; i < 40; ++i) {
      const bool back = r.chance(0.55f);
      const Verdict verdict = back ? history.undo(table) : history.redo(table);
      const bool could = back ? at > 0 : at + 1 < states.size();
      RC_ASSERT(verdict.allowed() == could);
      if (could) at += back ? std::size_t(-1) : std::size_t{1};
      RC_ASSERT(state_of(table) == states[at]);
    }
  });
}

TEST_CASE(
    "cards: a face that was seen stays seen when its card comes back, and a key that is taken is not given "
    "twice") {
  Counted c;
  const CardId sold = c.table.create_card(c.pile, {.face = hidden_face, .key = 8, .face_up = false});
  History history;
  history.start(c.table);
  REQUIRE(c.table.set_face(sold, {7}));
  REQUIRE(c.table.flip(sold, true));
  REQUIRE(c.table.remove(sold));
  history.note(c.table);
  REQUIRE(history.undo(c.table));
  CHECK(c.table.card(sold)->face == FaceId{7});
  CHECK_FALSE(c.table.card(sold)->face_up);
  CHECK(c.table.find_card_by_key(8) == sold);
  REQUIRE(history.redo(c.table));
  CHECK_FALSE(c.table.card(sold));
  // Meanwhile another card has its key: that one leaves where the change goes back with the move.
  const CardId other = c.table.create_card(c.pile, {.key = 8});
  History later = history;
  Table copy = c.table;
  REQUIRE(later.undo(copy));
  CHECK(copy.find_card_by_key(8) == sold);
  CHECK_FALSE(copy.card(other));
  // In a zone that the move did not touch it stays, and nothing changes.
  history.note(c.table);
  REQUIRE(history.undo(c.table));
  REQUIRE(history.undo(c.table));
  CHECK(c.table.card(sold));
}

TEST_CASE("cards: so many cards at once that went cannot come back, and nothing can be undone then") {
  Table table(glasshouse());
  const ZoneId zone = table.create_zone("zone");
  std::vector<CardId> cards;
  for (int i = 0; i < 25'000; ++i) cards.push_back(table.create_card(zone, {}));
  History history;
  history.start(table);
  for (int i = 0; i < 10'000; ++i) REQUIRE(table.remove(table.zone(zone)->cards.back()));
  history.note(table);
  REQUIRE(history.undo(table));
  CHECK(table.card_count() == 25'000);
  CHECK(table.zone(zone)->cards == cards);
  while (!table.zone(zone)->cards.empty()) REQUIRE(table.remove(table.zone(zone)->cards.back()));
  history.note(table);
  CHECK_FALSE(history.can_undo());
}
