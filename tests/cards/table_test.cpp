#include "support/tables.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct TwoZones {
  Table table{glasshouse()};
  ZoneId a = table.create_zone("a", {.key = 1});
  ZoneId b = table.create_zone("b", {.key = 2});
  std::vector<CardId> cards;

  TwoZones() {
    for (const char* face : {"fern-1", "fern-2", "fern-3", "fern-4"}) {
      cards.push_back(table.create_card(a, open_card(table.deck(), face)));
    }
  }
};

}  // namespace

TEST_CASE("cards: a run moves whole, and keeps its order") {
  TwoZones t;
  REQUIRE(t.table.move(t.table.run_from(t.cards[1]), t.b));
  CHECK(t.table.zone(t.a)->cards == std::vector{t.cards[0]});
  CHECK(t.table.zone(t.b)->cards == std::vector{t.cards[1], t.cards[2], t.cards[3]});
  REQUIRE(t.table.move({t.cards[2], 1}, t.a, 0));
  CHECK(t.table.zone(t.a)->cards == std::vector{t.cards[2], t.cards[0]});
  CHECK(t.table.card(t.cards[3])->index == 1);
}

TEST_CASE("cards: a run moves within its zone") {
  TwoZones t;
  REQUIRE(t.table.move({t.cards[0], 2}, t.a));
  CHECK(t.table.zone(t.a)->cards == std::vector{t.cards[2], t.cards[3], t.cards[0], t.cards[1]});
  REQUIRE(t.table.move({t.cards[0], 1}, t.a, 0));
  CHECK(t.table.zone(t.a)->cards.front() == t.cards[0]);
}

TEST_CASE("cards: what cannot be done is a verdict, and changes nothing") {
  TwoZones t;
  const auto before = t.table.revision();
  CHECK(t.table.move({{99}, 1}, t.b).reason == Reason::unknown_card);
  CHECK(t.table.move({CardId{}, 1}, t.b).reason == Reason::unknown_card);
  CHECK(t.table.move({t.cards[0], 1}, {99}).reason == Reason::unknown_zone);
  CHECK(t.table.move({t.cards[2], 3}, t.b).reason == Reason::unknown_index);
  CHECK(t.table.move({t.cards[2], 0}, t.b).reason == Reason::unknown_index);
  CHECK(t.table.move({t.cards[2], 1}, t.b, 1).reason == Reason::unknown_index);
  CHECK(t.table.move({t.cards[2], std::size_t(-1)}, t.a).reason == Reason::unknown_index);
  CHECK(t.table.flip({99}, true).reason == Reason::unknown_card);
  CHECK(t.table.revision() == before);
  CHECK_FALSE(t.table.top(t.b).has_value());
  CHECK(t.table.run_from({99}).count == 0);
  CHECK(t.table.cards_of({t.cards[3], 2}).empty());
}

TEST_CASE("cards: a change that changes nothing bumps no revision, others those of the zones touched") {
  TwoZones t;
  const auto a = t.table.zone(t.a)->revision;
  const auto b = t.table.zone(t.b)->revision;
  CHECK(t.table.flip(t.cards[0], true));
  CHECK(t.table.move({t.cards[3], 1}, t.a));
  CHECK(t.table.zone(t.a)->revision == a);
  CHECK(t.table.flip(t.cards[0], false));
  CHECK(t.table.zone(t.a)->revision > a);
  CHECK(t.table.zone(t.b)->revision == b);
  CHECK(t.table.move({t.cards[3], 1}, t.b));
  CHECK(t.table.zone(t.b)->revision > b);
}

TEST_CASE("cards: set-up mistakes throw and say what is expected") {
  TwoZones t;
  CHECK_THROWS_WITH(t.table.create_zone("a"),
                    "zone 'a': the table has one of that name: a new name is expected");
  CHECK_THROWS_WITH(t.table.create_zone(""), "zone: the name is empty: a name is expected");
  CHECK_THROWS_WITH(t.table.create_zone("c", {.key = 2}),
                    "zone 'c': key 2 is taken by zone 'b': a new key is expected");
  CHECK_THROWS_WITH(t.table.create_card(t.a, {.face = {53}}),
                    "card: face 53 is not in the deck: 1 to 52, or hidden, is expected");
  CHECK_THROWS_AS(t.table.create_card({9}, {}), Error);
  t.table.create_card(t.a, {.key = 7});
  CHECK_THROWS_AS(t.table.create_card(t.a, {.key = 7}), Error);
  CHECK(t.table.card_count() == 5);
  CHECK(t.table.zones().size() == 2);
}

TEST_CASE("cards: a card gets a cell, and has none again") {
  TwoZones t;
  const CardId card = t.table.zone(t.a)->cards[0];
  CHECK(t.table.set_cell(card, 3));
  CHECK(t.table.card(card)->cell == 3);
  CHECK(t.table.set_cell(card, -2).reason == Reason::unknown_index);
  CHECK(t.table.set_cell(card, -1));
  CHECK(t.table.card(card)->cell == -1);
}

TEST_CASE("cards: no sequence of moves and flips loses or doubles a card") {
  for_all("moves and flips", 3, [](Random& r) {
    Table table = random_setup(r).table;
    const std::size_t cards = table.card_count();
    for (int step = 0; step < 40; ++step) {
      // Stale ids, wrong counts and places are part of it.
      const CardId card{static_cast<std::uint32_t>(r.below(cards + 3))};
      const ZoneId to{static_cast<std::uint32_t>(r.below(table.zones().size() + 2))};
      if (r.chance(0.2f)) {
        (void)table.flip(card, r.chance(0.5f));
      } else {
        (void)table.move({card, r.below(4)}, to, r.below(9));
      }
      assert_whole(table, cards);
    }
  });
}
