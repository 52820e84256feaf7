// Cards that are chosen and moved together, on a bare table, against plain lists.
#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

int rank_of(const Table& table, CardId card) { return table.deck().rank_of(table.card(card)->face); }
int suit_of(const Table& table, CardId card) { return table.deck().suit_of(table.card(card)->face); }

/// A rule with what it says, found otherwise: of a set for what a zone takes, of two for what is chosen.
struct OfSet {
  Rule rule;
  std::function<bool(const Table&, const std::vector<CardId>&)> allows;
};
struct OfTwo {
  Rule rule;
  std::function<bool(const Table&, CardId, CardId)> allows;
};

std::vector<OfSet> rules_of_sets() {
  const auto sum = [](const Table& table, const std::vector<CardId>& cards) {
    int all = 0;
    for (const CardId card : cards) all += rank_of(table, card) + 1;
    return all;
  };
  const auto follows = [](const Table& table, const std::vector<CardId>& cards) {
    std::vector<int> ranks;
    for (const CardId card : cards) ranks.push_back(rank_of(table, card));
    std::sort(ranks.begin(), ranks.end());
    for (std::size_t i = 1; i < ranks.size(); ++i)
      if (ranks[i] != ranks[i - 1] + 1) return false;
    return true;
  };
  const auto many = [](std::size_t least, std::size_t most) {
    return [=](const Table&, const std::vector<CardId>& cards) {
      return cards.size() >= least && cards.size() <= most;
    };
  };
  const auto none_alone = [](const RuleQuestion& q) { return q.others.empty() ? q.refuse() : Verdict{}; };
  return {{rule::anything(), many(1, 99)},
          {rule::at_least(2), many(2, 99)},
          {rule::all({rule::at_least(2), rule::at_most(3)}), many(2, 3)},
          {rule::own("none alone", none_alone), many(2, 99)},
          {rule::sequence(), follows},
          {rule::sum(Compared::equal, 7), [=](const auto& t, const auto& c) { return sum(t, c) == 7; }},
          {rule::sum(Compared::at_least, 9), [=](const auto& t, const auto& c) { return sum(t, c) >= 9; }}};
}

std::vector<OfTwo> rules_of_two() {
  return {
      {rule::anything(), [](const Table&, CardId, CardId) { return true; }},
      {rule::same_rank(), [](const auto& t, CardId a, CardId b) { return rank_of(t, a) == rank_of(t, b); }},
      {rule::same_suit(), [](const auto& t, CardId a, CardId b) { return suit_of(t, a) == suit_of(t, b); }},
      {rule::rank_up(),
       [](const auto& t, CardId a, CardId b) { return rank_of(t, b) == rank_of(t, a) + 1; }}};
}

/// Two zones that let cards be chosen, one that does not, and a heap.
struct Shed {
  TableSetup setup{
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}}, .ranks = {"1", "2", "3", "4", "5"}})};
  OfSet takes;
  OfTwo link;
  bool covered;
  ZoneId heap;

  explicit Shed(Random& r) {
    const auto sets = rules_of_sets();
    const auto pairs = rules_of_two();
    takes = sets[r.below(sets.size())];
    link = pairs[r.below(pairs.size())];
    covered = r.chance(0.3f);
    for (const char* name : {"hand", "shelf", "shut"}) {
      ZoneRules rules{.pick = {.kind = r.chance(0.5f) ? PickKind::any : PickKind::nothing}};
      if (setup.table.zones().size() < 2) rules.select = SelectRule{.link = link.rule, .covered = covered};
      rules.sorts = r.chance(0.5f);
      (void)setup.add({.name = name, .layout = {.longest = 9}, .rules = rules});
    }
    heap = setup.add({.name = "heap", .layout = {.longest = 9}, .rules = {.drop = takes.rule}});
    setup.rules_of(heap).inserts = r.chance(0.5f);
    std::vector<FaceId> faces = setup.table.deck().faces();
    for (std::size_t i = 0; i < 7; ++i)
      setup.table.create_card(zone(r), {.face = faces[r.below(faces.size())], .face_up = r.chance(0.9f)});
  }

  ZoneId zone(Random& r) const { return setup.table.zones()[r.below(4)].id; }

  /// What `judge_move` has to say of cards that go on top of the heap.
  bool may(const std::vector<CardId>& cards) const {
    const Table& table = setup.table;
    for (std::size_t i = 0; i < cards.size(); ++i) {
      const Card& card = *table.card(cards[i]);
      const bool twice = std::count(cards.begin(), cards.end(), cards[i]) > 1;
      if (twice || card.zone.value > 2 || (!card.face_up && !covered)) return false;
      if (i > 0 && !link.allows(table, cards[i - 1], cards[i])) return false;
    }
    return !cards.empty() && takes.allows(table, cards);
  }
  Move move(const std::vector<CardId>& cards, ZoneId to) const {
    return {.kind = MoveKind::several, .cards = cards, .from = setup.table.card(cards[0])->zone, .to = to};
  }
};

}  // namespace

TEST_CASE(
    "rules: several cards may be moved where plain lists say so, and lie there in the order of choosing") {
  for_all("moves of several", 300, [](Random& r) {
    Shed shed(r);
    std::vector<CardId> cards;
    for (std::size_t i = 0; i <= r.below(4); ++i)
      cards.push_back({static_cast<std::uint32_t>(1 + r.below(7))});
    Move move = shed.move(cards, shed.heap);
    const auto before = shed.setup.table.zone(shed.heap)->cards;
    if (r.chance(0.3f)) move.at = r.below(before.size() + 2);
    const bool inserts = shed.setup.rules_of(shed.heap).inserts;
    const bool at_good = !move.at || *move.at == before.size() || (inserts && *move.at < before.size());
    const Verdict verdict = judge_move(shed.setup.table, shed.setup.rulebook(), move);
    RC_ASSERT(verdict.allowed() == (shed.may(cards) && at_good));
    Table after = shed.setup.table;
    const MoveReport report = apply_move(after, shed.setup.rulebook(), move);
    RC_ASSERT(report.verdict == verdict);
    if (!verdict) {
      RC_ASSERT(after.revision() == shed.setup.table.revision());
      return;
    }
    std::vector<CardId> expected = before;
    expected.insert(expected.begin() + static_cast<std::ptrdiff_t>(move.at.value_or(before.size())),
                    cards.begin(), cards.end());
    RC_ASSERT(after.zone(shed.heap)->cards == expected);
    std::set<ZoneId> emptied;
    for (const Zone& zone : shed.setup.table.zones()) {
      std::vector<CardId> left = zone.cards;
      std::erase_if(left, [&](CardId c) { return std::find(cards.begin(), cards.end(), c) != cards.end(); });
      if (zone.id != shed.heap) RC_ASSERT(after.zone(zone.id)->cards == left);
      if (left.empty() && !zone.cards.empty()) emptied.insert(zone.id);
    }
    RC_ASSERT(report.steps.front() ==
              (MoveStep{.card = cards[0], .count = cards.size(), .from = move.from, .to = shed.heap}));
    for (const MoveStep& step : report.steps)
      if (step.kind == MoveStep::Kind::emptied) RC_ASSERT(emptied.erase(step.from) == 1);
    RC_ASSERT(emptied.empty());
  });
}

TEST_CASE("rules: several cards of a zone that is sorted are moved within it together") {
  TableSetup setup(glasshouse());
  const ZoneId hand =
      setup.add({.name = "hand",
                 .layout = {.longest = 9},
                 .rules = {.select = SelectRule{}, .sorts = true},
                 .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3", "fern-4"})});
  Table table = setup.table;
  const Move move{.kind = MoveKind::several, .cards = {{4}, {2}}, .from = hand, .to = hand, .at = 1};
  REQUIRE(apply_move(table, setup.rulebook(), move).verdict);
  CHECK(table.zone(hand)->cards == std::vector<CardId>{{1}, {4}, {2}, {3}});
  setup.rules_of(hand).sorts = false;
  CHECK(judge_move(table, setup.rulebook(), move).reason == Reason::same_zone);
}

TEST_CASE("rules: the sets that legal_moves lists are those that some order of choosing allows, each once") {
  for_all("sets", 60, [](Random& r) {
    const Shed shed(r);
    std::set<std::vector<CardId>> expected;
    for (unsigned bits = 1; bits < 1u << 7; ++bits) {
      std::vector<CardId> cards;
      for (std::uint32_t i = 0; i < 7; ++i)
        if (bits & (1u << i)) cards.push_back({i + 1});
      std::vector<CardId> order = cards;
      bool any = false;
      do any = any || shed.may(order);
      while (!any && order.size() < 6 && std::next_permutation(order.begin(), order.end()));
      const Card& first = *shed.setup.table.card(cards[0]);
      const bool alone =
          cards.size() == 1 && first.face_up && shed.setup.rules_of(first.zone).pick.kind == PickKind::any;
      if (any && !alone) expected.insert(cards);
    }
    std::vector<Move> moves;
    const bool all = find_legal_moves(shed.setup.table, shed.setup.rulebook(), moves);
    RC_ASSERT(all);
    for (const Move& move : moves) {
      RC_ASSERT(judge_move(shed.setup.table, shed.setup.rulebook(), move).allowed());
      if (move.kind != MoveKind::several) continue;
      std::vector<CardId> cards(move.cards.begin(), move.cards.end());
      std::sort(cards.begin(), cards.end());
      RC_ASSERT((expected.erase(cards) == 1 || cards.size() > 5));
    }
    // Of six and more not every order was tried here.
    RC_ASSERT(std::all_of(expected.begin(), expected.end(), [](const auto& set) { return set.size() > 5; }));
  });
}

TEST_CASE("rules: of sets beyond the bound legal_moves says that it has left some out, judge_move answers") {
  TableSetup setup(glasshouse());
  const ZoneId hand =
      setup.add({.name = "hand", .layout = {.longest = 20}, .rules = {.select = SelectRule{}}});
  const ZoneId heap =
      setup.add({.name = "heap", .layout = {.longest = 20}, .rules = {.drop = rule::at_least(20)}});
  std::vector<CardId> all;
  for (std::uint32_t i = 0; i < 20; ++i) all.push_back(setup.table.create_card(hand, {.face = {i + 1}}));
  std::vector<Move> moves;
  CHECK_FALSE(find_legal_moves(setup.table, setup.rulebook(), moves));
  CHECK(moves.empty());
  // A thousand sets: all 511 of nine cards, not all 1,023 of ten.
  for (const int cards : {9, 10}) {
    setup.rules_of(hand).select =
        SelectRule{.when = rule::own("first ones", [=](const RuleQuestion& q) {
                     return q.card.value <= static_cast<std::uint32_t>(cards) ? Verdict{} : q.refuse();
                   })};
    setup.rules_of(heap).drop = rule::anything();
    CHECK(find_legal_moves(setup.table, setup.rulebook(), moves) == (cards == 9));
    CHECK(moves.size() == (cards == 9 ? 511u : most_selections));
  }
  setup.rules_of(hand).select = SelectRule{};
  setup.rules_of(heap).drop = rule::at_least(20);
  CHECK(any_legal_move(setup.table, setup.rulebook()));  // who cannot know that it is stuck does not say so
  const Move move{.kind = MoveKind::several, .cards = all, .from = hand, .to = heap};
  CHECK(judge_move(setup.table, setup.rulebook(), move));
  CHECK(best_move(setup.table, setup.rulebook(), all).move == move);
  CHECK(best_move(setup.table, setup.rulebook(), std::span(all).first(3)).verdict.reason == Reason::too_few);
  CHECK(best_move(setup.table, setup.rulebook(), std::span<const CardId>{}).verdict.reason ==
        Reason::nothing_chosen);
}
