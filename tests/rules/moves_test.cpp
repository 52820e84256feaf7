// Rules about places, faces and stocks, and the list of all that may be done.
#include <algorithm>
#include <set>

#include "rules/neighbours.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Three linked slots, a hand of four, a stock and its waste.
struct MovesBench {
  Table table{glasshouse()};
  ZoneId slots[3], hand, stock, waste;
  std::vector<ZoneRules> rules;
  std::vector<std::pair<ZoneId, ZoneId>> links;

  MovesBench() {
    for (ZoneId& slot : slots) slot = table.create_zone("slot-" + std::to_string(++made));
    hand = table.create_zone("hand");
    stock = table.create_zone("stock");
    waste = table.create_zone("waste");
    rules.resize(6);
    rules[hand.value - 1].pick = {.kind = PickKind::any};
    links = {{slots[0], slots[1]}, {slots[1], slots[2]}};
  }
  CardId lay(ZoneId zone, const char* face, bool face_up = true) {
    return table.create_card(zone, {.face = *table.deck().find(face), .face_up = face_up});
  }
  Rulebook book() const { return {rules, links}; }
  Verdict judge(const Rule& rule, CardId card, ZoneId zone) {
    rules[zone.value - 1].drop = rule;
    return judge_drop(table, book(), {card, 1}, zone);
  }

 private:
  int made = 0;
};

}  // namespace

TEST_CASE("rules: neighbours are found by the links alone as by their index, and absurd rules are asked") {
  for_all("neighbours", 20, [](Random& r) {
    TableSetup setup(glasshouse(9));
    const int zones = r.between(3, 9);
    for (int i = 0; i < zones; ++i) {
      ZoneSetup zone{.name = "z" + std::to_string(i), .rules = {.pick = {.kind = PickKind::top}}};
      zone.rules.drop =
          r.chance(0.5f) ? rule::neighbours(r.between(1, 3)) : rule::each_neighbour(rule::same_colour());
      if (r.chance(0.3f))
        zone.rules.drop = rule::all({zone.rules.drop, rule::any({rule::rank_up(), rule::rank_down()})});
      if (r.chance(0.7f)) zone.cards.push_back({.face = {static_cast<std::uint32_t>(r.between(1, 52))}});
      (void)setup.add(zone);
    }
    for (int i = 0; i < 2 * zones; ++i) {
      const ZoneId a{static_cast<std::uint32_t>(r.between(1, zones))};
      const ZoneId b{static_cast<std::uint32_t>(r.between(1, zones))};
      if (a != b) setup.links.push_back({a, b});
    }
    const rules_detail::Neighbours index(setup.links);
    Rulebook indexed = setup.rulebook();
    indexed.neighbours = &index;
    RC_ASSERT(legal_moves(setup.table, indexed) == legal_moves(setup.table, setup.rulebook()));
    for (const Zone& from : setup.table.zones()) {
      for (const Zone& to : setup.table.zones()) {
        if (from.cards.empty()) continue;
        const Run run{from.cards.back(), 1};
        RC_ASSERT(judge_drop(setup.table, indexed, run, to.id) ==
                  judge_drop(setup.table, setup.rulebook(), run, to.id));
      }
    }
  });
  // Alternatives that multiply: 2 to the power of 40 wants.
  TableSetup setup(glasshouse(9));
  std::vector<Rule> parts(40, rule::any({rule::rank_up(), rule::same_suit()}));
  setup.add(
      {.name = "a", .rules = {.drop = rule::all(parts)}, .cards = {open_card(setup.table.deck(), "fern-2")}});
  setup.add({.name = "b",
             .rules = {.pick = {.kind = PickKind::top}},
             .cards = {open_card(setup.table.deck(), "fern-9")}});
  CHECK(legal_moves(setup.table, setup.rulebook()).size() == 1);
  CHECK(legal_moves(setup.table, setup.rulebook(), 0).empty());
}

TEST_CASE("rules: neighbours that are filled, and a rule that holds with each of them") {
  MovesBench b;
  const CardId card = b.lay(b.hand, "fern-5");
  const Rule tied =
      rule::all({rule::neighbours(1), rule::each_neighbour(rule::any({rule::same_suit(), rule::rank_up()}))});
  const Verdict alone = b.judge(tied, card, b.slots[1]);
  CHECK(alone.reason == Reason::needs_neighbours);
  CHECK(
      describe(Verdict{.reason = static_cast<Reason>(reason_count)}, b.table).empty());  // of another version
  CHECK(describe(alone, b.table) == "Of the places beside slot-2, at least 1 must be filled; 0 are.");
  b.lay(b.slots[0], "reed-4");
  CHECK(b.judge(tied, card, b.slots[1]).allowed());
  const CardId other = b.lay(b.slots[2], "poppy-9");
  const Verdict refused = b.judge(tied, card, b.slots[1]);
  CHECK(refused.reason == Reason::not_same_suit);
  CHECK(refused.onto == other);
  CHECK(b.judge(rule::neighbours(2), card, b.slots[1]).allowed());
  // A card is not its own neighbour: moved next to where it lies, it leaves its slot.
  CHECK(b.judge(rule::neighbours(1), other, b.slots[1]).allowed());
  CHECK(b.judge(rule::neighbours(2), other, b.slots[1]).found == 1);
}

TEST_CASE("rules: faces that a place wants, where cards come from, sets, and a rule in code") {
  MovesBench b;
  const CardId card = b.lay(b.hand, "poppy-7");
  const Deck& deck = b.table.deck();
  const int poppy = deck.suit_of(*deck.find("poppy-1"));
  const int fern = deck.suit_of(*deck.find("fern-1"));
  CHECK(b.judge(rule::of_suit(poppy), card, b.slots[0]).allowed());
  CHECK(describe(b.judge(rule::of_suit(fern), card, b.slots[0]), b.table) ==
        "Slot-1 wants the suit fern; poppy-7 is of another.");
  CHECK(b.judge(rule::rank_at_least(*deck.find_rank("7")), card, b.slots[0]).allowed());
  CHECK(describe(b.judge(rule::rank_at_least(*deck.find_rank("8")), card, b.slots[0]), b.table) ==
        "Slot-1 wants rank 8 or higher; poppy-7 is too low.");
  CHECK(b.judge(rule::from({b.hand}), card, b.slots[0]).allowed());
  CHECK(b.judge(rule::from({b.stock, b.waste}), card, b.slots[0]).reason == Reason::wrong_source);
  b.lay(b.slots[0], "reed-7");
  CHECK(b.judge(rule::same_rank(), card, b.slots[0]).allowed());
  CHECK(b.judge(rule::together(), card, b.slots[0]).reason == Reason::not_together);
  int asked = 0;
  const Rule own = rule::own("not on Sundays", [&](const RuleQuestion& q) {
    ++asked;
    return q.count == 1 ? q.answer(Reason::own_rule) : Verdict{};
  });
  CHECK(b.judge(own, card, b.slots[0]).reason == Reason::own_rule);
  CHECK(asked == 1);
  const CardId hidden = b.table.create_card(b.hand, {.face = hidden_face});
  CHECK(b.judge(rule::of_suit(poppy), hidden, b.slots[1]).reason == Reason::unknown_face);
  CHECK_THROWS_AS(check(rule::own("", {}), deck), Error);
  CHECK_THROWS_AS(check(rule::of_suit(4), deck), Error);
  CHECK_THROWS_AS(check(rule::neighbours(0), deck), Error);
  CHECK_THROWS_AS(check(rule::from({}), deck), Error);
}

TEST_CASE("rules: an occupied slot exchanges, when the other card may go back") {
  MovesBench b;
  const CardId card = b.lay(b.hand, "fern-5");
  const CardId other = b.lay(b.slots[0], "poppy-9");
  b.rules[0] = {.drop = rule::on_empty(), .exchanges = true};
  const Verdict no = judge_drop(b.table, b.book(), {card, 1}, b.slots[0]);
  CHECK(no.reason == Reason::no_exchange);
  CHECK(describe(no, b.table) == "Poppy-9 may not go to hand, where fern-5 comes from.");
  b.rules[b.hand.value - 1].drop = rule::anything();
  CHECK(judge_drop(b.table, b.book(), {card, 1}, b.slots[0]).allowed());
  Table exchanged = b.table;
  const Move onto{.run = {card, 1}, .from = b.table.card(card)->zone, .to = b.slots[0]};
  const MoveReport report = apply_move(exchanged, b.book(), onto);
  const auto back = std::find_if(report.steps.begin(), report.steps.end(),
                                 [](const MoveStep& step) { return step.kind == MoveStep::Kind::exchanged; });
  REQUIRE(back != report.steps.end());
  CHECK(back->card == other);
  // A rule in code is asked of both ways, each with the zone to which it goes.
  std::vector<ZoneId> asked;
  const Rule own =
      rule::own("asked", [&](const RuleQuestion& q) { return asked.push_back(q.zone), Verdict{}; });
  b.rules[0].drop = rule::all({rule::on_empty(), own});
  b.rules[b.hand.value - 1].drop = own;
  b.rules[b.hand.value - 1].exchanges = false;
  CHECK(judge_drop(b.table, b.book(), {card, 1}, b.slots[0]).allowed());
  CHECK(asked.front() == b.slots[0]);
  CHECK(asked.back() == b.hand);
}

TEST_CASE("rules: a stock gives by the pass, and so many passes") {
  MovesBench b;
  for (const char* face : {"fern-1", "fern-2", "fern-3", "fern-4", "fern-5"}) b.lay(b.stock, face, false);
  CHECK(judge_stock(b.table, b.book(), b.stock).reason == Reason::no_stock);
  b.rules[b.stock.value - 1].stock = StockRule{.to = b.waste, .gives = {3, 1}, .passes = 2};
  const auto tap = [&] {
    const Verdict v = judge_stock(b.table, b.book(), b.stock);
    if (v && v.found > 0) b.table.take(b.stock, b.waste, static_cast<std::size_t>(v.found), true);
    if (v && v.found == 0) (void)b.table.recycle(b.waste, b.stock);
    return v;
  };
  CHECK(tap().found == 3);
  CHECK(tap().found == 2);  // what is left
  CHECK(tap().found == 0);  // the waste goes back
  for (int i = 0; i < 5; ++i) CHECK(tap().found == 1);
  const Verdict over = tap();
  CHECK(over.reason == Reason::no_passes);
  CHECK(describe(over, b.table) == "Stock cannot be gone through again: 2 of 2 passes are used.");
  const Table empty = MovesBench().table;
  CHECK(judge_stock(empty, b.book(), b.stock).reason == Reason::empty_zone);
}

TEST_CASE("rules: the list of legal moves is every pair that is allowed, and the stock") {
  for_all("legal moves", 20, [](Random& r) {
    const TableSetup setup = random_setup(r);
    const Rulebook book = setup.rulebook();
    const auto moves = legal_moves(setup.table, book);
    std::set<std::pair<CardId, ZoneId>> listed;
    for (const Move& move : moves) {
      RC_ASSERT(judge_move(setup.table, book, move).allowed());
      RC_ASSERT(listed.insert({move.run.first, move.to}).second);
    }
    std::size_t expected = 0;
    for (const Zone& zone : setup.table.zones()) {
      for (const CardId card : zone.cards) {
        const PickVerdict pick = judge_pick(setup.table, book, card);
        for (const Zone& to : setup.table.zones()) {
          const bool may =
              pick.verdict && to.id != zone.id && judge_drop(setup.table, book, pick.run, to.id).allowed();
          RC_ASSERT(may == listed.contains({card, to.id}));
          expected += may ? 1 : 0;
        }
      }
    }
    RC_ASSERT(moves.size() == expected);
    RC_ASSERT(any_legal_move(setup.table, book) == !moves.empty());
  });
}
