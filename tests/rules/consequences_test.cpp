// What follows a move: by rules of the table and by functions of the game's, on a bare table and on a
// playfield.
#include <algorithm>
#include <catch2/catch.hpp>

#include "apsidon/files/saved_game.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A yard of stalls that take anything and sell what is a pair, with a box outside of the window for what is
/// sold.
struct Yard {
  TableSetup setup{glasshouse()};
  std::vector<ZoneId> stalls;
  ZoneId sold;

  explicit Yard(std::size_t stall_count = 4) {
    for (std::size_t i = 0; i < stall_count; ++i) {
      stalls.push_back(setup.add(
          {.name = "stall-" + std::to_string(i + 1),
           .layout = {.kind = ColumnLayout{}, .longest = 20},
           .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything(), .flips_uncovered = true}}));
    }
    sold = setup.add(
        {.name = "sold", .layout = {.kind = PileLayout{}, .longest = 60, .off_table = Facing::top}});
    std::vector<PlanNode> nodes;
    for (const ZoneId stall : stalls) nodes.push_back(zone(stall));
    setup.plans = {{.root = across(nodes)}};
  }
  CardId lay(ZoneId zone, const char* face, bool face_up = true) {
    return setup.table.create_card(zone, {.face = *setup.table.deck().find(face), .face_up = face_up});
  }
  MoveReport move(CardId card, ZoneId to) {
    const Rulebook rules = setup.rulebook();
    return apply_move(setup.table, rules, {.run = {card, 1}, .from = setup.table.card(card)->zone, .to = to});
  }
};

bool same_rank(const Table& table, CardId a, CardId b) {
  return table.deck().rank_of(table.card(a)->face) == table.deck().rank_of(table.card(b)->face);
}

}  // namespace

TEST_CASE("rules: pairs that meet are sold, one uncovering the next, and it is told in order") {
  Yard y;
  y.setup.consequences = {{.cards = 2, .link = rule::same_rank(), .to = y.sold}};
  check(y.setup);
  const CardId lower = y.lay(y.stalls[0], "fern-7");
  const CardId lowest = y.lay(y.stalls[1], "reed-7", false);
  const CardId three = y.lay(y.stalls[0], "fern-3");
  const CardId other = y.lay(y.stalls[1], "reed-3");
  const MoveReport report = y.move(other, y.stalls[0]);
  REQUIRE(report.verdict);
  // Below the threes nothing is a pair: the seven is in another stall, and lies open now.
  CHECK(y.setup.table.zone(y.sold)->cards == std::vector<CardId>{three, other});
  CHECK(y.setup.table.zone(y.stalls[0])->cards == std::vector<CardId>{lower});
  CHECK(y.setup.table.card(lowest)->face_up);
  const MoveReport more = y.move(lowest, y.stalls[0]);
  REQUIRE(more.steps.size() == 4);
  CHECK(more.steps[1].kind == MoveStep::Kind::emptied);
  CHECK(
      more.steps[2] ==
      MoveStep{.kind = MoveStep::Kind::taken, .card = lower, .count = 2, .from = y.stalls[0], .to = y.sold});
  CHECK(more.steps[3] == MoveStep{.kind = MoveStep::Kind::emptied, .from = y.stalls[0]});
  CHECK(y.setup.table.zone(y.sold)->cards.size() == 4);
}

TEST_CASE("rules: a full set goes to its zone, and cards that come to a sum do, where they are looked for") {
  Yard y;
  y.setup.consequences = {{.in = {y.stalls[0]},
                           .cards = 3,
                           .link = rule::all({rule::same_suit(), rule::rank_down()}),
                           .to = y.sold},
                          {.in = {y.stalls[1], y.stalls[2]}, .sum = 11, .to = y.sold}};
  check(y.setup);
  y.lay(y.stalls[0], "fern-9");
  y.lay(y.stalls[0], "fern-8");
  const CardId seven = y.lay(y.stalls[3], "fern-7");
  REQUIRE(y.move(seven, y.stalls[0]).verdict);
  CHECK(y.setup.table.zone(y.sold)->cards.size() == 3);
  // Ten and one make eleven; a covered card makes nothing, and in the fourth stall nobody looks.
  y.lay(y.stalls[1], "fern-10");
  const CardId one = y.lay(y.stalls[3], "reed-1");
  REQUIRE(y.move(one, y.stalls[1]).verdict);
  CHECK(y.setup.table.zone(y.sold)->cards.size() == 5);
  y.lay(y.stalls[3], "poppy-10");
  y.lay(y.stalls[2], "poppy-4");
  const CardId other = y.lay(y.stalls[0], "poppy-1");
  REQUIRE(y.move(other, y.stalls[3]).verdict);
  CHECK(y.setup.table.zone(y.sold)->cards.size() == 5);
}

TEST_CASE("rules: a consequence in code says what is done, and is asked until nothing follows") {
  Yard y;
  std::size_t asked = 0;
  y.setup.consequences = {{.name = "echo", .follow = [&](const FollowQuestion& q) -> std::vector<Edit> {
                             ++asked;
                             // Whoever lies alone in a stall is turned, once; then the last two stalls
                             // exchange their tops.
                             for (const ZoneId stall : y.stalls) {
                               const Zone& zone = *q.table.zone(stall);
                               if (zone.cards.size() == 1 && !q.table.card(zone.cards[0])->sideways)
                                 return {{.kind = EditKind::set_sideways, .card = zone.cards[0], .on = true},
                                         {.kind = EditKind::set_face, .card = zone.cards[0], .face = {9}}};
                             }
                             return {};
                           }}};
  const CardId a = y.lay(y.stalls[0], "fern-1");
  y.lay(y.stalls[0], "fern-2");
  const CardId moves = y.lay(y.stalls[0], "fern-3");
  const MoveReport report = y.move(moves, y.stalls[1]);
  CHECK(asked == 2);
  CHECK(y.setup.table.card(moves)->sideways);
  CHECK(y.setup.table.card(moves)->face == FaceId{9});
  CHECK_FALSE(y.setup.table.card(a)->sideways);
  REQUIRE(report.steps.size() > 2);
  CHECK(report.steps[report.steps.size() - 2].kind == MoveStep::Kind::turned);
  CHECK(report.steps.back().kind == MoveStep::Kind::face_changed);
  // One that never ends is ended, and one that throws has said nothing.
  y.setup.consequences = {{.name = "spin", .follow = [&](const FollowQuestion& q) {
                             return std::vector<Edit>{{.kind = EditKind::set_sideways,
                                                       .card = moves,
                                                       .on = !q.table.card(moves)->sideways}};
                           }}};
  CHECK(y.move(moves, y.stalls[2]).steps.size() == most_follow_rounds + 2);
  y.setup.consequences = {{.name = "rain", .follow = [](const FollowQuestion&) -> std::vector<Edit> {
                             throw Error("it rains");
                           }}};
  CHECK(y.move(moves, y.stalls[3]).verdict.allowed());
}

TEST_CASE("rules: consequences that make no sense are refused with what is expected") {
  Yard y;
  const auto refusal = [&](Consequence c) {
    y.setup.consequences = {std::move(c)};
    try {
      check(y.setup);
    } catch (const Error& e) {
      return std::string(e.what());
    }
    return std::string();
  };
  CHECK(refusal({.cards = 2, .link = rule::same_rank(), .to = y.sold}) == "");
  CHECK(refusal({}).find("either cards, a sum or the name of a function") != std::string::npos);
  CHECK(refusal({.cards = 2, .sum = 3, .to = y.sold}).find("either") != std::string::npos);
  CHECK(refusal({.cards = 1, .to = y.sold}) == "consequence: cards is 1: 2 to 100000 is expected");
  CHECK(refusal({.cards = 100'000, .to = y.sold}) == "");
  CHECK(refusal({.cards = 100'001, .to = y.sold}) == "consequence: cards is 100001: 2 to 100000 is expected");
  CHECK(refusal({.sum = 1'000'000, .to = y.sold}) == "");
  CHECK(refusal({.sum = 1'000'001, .to = y.sold}) == "consequence: sum is 1000001: 1 to 1000000 is expected");
  CHECK(refusal({.sum = -3, .to = y.sold}) == "consequence: sum is -3: 1 to 1000000 is expected");
  CHECK(refusal({.cards = 2, .to = {99}}).find("cards go to zone 99") != std::string::npos);
  CHECK(refusal({.in = {y.sold}, .cards = 2, .to = y.sold}).find("another zone") != std::string::npos);
  CHECK(refusal({.follow = [](const FollowQuestion&) { return std::vector<Edit>{}; }}).find("name") !=
        std::string::npos);
}

TEST_CASE(
    "rules: in random games a playfield, a bare table and a replay have the same consequences, and undo "
    "takes them back") {
  for_all("consequences", 25, [](Random& r) {
    Yard y(3 + r.below(3));
    const FollowFunction pairs = [stalls = y.stalls, sold = y.sold](const FollowQuestion& q) {
      std::vector<Edit> out;
      // Client and server are told the same: the move first.
      if (q.steps.empty() || q.steps.front().kind != MoveStep::Kind::moved) return out;
      for (const ZoneId stall : stalls) {
        const std::vector<CardId>& cards = q.table.zone(stall)->cards;
        if (cards.size() < 2 || !q.table.card(cards[cards.size() - 2])->face_up) continue;
        if (same_rank(q.table, cards[cards.size() - 2], cards.back()))
          out.push_back({.kind = EditKind::move, .run = {cards[cards.size() - 2], 2}, .zone = sold});
      }
      return out;
    };
    const bool code = r.chance(0.5f);
    if (code) y.setup.consequences = {{.name = "sell", .follow = pairs}};
    if (!code) y.setup.consequences = {{.cards = 2, .link = rule::same_rank(), .to = y.sold}};
    const Deck& deck = y.setup.table.deck();
    std::vector<FaceId> faces = deck.faces();
    for (std::size_t i = 0; i < 20; ++i) {
      const FaceId face = faces[r.below(faces.size())];
      y.setup.table.create_card(y.stalls[r.below(y.stalls.size())],
                                {.face = face, .face_up = r.chance(0.8f)});
    }
    const PlayfieldOptions options{.window = {900, 700}};
    SavedGame game{.setup = y.setup, .log = {.options = options}};
    Playfield field(y.setup, options);
    field.set_recorder(game.recorder());
    Table bare = y.setup.table;
    const auto lie = [](const Table& table) {
      std::string out;
      for (const Zone& zone : table.zones()) {
        for (const CardId card : zone.cards)
          out += std::to_string(card.value) + (table.card(card)->face_up ? "+" : "-");
        out += "|";
      }
      return out;
    };
    for (int i = 0; i < 12; ++i) {
      const auto moves = legal_moves(bare, y.setup.rulebook());
      if (moves.empty()) break;
      const Move move = moves[r.below(moves.size())];
      const std::string before = lie(bare);
      RC_ASSERT(apply_move(bare, y.setup.rulebook(), move).verdict.allowed());
      RC_ASSERT(field.moves().make(move).allowed());
      RC_ASSERT(lie(field.table()) == lie(bare));
      RC_ASSERT(field.moves().undo().allowed());
      RC_ASSERT(lie(field.table()) == before);
      RC_ASSERT(field.moves().redo().allowed());
      RC_ASSERT(lie(field.table()) == lie(bare));
      field.advance_to(field.now() + 0.3);
    }
    // The log knows what the functions said: read again without them the game stands where it stood.
    const std::string saved = write_game(game, field);
    const auto again = parse_game(saved, "x");
    RC_ASSERT(again.has_value());
    RC_ASSERT(lie(again->field.table()) == lie(bare));
    RC_ASSERT(fingerprint(again->field) == fingerprint(field));
    const auto table = parse_table(write_table(y.setup), "y");
    RC_ASSERT(table.has_value());
    RC_ASSERT(table->unbound().size() == (code ? 1u : 0u));
    if (code) return;
    Table from_file = table->table;
    RC_ASSERT(table->consequences.size() == 1);
    RC_ASSERT(write_table(*table) == write_table(y.setup));
  });
}

TEST_CASE(
    "play: what follows from a move is told, flies, and leaves cards that wait for an answer where they "
    "are") {
  Yard y(3);
  y.setup.consequences = {{.cards = 2, .link = rule::same_rank(), .to = y.sold}};
  const CardId three = y.lay(y.stalls[0], "fern-3");
  const CardId other = y.lay(y.stalls[1], "reed-3");
  const CardId third = y.lay(y.stalls[2], "poppy-3");
  Hand h(y.setup, {.window = {900, 700}});
  REQUIRE(h.field.moves().make({.run = {other, 1}, .from = y.stalls[1], .to = y.stalls[0]}));
  h.settle();
  REQUIRE(h.count(EventKind::taken) == 1);
  CHECK(h.last(EventKind::taken)->card == three);
  CHECK(h.last(EventKind::taken)->count == 2);
  CHECK(h.cards("sold").size() == 2);
  h.field.moves().undo();
  CHECK(h.cards("sold").empty());
  // The game answers itself: what it allows later has its consequence then.
  h.field.moves().set_judge([](const Proposal&) -> std::optional<Verdict> { return std::nullopt; });
  REQUIRE(h.field.moves().make({.run = {third, 1}, .from = y.stalls[2], .to = y.stalls[0]}));
  CHECK(h.cards("sold").empty());
  h.field.edits().move({other, 1}, y.stalls[0]);
  CHECK(h.cards("sold").empty());  // an edit is no move
  REQUIRE(h.field.moves().answer(h.field.moves().waiting()[0].id, {}));
  CHECK(h.cards("sold").size() == 2);
}
