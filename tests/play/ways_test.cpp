// Ways of cards and what is asked and answered of them: when they leave, whether they have arrived, long
// presses, a server's last word.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>

#include "apsidon/files/saved_game.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE(
    "play: cards of a run that move leave by their order, by the way before them, and all within the "
    "longest") {
  for (const StaggerBy by : {StaggerBy::order, StaggerBy::distance}) {
    TableSetup setup(glasshouse());
    const std::vector<CardOptions> cards =
        some(setup.table.deck(), {"fern-9", "fern-8", "fern-7", "fern-6", "fern-5"});
    const ZoneId column = setup.add({.name = "column",
                                     .layout = {.kind = ColumnLayout{}, .longest = 9},
                                     .rules = {.pick = {.kind = PickKind::run, .link = rule::anything()}},
                                     .cards = cards});
    const ZoneId pile = setup.add({.name = "pile",
                                   .layout = {.kind = PileLayout{}, .longest = 9},
                                   .rules = {.drop = rule::anything()}});
    setup.plans = {{.root = across({zone(column), zone(pile)})}};
    Feel feel;
    feel.move.stagger = 0.5f;
    feel.move.longest = 1;
    feel.move.by = by;
    Hand h(setup, {.window = {1000, 700}, .feel = feel});
    const std::vector<CardId> run = h.cards("column");
    std::map<CardId, Vec2> before;
    for (const CardId card : run) before[card] = h.field.where().live_pose(card)->centre;
    const double began = h.field.now();
    REQUIRE(h.field.moves().make({.run = {run.front(), run.size()}, .from = column, .to = pile}));
    h.settle();
    std::map<CardId, double> left;
    for (const Event& event : h.told)
      if (event.kind == EventKind::landed)
        left[event.card] = event.time - began - double{feel.move.glide.seconds};
    REQUIRE(left.size() == run.size());
    const auto way = [&](CardId card) {
      return length(h.field.where().resting_pose(card)->centre - before[card]);
    };
    float farthest = 0;
    for (const CardId card : run) farthest = std::max(farthest, way(card));
    for (std::size_t i = 0; i < run.size(); ++i) {
      const double by_order = 0.25 * static_cast<double>(i);  // 0.5 s apart they would take longer than 1 s
      const double by_way = 0.5 * double{way(run[i]) / farthest};
      CHECK(left[run[i]] == Approx(by == StaggerBy::order ? by_order : by_way).margin(1e-3));
    }
  }
}

TEST_CASE("play: a server's yes asks the rules again, or is the last word") {
  for (const bool is_final : {false, true}) {
    Hand h(desk());
    h.field.moves().set_judge([](const Proposal&) -> std::optional<Verdict> { return std::nullopt; });
    const CardId card = h.cards("hand")[2];
    REQUIRE(h.field.moves().make({.run = {card, 1}, .from = h.zone("hand"), .to = h.zone("shelf"), .at = 0}));
    // Meanwhile the shelf takes nothing any more, and has a card.
    ZoneBehaviour shelf = h.field.where().behaviour(h.zone("shelf"));
    shelf.rules.drop = rule::nothing();
    REQUIRE(h.field.edits().set_behaviour(h.zone("shelf"), shelf));
    REQUIRE(h.field.edits().move({h.cards("hand")[5], 1}, h.zone("shelf")));
    const std::uint64_t proposal = h.field.moves().waiting()[0].id;
    const Verdict verdict = h.field.moves().answer(proposal, {}, is_final);
    CHECK(verdict.allowed() == is_final);
    CHECK(h.count(EventKind::superseded) == 0);
    h.settle();
    CHECK(h.count(EventKind::superseded) == (is_final ? 0 : 1));
    CHECK(h.cards("shelf").size() == (is_final ? 2 : 1));
    if (is_final) CHECK(h.cards("shelf").front() == card);
    if (is_final) CHECK(h.last(EventKind::dropped)->proposal == proposal);
    // What is gone is not brought back by any word.
    CHECK(h.field.moves().answer(proposal, {}, true).reason == Reason::unknown_proposal);
    if (!is_final) continue;
    REQUIRE(h.field.moves().undo());  // the server has to know
    REQUIRE(h.field.moves().answer(h.field.moves().waiting()[0].id));
    CHECK(h.cards("hand").size() == 9);
  }
}

TEST_CASE("play: what is pressed long is told when it is let go, and not when it was dragged") {
  for (const bool drags : {false, true}) {
    Hand h(desk());
    const CardId card = h.cards("hand")[0];
    h.point(PointerPhase::down, h.grip(card));
    h.wait(0.7);
    REQUIRE(h.count(EventKind::long_pressed) == 1);
    CHECK(h.count(EventKind::released) == 0);
    if (drags) h.point(PointerPhase::move, h.grip(card) + Vec2{60, 40});
    h.point(PointerPhase::up, h.grip(card) + (drags ? Vec2{60, 40} : Vec2{}));
    CHECK(h.count(EventKind::released) == (drags ? 0 : 1));
    CHECK(h.count(EventKind::tapped) == 0);
    if (!drags) CHECK(h.last(EventKind::released)->card == card);
  }
}

TEST_CASE(
    "play: a card is on its way from when it is sent until it has landed, and not while it is held or "
    "swells") {
  Hand h(desk(ZoneHandling{}));
  const CardId card = h.cards("hand")[0];
  const auto& where = h.field.where();
  CHECK_FALSE(where.on_its_way(card));
  CHECK_FALSE(where.on_its_way({999}));
  (void)h.field.performances().pulse(card);
  h.wait(0.05);
  CHECK_FALSE(where.on_its_way(card));
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.grip(card) + Vec2{90, 60});
  REQUIRE(h.field.hand().held().first == card);
  CHECK_FALSE(where.on_its_way(card));
  h.point(PointerPhase::up, h.grip(card) + Vec2{90, 60});
  CHECK(where.on_its_way(card));
  h.settle();
  CHECK_FALSE(where.on_its_way(card));
}

TEST_CASE("play: undo and redo are asked of the game where it has a judge, now, later, or by a log") {
  TableSetup setup = desk();
  const PlayfieldOptions options{.window = {1000, 700}};
  SavedGame game{.setup = setup, .log = {.options = options}};
  Hand h(setup, options);
  h.field.set_recorder(game.recorder());
  std::vector<MoveKind> asked;
  bool later = true;
  h.field.moves().set_judge([&](const Proposal& p) -> std::optional<Verdict> {
    if (p.move.kind == MoveKind::run) return Verdict{};
    asked.push_back(p.move.kind);
    return later ? std::nullopt : std::optional(Verdict{.reason = Reason::refused_by_game});
  });
  const auto moves = h.field.rules().legal_moves();
  REQUIRE_FALSE(moves.empty());
  CHECK(h.field.moves().undo().reason == Reason::nothing_to_undo);
  CHECK(asked.empty());
  REQUIRE(h.field.moves().make(moves[0]));
  const CardId card = moves[0].run.first;
  const auto lies = [&] { return h.field.table().card(card)->zone; };
  REQUIRE(h.field.moves().undo());
  CHECK(asked == std::vector<MoveKind>{MoveKind::undo});
  CHECK(lies() == moves[0].to);
  REQUIRE(h.field.moves().waiting().size() == 1);
  CHECK(h.field.moves().undo().reason == Reason::undo_forbidden);  // one at a time
  h.key(Key::undo);
  CHECK(h.field.moves().waiting().size() == 1);
  const std::uint64_t id = h.field.moves().waiting()[0].id;
  REQUIRE(h.field.moves().answer(id));
  CHECK(lies() == moves[0].from);
  h.settle();
  REQUIRE(h.last(EventKind::undone));
  CHECK(h.last(EventKind::undone)->proposal == id);
  // No, at once: it is told, and nothing changes.
  later = false;
  CHECK(h.field.moves().redo().reason == Reason::refused_by_game);
  CHECK(lies() == moves[0].from);
  h.wait(0.1);
  CHECK(h.count(EventKind::refused) == 1);
  // A key is the same; and what was changed meanwhile is not what was asked about.
  later = true;
  CHECK(h.key(Key::redo));
  REQUIRE(h.field.moves().waiting().size() == 1);
  REQUIRE(h.field.edits().flip(card, !h.field.table().card(card)->face_up));
  h.wait(0.1);
  CHECK(h.field.moves().waiting().empty());
  CHECK(h.count(EventKind::superseded) == 1);
  h.settle();
  const auto again = parse_game(write_game(game, h.field), "x");  // nobody is asked
  REQUIRE(again);
  CHECK(fingerprint(again->field) == fingerprint(h.field));
}
