// Moves as values: where a card goes by itself, what a move does, faces that nobody holds, goals, files.
#include <algorithm>
#include <catch2/catch.hpp>

#include "apsidon/files/table_file.hpp"
#include "cards/inside.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A column that takes anything lower of its colour, a bed that begins with the lowest, a pot, a stock.
struct ValuesBench {
  TableSetup setup{glasshouse()};
  ZoneId column, bed, pot, stock, waste;

  ValuesBench() {
    const Rule linked = rule::all({rule::same_colour(), rule::rank_down()});
    column = setup.add({.name = "column",
                        .layout = {.kind = ColumnLayout{}, .longest = 9},
                        .rules = {.pick = {.kind = PickKind::run, .link = linked},
                                  .drop = rule::any({linked, rule::on_empty()}),
                                  .flips_uncovered = true}});
    bed = setup.add({.name = "bed-1",
                     .rules = {.pick = {.kind = PickKind::top},
                               .drop = rule::any({rule::rank_on_empty(0),
                                                  rule::all({rule::same_suit(), rule::rank_up()})})}});
    pot = setup.add({.name = "pot", .rules = {.pick = {.kind = PickKind::top}, .drop = rule::on_empty()}});
    stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 9}});
    waste = setup.add({.name = "waste",
                       .layout = {.kind = PileLayout{}, .longest = 9},
                       .rules = {.pick = {.kind = PickKind::top}}});
    setup.rules_of(stock).stock = StockRule{.to = waste, .gives = {2}};
    setup.plans = {{.root = across({zone(column), zone(bed), zone(pot), zone(stock), zone(waste)})}};
  }
  CardId lay(ZoneId zone, const char* face, bool face_up = true) {
    return setup.table.create_card(zone, {.face = *setup.table.deck().find(face), .face_up = face_up});
  }
};

}  // namespace

TEST_CASE("rules: cards of a trick lie toward the seats that played them, played, waiting and taken back") {
  TableSetup setup(glasshouse());
  const ZoneId hand =
      setup.add({.name = "hand", .layout = {.longest = 9}, .rules = {.pick = {.kind = PickKind::any}}});
  const ZoneId trick =
      setup.add({.name = "trick",
                 .layout = {.kind = RingLayout{.start = 180_deg, .turned = false, .cells = 4}, .longest = 4},
                 .rules = {.drop = rule::anything(), .lays_by_seat = true}});
  std::vector<SeatId> seats;
  for (const char* name : {"south", "west", "north", "east"}) seats.push_back(setup.table.create_seat(name));
  for (std::uint32_t i = 1; i <= 6; ++i) setup.table.create_card(hand, {.face = {i}});
  setup.plans = {{.root = across({zone(hand, 1), zone(trick, 1)})}};
  const auto card_of = [&](const Table& table, std::size_t i) { return table.zone(trick)->cards[i]; };
  const auto play = [&](const Table& table, std::size_t seat) {
    return Move{.seat = seats[seat], .run = {table.zone(hand)->cards[0], 1}, .from = hand, .to = trick};
  };
  Table table = setup.table;
  REQUIRE(table.set_turn(std::vector{seats[3]}));
  for (const std::size_t seat : {2u, 3u, 0u})
    REQUIRE(apply_move(table, setup.rulebook(), play(table, seat)).verdict);
  Move nobody = play(table, 0);
  nobody.seat = {};
  REQUIRE(apply_move(table, setup.rulebook(), nobody).verdict);  // whoever is on turn
  for (const auto& [i, cell] : std::vector<std::pair<std::size_t, int>>{{0, 2}, {1, 3}, {2, 0}, {3, 3}})
    CHECK(table.card(card_of(table, i))->cell == cell);

  Playfield field(setup, {.window = {1200, 700}, .seat = seats[0]});
  const Vec2 middle = field.where().area(trick)->centre();
  const auto next = field.where().next_pose(trick);
  field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>(); });
  REQUIRE(field.moves().make(play(field.table(), 1)));  // waits for its answer
  const CardId west = field.moves().waiting()[0].move.run.first;
  const auto shown_at = [&](double time) {
    while (field.next_event(time)) {
    }
    return *field.where().live_pose(west);
  };
  const Pose waiting = shown_at(5);
  REQUIRE(field.moves().answer(field.moves().waiting()[0].id));
  CHECK(shown_at(10).centre == waiting.centre);
  CHECK(waiting.centre.x < middle.x - 10);
  CHECK(std::abs(waiting.centre.y - middle.y) < 2);
  REQUIRE(field.moves().make(play(field.table(), 0)));
  REQUIRE(field.moves().answer(field.moves().waiting()[0].id));
  const Pose south = *field.where().neutral_pose(card_of(field.table(), 1));
  CHECK(south.centre == next->centre);
  CHECK(south.centre.y > middle.y + 10);
  const CardId last = card_of(field.table(), 1);
  field.moves().set_judge({});
  REQUIRE(field.moves().undo());
  CHECK(field.table().card(last)->zone == hand);
  CHECK(field.table().card(last)->cell == -1);
}

TEST_CASE("rules: a card goes by itself to where its rank begins, or to where its zone says") {
  ValuesBench b;
  b.lay(b.column, "reed-2");
  const CardId lowest = b.lay(b.pot, "fern-1");
  // It would fit onto the column, too, which comes first on the table.
  CHECK(judge_drop(b.setup.table, b.setup.rulebook(), {lowest, 1}, b.column).allowed());
  CHECK(best_move(b.setup.table, b.setup.rulebook(), lowest).move.to == b.bed);
  b.setup.rules_of(b.pot).sends_to = {b.waste, b.column};
  CHECK(best_move(b.setup.table, b.setup.rulebook(), lowest).move.to == b.column);
  const CardId covered = b.lay(b.stock, "fern-9", false);
  CHECK(best_move(b.setup.table, b.setup.rulebook(), covered).verdict.reason == Reason::pick_nothing);
  CHECK_THROWS_AS((b.setup.rules_of(b.pot).sends_to = {{99}}, check(b.setup)), Error);
}

TEST_CASE("rules: a move is made whole with all that follows, or refused and nothing is") {
  ValuesBench b;
  b.lay(b.column, "poppy-9", false);
  const CardId four = b.lay(b.column, "fern-4");
  const CardId three = b.lay(b.column, "reed-3");
  const Rulebook rules = b.setup.rulebook();
  Table& table = b.setup.table;
  const Move whole{.run = {four, 2}, .from = b.column, .to = b.pot};
  CHECK(judge_move(table, rules, {.run = {four, 1}, .from = b.column, .to = b.pot}).reason ==
        Reason::other_run);
  CHECK(describe(judge_move(table, rules, {.run = {four, 1}, .from = b.column, .to = b.pot}), table) ==
        "From fern-4 on, 2 cards are picked up together in column, not 1.");
  CHECK(judge_move(table, rules, {.run = {four, 2}, .from = b.bed, .to = b.pot}).reason == Reason::other_run);
  CHECK(judge_move(table, rules, {.run = {four, 2}, .from = b.column, .to = b.pot, .at = 3}).reason ==
        Reason::unknown_index);
  Rulebook locked = rules;
  locked.locked = {&three, 1};
  CHECK(judge_move(table, locked, whole).reason == Reason::locked);
  CHECK(legal_moves(table, locked).empty());
  const MoveReport report = apply_move(table, rules, whole);
  CHECK(report.verdict.allowed());
  REQUIRE(report.steps.size() == 2);
  CHECK(report.steps[0] == MoveStep{.card = four, .count = 2, .from = b.column, .to = b.pot});
  CHECK(report.steps[1].kind == MoveStep::Kind::flipped);
  CHECK(table.zone(b.pot)->cards == std::vector<CardId>{four, three});
  CHECK(apply_move(table, rules, whole).steps.empty());
}

TEST_CASE("rules: a zone that takes by itself takes from the zones that it says, and from no other") {
  for (const bool from_waste_only : {false, true}) {
    ValuesBench b;
    b.lay(b.waste, "poppy-1");
    b.lay(b.column, "poppy-2");
    const CardId any = b.lay(b.pot, "reed-1");
    b.setup.rules_of(b.bed).takes_itself = true;
    if (from_waste_only) b.setup.rules_of(b.bed).takes_from = {b.waste};
    check(b.setup);
    const MoveReport report =
        apply_move(b.setup.table, b.setup.rulebook(), {.run = {any, 1}, .from = b.pot, .to = b.column});
    REQUIRE(report.verdict.allowed() == false);  // of another colour: nothing follows
    CHECK(b.setup.table.zone(b.bed)->cards.empty());
    b.setup.rules_of(b.column).drop = rule::anything();
    b.setup.rules_of(b.waste).drop = rule::anything();
    CHECK(apply_move(b.setup.table, b.setup.rulebook(), {.run = {any, 1}, .from = b.pot, .to = b.stock})
              .verdict.reason == Reason::drop_nothing);
    b.setup.rules_of(b.stock).drop = rule::anything();
    REQUIRE(apply_move(b.setup.table, b.setup.rulebook(), {.run = {any, 1}, .from = b.pot, .to = b.stock})
                .verdict);
    CHECK(b.setup.table.zone(b.bed)->cards.size() == (from_waste_only ? 1 : 2));
    CHECK(b.setup.table.zone(b.column)->cards.size() == (from_waste_only ? 1 : 0));
  }
  ValuesBench b;
  b.setup.rules_of(b.bed).takes_from = {b.waste};
  CHECK_THROWS_WITH(check(b.setup), Catch::Contains("takes_from without takes_itself"));
  b.setup.rules_of(b.bed).takes_itself = true;
  b.setup.rules_of(b.bed).takes_from = {{99}};
  CHECK_THROWS_WITH(check(b.setup), Catch::Contains("taken from zone 99"));
}

TEST_CASE("rules: a stock is drawn from and recycled by moves, each only when it is the time for it") {
  ValuesBench b;
  for (const char* face : {"fern-5", "fern-6", "fern-7"}) b.lay(b.stock, face, false);
  Table& table = b.setup.table;
  const Rulebook rules = b.setup.rulebook();
  const Move draw{.kind = MoveKind::draw, .from = b.stock, .to = b.waste};
  const Move back{.kind = MoveKind::recycle, .from = b.waste, .to = b.stock};
  CHECK(judge_move(table, rules, back).reason == Reason::not_empty);
  CHECK(apply_move(table, rules, draw).steps.front().count == 2);
  CHECK(apply_move(table, rules, draw).steps.back().kind == MoveStep::Kind::emptied);
  CHECK(judge_move(table, rules, draw).reason == Reason::empty_zone);
  CHECK(stock_move(table, rules, b.stock).move == back);
  CHECK(judge_move(table, rules, {.kind = MoveKind::draw, .from = b.waste, .to = b.stock}).reason ==
        Reason::no_stock);
  CHECK(apply_move(table, rules, back).verdict.allowed());
  CHECK(table.zone(b.stock)->cards.size() == 3);
}

TEST_CASE(
    "rules: a zone is asked about a face that nobody holds, and says of the face what it says of a card") {
  ValuesBench b;
  b.lay(b.column, "reed-5");
  const Deck& deck = b.setup.table.deck();
  const Rulebook rules = b.setup.rulebook();
  CHECK(judge_face(b.setup.table, rules, *deck.find("fern-4"), b.column).allowed());
  const Verdict no = judge_face(b.setup.table, rules, *deck.find("fern-7"), b.column);
  CHECK(no.reason == Reason::not_rank_down);
  CHECK(describe(no, b.setup.table) == "Fern-7 is not one rank below reed-5, as column builds down.");
  CHECK(judge_face(b.setup.table, rules, hidden_face, b.column).reason == Reason::unknown_face);
  CHECK(judge_face(b.setup.table, rules, *deck.find("fern-4"), {77}).reason == Reason::unknown_zone);
  for (const FaceId face : deck.faces()) {
    Table with = b.setup.table;
    const CardId card = with.create_card(b.pot, {.face = face});
    for (const ZoneId zone : {b.column, b.bed}) {
      CHECK(judge_face(b.setup.table, rules, face, zone).reason ==
            judge_drop(with, rules, {card, 1}, zone).reason);
    }
  }
}

TEST_CASE("rules: a game is won, lost, stuck or open, by where cards lie or by the game's own word") {
  ValuesBench b;
  b.setup.won = goal::all_in({b.bed});
  b.setup.lost = goal::filled({b.pot});
  Table& table = b.setup.table;
  CHECK(standing_of(table, b.setup.rulebook()) == Standing::stuck);  // no cards are not all cards
  const CardId card = b.lay(b.column, "fern-1");
  CHECK(standing_of(table, b.setup.rulebook()) == Standing::open);
  CHECK(table.move({card, 1}, b.pot).allowed());
  CHECK(standing_of(table, b.setup.rulebook()) == Standing::lost);
  CHECK(table.move({card, 1}, b.bed).allowed());
  CHECK(standing_of(table, b.setup.rulebook()) == Standing::won);
  b.setup.won =
      goal::when(rule::own("never", [](const RuleQuestion& q) { return q.answer(Reason::own_rule); }));
  b.setup.lost = goal::empty({b.pot, b.column});
  CHECK(standing_of(table, b.setup.rulebook()) == Standing::lost);
  CHECK_THROWS_WITH(check(goal::filled({}), table), "goal: it names no zones: at least one is expected");
  CHECK_THROWS_WITH(check(goal::empty({{42}}), table),
                    "goal: it names zone 42: a zone of the table is expected");
  CHECK_THROWS_AS(check(goal::when(rule::own("")), table), Error);
}

TEST_CASE(
    "files: rules and goals in code are named in a table file, and refuse where the game does not run") {
  ValuesBench b;
  b.setup.rules_of(b.pot).drop = rule::own("only at night", [](const RuleQuestion&) { return Verdict{}; });
  b.setup.rules_of(b.pot).sends_to = {b.bed};
  b.setup.won = goal::when(rule::own("enough"));
  b.setup.lost = goal::all_in({b.pot, b.waste});
  b.lay(b.column, "fern-3");
  const CardId gone = b.lay(b.waste, "fern-4");
  b.lay(b.bed, "fern-5");
  CHECK(b.setup.table.remove(gone).allowed());
  const auto read = parse_table(write_table(b.setup), "x");
  REQUIRE(read);
  CHECK(write_table(*read) == write_table(b.setup));
  CHECK(read->rules_of(b.pot).drop.own()->name == "only at night");
  CHECK(read->rules_of(b.pot).sends_to == std::vector<ZoneId>{b.bed});
  // Cards keep their numbers, and none is given out again.
  CHECK(read->table.zone(b.bed)->cards == b.setup.table.zone(b.bed)->cards);
  CHECK(read->table.last_id() == b.setup.table.last_id());
  const CardId card = read->table.zone(b.column)->cards.front();
  CHECK(judge_drop(read->table, read->rulebook(), {card, 1}, b.pot).reason == Reason::unbound);
  CHECK_FALSE(reached(read->won, read->table, read->rulebook()));
  Table table = b.setup.table;
  CHECK_THROWS_AS(cards_detail::give_ids(table, std::vector<CardId>{{1}, {1}}, {5}), Error);
  CHECK_THROWS_AS(cards_detail::give_ids(table, std::vector<CardId>{{1}, {9}}, {5}), Error);
  CHECK_THROWS_AS(cards_detail::give_ids(table, std::vector<CardId>{{1}}, {5}), Error);
}
