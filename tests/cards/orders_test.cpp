// Shuffles, cuts, turning over, gathering: whole zones in another order, and no card lost.
#include <algorithm>
#include <map>

#include "support/tables.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct Two {
  Table table{glasshouse(2)};
  ZoneId a = table.create_zone("a");
  ZoneId b = table.create_zone("b");

  explicit Two(std::size_t in_a, std::size_t in_b = 0) {
    for (std::size_t i = 0; i < in_a + in_b; ++i) {
      (void)table.create_card(i < in_a ? a : b, {.face = {static_cast<std::uint32_t>(i % 52 + 1)}});
    }
  }
  [[nodiscard]] std::vector<CardId> cards(ZoneId zone) const { return table.zone(zone)->cards; }
};

}  // namespace

TEST_CASE("cards: a seed gives the same order on every platform") {
  Random64 random(42);
  // Figures of the published generator, from a seed of 42.
  CHECK(random.next() == 13679457532755275413u);
  CHECK(random.next() == 2949826092126892291u);
  Two t(5);
  REQUIRE(t.table.shuffle(t.a, 7));
  const auto once = t.cards(t.a);
  Two again(5);
  REQUIRE(again.table.shuffle(again.a, 7));
  CHECK(again.cards(again.a) == once);
  std::vector<std::uint32_t> order;
  for (const CardId card : once) order.push_back(card.value);
  CHECK(order == std::vector<std::uint32_t>{5, 2, 4, 1, 3});
}

TEST_CASE("cards: all orders come about equally often, and numbers below n too") {
  std::map<std::vector<CardId>, int> seen;
  for (std::uint64_t seed = 0; seed < 6000; ++seed) {
    Two t(3);
    REQUIRE(t.table.shuffle(t.a, seed));
    ++seen[t.cards(t.a)];
  }
  CHECK(seen.size() == 6);
  for (const auto& [order, times] : seen) CHECK((times > 850 && times < 1150));
  Random64 random(1);
  std::vector<int> drawn(7, 0);
  for (int i = 0; i < 7000; ++i) ++drawn[static_cast<std::size_t>(random.below(7))];
  for (const int times : drawn) CHECK((times > 850 && times < 1150));
  CHECK(random.below(0) == 0);
  CHECK(random.below(1) == 0);
  const float unit = random.unit();
  CHECK((unit >= 0 && unit < 1));
}

TEST_CASE("cards: a shuffle in place on a grid changes who lies in a cell, and gaps stay") {
  Two t(4);
  const auto cards = t.cards(t.a);
  const int cells[] = {0, 2, 5, 7};
  for (std::size_t i = 0; i < 4; ++i) REQUIRE(t.table.set_cell(cards[i], cells[i]));
  REQUIRE(t.table.shuffle(t.a, 3));
  CHECK(t.cards(t.a) != cards);
  for (std::size_t i = 0; i < 4; ++i) CHECK(t.table.card(t.cards(t.a)[i])->cell == cells[i]);
}

TEST_CASE(
    "cards: taking says when there are too few, and a waste that is recycled gives its cards in order "
    "again") {
  Two t(5);
  const auto stock = t.cards(t.a);
  CHECK(t.table.take(t.a, t.b, 3, true) == 3);
  CHECK(t.table.take(t.a, t.b, 9, true) == 2);
  CHECK(t.table.take(t.a, t.b, 1, true) == 0);
  CHECK(t.table.take(t.a, t.a, 1, true) == 0);
  CHECK(t.table.take({9}, t.a, 1, true) == 0);
  CHECK(t.cards(t.b) == std::vector<CardId>(stock.rbegin(), stock.rend()));
  REQUIRE(t.table.recycle(t.b, t.a));
  CHECK(t.cards(t.a) == stock);
  CHECK_FALSE(t.table.card(stock[0])->face_up);
  CHECK(t.table.recycle(t.b, t.b).reason == Reason::unknown_index);
  const auto revision = t.table.revision();
  CHECK(t.table.recycle(t.b, t.a));
  CHECK(t.table.revision() == revision);
}

TEST_CASE("cards: a cut puts the top below, a swap exchanges, gathering takes from everywhere") {
  Two t(5, 2);
  auto a = t.cards(t.a);
  REQUIRE(t.table.cut(t.a, 2));
  CHECK(t.cards(t.a) == std::vector<CardId>{a[3], a[4], a[0], a[1], a[2]});
  CHECK(t.table.cut(t.a, 6).reason == Reason::unknown_index);
  const CardId other = t.cards(t.b)[1];
  REQUIRE(t.table.swap(a[0], other));
  CHECK(t.cards(t.a)[2] == other);
  CHECK(t.cards(t.b)[1] == a[0]);
  CHECK(t.table.card(other)->zone == t.a);
  CHECK(t.table.swap(a[0], {99}).reason == Reason::unknown_card);
  REQUIRE(t.table.gather(std::vector<CardId>{a[3], t.cards(t.b)[0], a[2]}, t.b));
  CHECK(t.cards(t.b).size() == 4);
  CHECK(t.cards(t.b)[1] == a[3]);
  CHECK_FALSE(t.table.card(a[3])->face_up);
  const auto before = t.table.revision();
  CHECK(t.table.gather(std::vector<CardId>{a[4], a[4]}, t.b).reason == Reason::unknown_card);
  CHECK(t.table.revision() == before);
  assert_whole(t.table, 7);
}

TEST_CASE(
    "cards: after a shuffle that is not seen no id tells a face, a face is told later, a card can leave") {
  Two t(3);
  const auto cards = t.cards(t.a);
  REQUIRE(t.table.conceal(t.a));
  for (const CardId card : cards) {
    CHECK(t.table.card(card)->face == hidden_face);
    CHECK_FALSE(t.table.card(card)->face_up);
  }
  REQUIRE(t.table.set_face(cards[1], {9}));
  CHECK(t.table.card(cards[1])->face == FaceId{9});
  CHECK(t.table.set_face(cards[1], {999}).reason == Reason::unknown_face);
  REQUIRE(t.table.remove(cards[0]));
  CHECK(t.table.card(cards[0]) == nullptr);
  CHECK(t.table.remove(cards[0]).reason == Reason::unknown_card);
  const CardId fresh = t.table.create_card(t.a, {.face = {1}});
  CHECK(fresh.value == 4);
  assert_whole(t.table, 3);
}

TEST_CASE("cards: no order of whole-zone changes loses or doubles a card") {
  for_all("orders", 5, [](Random& r) {
    TableSetup setup = random_setup(r);
    Table& table = setup.table;
    const std::size_t cards = table.card_count();
    const auto zone = [&] { return table.zones()[r.below(table.zones().size())].id; };
    for (int i = 0; i < 40; ++i) {
      std::vector<CardId> some;
      for (const CardId card : table.zone(zone())->cards) {
        if (r.chance(0.5f)) some.push_back(card);
      }
      switch (r.below(7)) {
        case 0:
          (void)table.shuffle(zone(), r.below(1000));
          break;
        case 1:
          (void)table.cut(zone(), r.below(6));
          break;
        case 2:
          (void)table.recycle(zone(), zone());
          break;
        case 3:
          (void)table.take(zone(), zone(), r.below(4), r.chance(0.5f));
          break;
        case 4:
          (void)table.gather(some, zone());
          break;
        case 5:
          (void)table.conceal(zone());
          break;
        default:
          if (some.size() > 1) (void)table.swap(some[0], some[1]);
          break;
      }
      assert_whole(table, cards);
    }
  });
}
