// Rules of numbers, of seats and turns, and moves of the game's own: on a bare table and on a playfield, with
// their refusals and sentences.
#include <algorithm>
#include <catch2/catch.hpp>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Two growers offer cards to a stall in turn. A card of the rank of the one below is a sale: the lower card
/// leaves the table, whoever sold has a point, and the other one is worn by one more. Twice a game the stall
/// may be dealt back to the growers.
struct Fair {
  TableSetup setup{glasshouse()};
  SeatId south = setup.table.create_seat("south");
  SeatId north = setup.table.create_seat("north");
  std::vector<ZoneId> hands;
  ZoneId stall;

  Fair() {
    for (const SeatId seat : {south, north}) {
      hands.push_back(setup.add(
          {.name = "hand-" + std::to_string(seat.value),
           .layout = {.kind = HandLayout{}, .longest = 30},
           .rules = {.pick = {.kind = PickKind::any, .when = rule::all({rule::on_turn(), rule::own_zone()})}},
           .seat = seat}));
    }
    stall = setup.add({.name = "stall",
                       .layout = {.kind = ColumnLayout{}, .longest = 40},
                       .rules = {.drop = rule::number({"worn", NumberOf::card}, Compared::at_most, 1)}});
    setup.panels = {
        {.name = "score",
         .kind = PanelKind::counter,
         .text = "{sold} of {wanted} sold, {redeals} left, {points of south} {cards of stall} {x}"}};
    setup.plans = {
        {.root = down({zone(hands[0]), zone(stall), zone(hands[1]), panel({1}, {.px = 300}, {.px = 30})})}};
    (void)setup.table.set_number("redeals", 2);
    (void)setup.table.set_number("sold", 0);
    (void)setup.table.set_number("wanted", 4);
    (void)setup.table.set_turn(std::vector{south});
    setup.won = goal::when(rule::number("sold", Compared::at_least, "wanted"));
    setup.named_moves = {{.name = "redeal", .when = rule::number("redeals", Compared::at_least, 1)}};
    setup.consequences = {{.name = "trade"}};
  }

  void bind() {
    setup.bind(
        "trade", FollowFunction([=, stall = stall, seats = std::vector{south, north}](
                                    const FollowQuestion& q) -> std::vector<Edit> {
          if (q.steps.empty() || q.steps.back().kind == MoveStep::Kind::turn_passed) return {};
          const SeatId now = q.table.turn()[0];
          const SeatId next = now == seats[0] ? seats[1] : seats[0];
          std::vector<Edit> out;
          const auto& cards = q.table.zone(stall)->cards;
          if (cards.size() > 1) {
            const CardId lower = cards[cards.size() - 2];
            const Deck& deck = q.table.deck();
            if (deck.rank_of(q.table.card(lower)->face) == deck.rank_of(q.table.card(cards.back())->face)) {
              out.push_back({.kind = EditKind::remove, .card = lower});
              out.push_back({.kind = EditKind::set_number,
                             .name = "points",
                             .value = q.table.number("points", now) + 1,
                             .seat = now});
              out.push_back(
                  {.kind = EditKind::set_number, .name = "sold", .value = q.table.number("sold") + 1});
              out.push_back({.kind = EditKind::set_number,
                             .card = cards.back(),
                             .name = "worn",
                             .value = q.table.number("worn", cards.back()) + 1});
            }
          }
          out.push_back({.kind = EditKind::set_turn, .seats = {next}});
          return out;
        }));
    setup.bind(
        "redeal", FollowFunction([stall = stall, hands = hands](const FollowQuestion& q) {
          std::vector<Edit> out{
              {.kind = EditKind::set_number, .name = "redeals", .value = q.table.number("redeals") - 1}};
          const auto& cards = q.table.zone(stall)->cards;
          for (std::size_t i = 0; i < cards.size(); ++i)
            out.push_back({.kind = EditKind::move, .run = {cards[i], 1}, .zone = hands[i % hands.size()]});
          return out;
        }));
  }
  CardId lay(ZoneId zone, const char* face) {
    return setup.table.create_card(zone, open_card(setup.table.deck(), face));
  }
  Move move(CardId card) const {
    return {.run = {card, 1}, .from = setup.table.card(card)->zone, .to = stall};
  }
};

}  // namespace

TEST_CASE("rules: who is on turn plays from zones of their own, whoever asks") {
  Fair f;
  const CardId own = f.lay(f.hands[0], "fern-1");
  const CardId other = f.lay(f.hands[1], "fern-2");
  Rulebook rules = f.setup.rulebook();
  const auto pick = [&](CardId card) { return judge_pick(f.setup.table, rules, card).verdict.reason; };
  // Nobody in particular plays: whoever is on turn does.
  CHECK(pick(own) == Reason::allowed);
  CHECK(pick(other) == Reason::not_own_zone);
  rules.seat = f.north;
  CHECK(pick(own) == Reason::not_on_turn);
  (void)f.setup.table.set_turn(std::vector{f.south, f.north});
  CHECK(pick(own) == Reason::not_own_zone);
  CHECK(pick(other) == Reason::allowed);
  (void)f.setup.table.set_turn({});
  rules.seat = {};
  CHECK(pick(own) == Reason::not_on_turn);
  CHECK(describe(judge_pick(f.setup.table, rules, own).verdict, f.setup.table) ==
        "It is another player's turn.");
}

TEST_CASE("rules: a number is compared with one that is stated, or with another, wherever it is") {
  Fair f;
  const CardId card = f.lay(f.hands[0], "fern-1");
  const CardId below = f.lay(f.stall, "fern-2");
  Table& table = f.setup.table;
  (void)table.set_number("worn", 2, card);
  (void)table.set_number("worn", 3, below);
  (void)table.set_number("room", 1, f.stall);
  (void)table.set_number("room", 7, f.hands[0]);
  (void)table.set_number("points", 5, f.south);
  const auto judge = [&](Rule rule, SeatId player = {}) {
    check(rule, table.deck());
    f.setup.rules_of(f.stall).drop = std::move(rule);
    Rulebook rules = f.setup.rulebook();
    rules.seat = player;
    // The same whether it is said why or only whether.
    const Verdict verdict = judge_drop(table, rules, {card, 1}, f.stall);
    if (!player) {
      const auto moves = legal_moves(table, rules);
      CHECK(std::count(moves.begin(), moves.end(), f.move(card)) == (verdict.allowed() ? 1 : 0));
    }
    return verdict;
  };
  using enum Compared;
  CHECK(judge(rule::number({"worn", NumberOf::card}, equal, 2)));
  CHECK(judge(rule::number({"worn", NumberOf::onto}, at_least, 3)));
  CHECK(judge(rule::number({"worn", NumberOf::onto}, at_least, {"worn", NumberOf::card})));
  CHECK(judge(rule::number({"room", NumberOf::zone}, at_most, 1)));
  CHECK(judge(rule::number({"room", NumberOf::from}, equal, 7)));
  CHECK(judge(rule::number({"cards", NumberOf::zone}, equal, 1)));
  CHECK(judge(rule::number({"cards", f.hands[0]}, equal, {"cards", NumberOf::from})));
  CHECK(judge(rule::number({"points", f.south}, equal, 5)));
  CHECK(judge(rule::number({"points", NumberOf::player}, equal, 5), f.south));
  CHECK(judge(rule::number({"points", NumberOf::player}, equal, 0), f.north));
  CHECK(judge(rule::number({"points", NumberOf::seat}, equal, 0)));  // the stall is nobody's
  CHECK(judge(rule::number("never set", equal, 0)));
  const Verdict low = judge(rule::number("redeals", at_least, 3));
  CHECK(low.reason == Reason::number_low);
  CHECK(describe(low, table) == "Redeals is 2, and at least 3 is asked for.");
  Phrases own = default_phrases();
  own.by_rule["redeals"] = "{card} waits for another deal: {found} of {wanted}.";
  CHECK(describe(low, table, own) == "Fern-1 waits for another deal: 2 of 3.");
  CHECK(judge(rule::number("redeals", at_most, 1)).reason == Reason::number_high);
  CHECK(judge(rule::number("redeals", equal, 1)).reason == Reason::number_differs);
  CHECK(judge(rule::negate(rule::number("redeals", equal, 2))).reason == Reason::negated);
}

TEST_CASE("rules: comparisons, goals and named moves that make no sense are refused") {
  Fair f;
  const Deck& deck = f.setup.table.deck();
  CHECK_THROWS_WITH(check(rule::number(3, Compared::equal, 3), deck),
                    "rule: the number that it compares has no name: one is expected");
  CHECK_THROWS_WITH(check(rule::number({"worn", CardId{1}}, Compared::equal, 3), deck),
                    Catch::Contains("number 'worn' of card 1"));
  CHECK_THROWS_AS(check(rule::number("a", Compared::equal, 1'000'000'001), deck), Error);
  CHECK_THROWS_AS(check(Rule{.kind = RuleKind::number}, deck), Error);
  CHECK_THROWS_WITH(check(goal::when(rule::rank_down()), f.setup.table),
                    Catch::Contains("asks about a card"));
  CHECK_THROWS_WITH(
      check(goal::when(rule::all({rule::number({"x", NumberOf::zone}, Compared::equal, 1)})), f.setup.table),
      Catch::Contains("asks about a card"));
  CHECK_NOTHROW(check(goal::when(rule::any({rule::on_turn(), rule::own("late")})), f.setup.table));
  for (const NumberOwner nobody : {NumberOwner(SeatId{3}), NumberOwner(ZoneId{99})}) {
    Fair other;
    other.setup.rules_of(other.stall).drop =
        rule::any({rule::number("worn", Compared::equal, {"points", nobody}), rule::nothing()});
    CHECK_THROWS_WITH(check(other.setup), Catch::Contains("number 'points' of zone"));
  }
  f.setup.named_moves = {{.name = "a"}, {.name = "a"}};
  CHECK_THROWS_WITH(check(f.setup), Catch::Contains("two named moves are called 'a'"));
  f.setup.named_moves = {{.name = ""}};
  CHECK_THROWS_WITH(check(f.setup), Catch::Contains("the name is empty"));
  f.setup.named_moves = {{.name = "a", .when = rule::own_zone()}};
  CHECK_THROWS_WITH(check(f.setup), Catch::Contains("named move 'a'"));
  f.setup.named_moves.assign(101, {.name = "a"});
  CHECK_THROWS_WITH(check(f.setup), Catch::Contains("at most 100"));
}

TEST_CASE(
    "rules: a named move is legal, made, followed and refused as others are, by a solver and a server") {
  Fair f;
  const CardId card = f.lay(f.stall, "fern-1");
  CHECK(f.setup.unbound() == std::vector<std::string>{"redeal", "trade"});
  CHECK(named_move(f.setup.table, f.setup.rulebook(), "redeal").verdict.reason == Reason::unbound);
  f.bind();
  CHECK(f.setup.unbound().empty());
  const Rulebook rules = f.setup.rulebook();
  const MoveVerdict redeal = named_move(f.setup.table, rules, "redeal");
  REQUIRE(redeal.verdict);
  CHECK(legal_moves(f.setup.table, rules) == std::vector<Move>{redeal.move});
  CHECK(any_legal_move(f.setup.table, rules));
  Table ahead = f.setup.table;
  const MoveReport report = apply_move(ahead, rules, redeal.move);
  REQUIRE(report.verdict);
  CHECK(report.steps.front() == MoveStep{.kind = MoveStep::Kind::played, .name = "redeal"});
  CHECK(report.steps.back().kind == MoveStep::Kind::turn_passed);
  CHECK(ahead.number("redeals") == 1);
  CHECK(ahead.card(card)->zone == f.hands[0]);
  CHECK(ahead.is_on_turn(f.north));
  REQUIRE(apply_move(ahead, rules, redeal.move).verdict);
  const Verdict over = apply_move(ahead, rules, redeal.move).verdict;
  CHECK(over.reason == Reason::number_low);
  CHECK(over.rule == "redeals");
  CHECK(standing_of(ahead, rules) == Standing::open);
  (void)ahead.set_turn(std::vector{f.north});
  CHECK(standing_of(ahead, rules) == Standing::stuck);  // the card is south's, and north is on turn
  CHECK(named_move(ahead, rules, "knock").verdict.reason == Reason::unknown_move);
  CHECK(judge_move(ahead, rules, {.kind = MoveKind::named, .named = 1}).reason == Reason::unknown_move);
  CHECK(judge_move(ahead, rules, {.kind = MoveKind::named}).reason == Reason::unknown_move);
}

TEST_CASE("play: a named move is told, undone, proposed to the game, and its panels say the numbers") {
  Fair f;
  f.bind();
  const CardId card = f.lay(f.stall, "fern-1");
  Hand h(f.setup, {.window = {900, 700}, .seat = f.south});
  const auto text = [&] { return h.field.frame().panels.at(0).text; };
  CHECK(text() == "0 of 4 sold, 2 left, {points of south} 1 {x}");
  REQUIRE(h.field.moves().make("redeal"));
  h.settle();
  REQUIRE(h.last(EventKind::played));
  CHECK(h.last(EventKind::played)->name == "redeal");
  CHECK(h.last(EventKind::played)->proposal == 1);
  REQUIRE(h.last(EventKind::counted));
  CHECK(h.last(EventKind::counted)->name == "redeals");
  CHECK(describe(*h.last(EventKind::turn_passed), h.field) == "It is the turn of north.");
  CHECK(h.cards("hand-1") == std::vector<CardId>{card});
  CHECK(text() == "0 of 4 sold, 1 left, {points of south} 0 {x}");
  // It is north's turn: south has nothing to do, and that is no news.
  CHECK(h.count(EventKind::no_moves) == 0);
  REQUIRE(h.field.moves().undo());
  CHECK(h.cards("hand-1").empty());
  CHECK(h.field.table().number("redeals") == 2);
  CHECK(h.field.table().is_on_turn(f.south));
  // The game answers itself, and says no; then its yes comes late.
  h.field.moves().set_judge([](const Proposal& p) -> std::optional<Verdict> {
    return p.move.kind == MoveKind::named && p.id == 2
               ? std::optional(Verdict{.reason = Reason::refused_by_game})
               : std::nullopt;
  });
  CHECK(h.field.moves().make("redeal").reason == Reason::refused_by_game);
  REQUIRE(h.field.moves().make("redeal"));
  CHECK(h.field.table().number("redeals") == 2);
  REQUIRE(h.field.moves().answer(3));
  CHECK(h.field.table().number("redeals") == 1);
  CHECK(h.field.moves().make("knock").reason == Reason::unknown_move);
  // Not bound, it is refused, and says what to do.
  Fair blank;
  Hand other(blank.setup);
  const Verdict unbound = other.field.moves().make("redeal");
  CHECK(describe(unbound, other.field) == "'redeal' has no function: bind(\"redeal\", …) gives it one.");
}

TEST_CASE("play: what the game counts itself belongs to the move before, and is told") {
  Fair f;
  f.bind();
  const CardId card = f.lay(f.hands[0], "fern-1");
  Hand h(f.setup, {.window = {900, 700}});
  REQUIRE(h.field.moves().make(f.move(card)));
  CHECK(h.field.table().is_on_turn(f.north));
  REQUIRE(h.field.edits().set_number("points", 5, f.south));
  REQUIRE(h.field.edits().set_number("worn", 3, card));
  REQUIRE(h.field.edits().set_turn(std::vector{f.south}));
  h.settle();
  CHECK(h.count(EventKind::counted) == 2);
  CHECK(h.last(EventKind::counted)->card == card);
  CHECK(h.count(EventKind::turn_passed) == 2);
  CHECK(h.field.frame().panels.at(0).text == "0 of 4 sold, 2 left, 5 1 {x}");
  CHECK(h.field.edits().set_number("worn", 3, CardId{77}).reason == Reason::unknown_card);
  CHECK(h.field.edits().set_turn(std::vector{SeatId{7}}).reason == Reason::unknown_seat);
  CHECK(h.field.edits().set_number("points", 2'000'000'000, f.south).reason == Reason::out_of_range);
  REQUIRE(h.field.moves().undo());
  CHECK(h.field.table().number("points", f.south) == 0);
  CHECK(h.field.table().number("worn", card) == 0);
  CHECK(h.field.table().is_on_turn(f.south));
  CHECK(h.cards("stall").empty());
}
