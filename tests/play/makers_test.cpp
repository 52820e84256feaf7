// One kind of move: the same comes of it, is told and is undone, whoever makes it.
#include <algorithm>
#include <catch2/catch.hpp>
#include <functional>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A column whose top card fits a bed, above a covered one; a stock.
TableSetup garden() {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  ZoneSetup column{.name = "column",
                   .layout = {.kind = ColumnLayout{}, .longest = 5},
                   .rules = {.pick = {.kind = PickKind::top}, .flips_uncovered = true},
                   .handling = {.tap = TapKind::send, .double_tap = TapKind::none}};
  column.cards = {{.face = *deck.find("poppy-9"), .face_up = false}, {.face = *deck.find("fern-1")}};
  ZoneSetup stock{
      .name = "stock", .layout = {.kind = PileLayout{}, .longest = 5}, .handling = {.tap = TapKind::draw}};
  stock.cards = {{.face = *deck.find("reed-4"), .face_up = false},
                 {.face = *deck.find("reed-5"), .face_up = false}};
  const ZoneId c = setup.add(column);
  const ZoneId b = setup.add({.name = "bed", .rules = {.drop = rule::rank_on_empty(0)}});
  const ZoneId s = setup.add(stock);
  const ZoneId w = setup.add({.name = "waste",
                              .layout = {.kind = PileLayout{}, .longest = 5},
                              .rules = {.pick = {.kind = PickKind::top}}});
  setup.rules_of(s).stock = StockRule{.to = w};
  setup.plans = {{.root = across({zone(c), zone(b), zone(s), zone(w)})}};
  return setup;
}

/// What a maker's own input tells beside the move.
std::string told(const Hand& h) {
  std::string out;
  for (const Event& e : h.told) {
    if (e.kind == EventKind::tapped || e.kind == EventKind::focused || e.kind == EventKind::hovered ||
        e.kind == EventKind::unhovered)
      continue;
    out += std::string(name_of(e.kind)) + " ";
  }
  return out;
}

}  // namespace

TEST_CASE(
    "play: a run is moved the same by hand, by keys, by a tap, from the list of legal moves and by a call") {
  const std::function<void(Hand&)> makers[] = {
      [](Hand& h) { h.drag(h.middle(h.cards("column")[1]), h.middle("bed")); },
      [](Hand& h) { h.tap(h.middle(h.cards("column")[1])); },
      [](Hand& h) { CHECK(h.field.moves().make(h.field.rules().legal_moves().front()).allowed()); },
      [](Hand& h) { CHECK(h.field.moves().send_to_best(h.cards("column")[1]).allowed()); },
      [](Hand& h) {
        CHECK(h.field.moves().make({.run = {h.cards("column")[1], 1}, .from = {1}, .to = {2}}).allowed());
      },
      [](Hand& h) {
        while (h.field.hand().focused().card != h.cards("column")[1]) h.key(Key::next);
        h.key(Key::act);  // taps, which sends
      }};
  for (const auto& make : makers) {
    Hand h(garden());
    make(h);
    h.settle();
    CHECK(told(h) == "picked-up proposed dropped flipped edge-on arrived landed settled ");
    CHECK(h.faces("bed") == "fern-1");
    CHECK(h.field.table().card(h.cards("column")[0])->face_up);
    CHECK(h.last(EventKind::dropped)->card == h.cards("bed")[0]);
    // One step of undo, with what followed.
    CHECK(h.field.moves().undo().allowed());
    CHECK_FALSE(h.field.table().card(h.cards("column")[0])->face_up);
    CHECK(h.cards("bed").empty());
    CHECK_FALSE(h.field.moves().can_undo());
  }
}

TEST_CASE("play: a stock gives the same at a tap, from the list of legal moves and by a call") {
  const std::function<void(Hand&)> makers[] = {
      [](Hand& h) { h.tap(h.middle("stock")); },
      [](Hand& h) { CHECK(h.field.moves().draw_from(h.zone("stock")).allowed()); },
      [](Hand& h) {
        const auto moves = h.field.rules().legal_moves();
        const auto draw =
            std::find_if(moves.begin(), moves.end(), [](const Move& m) { return m.kind == MoveKind::draw; });
        REQUIRE(draw != moves.end());
        CHECK(h.field.moves().make(*draw).allowed());
      }};
  for (const auto& make : makers) {
    Hand h(garden());
    make(h);
    h.settle();
    CHECK(told(h) == "proposed drawn began departed edge-on arrived landed ended settled ");
    CHECK(h.faces("waste") == "reed-5");
    CHECK(h.field.moves().undo().allowed());
    CHECK(h.cards("waste").empty());
  }
}

TEST_CASE("play: a move that may not be made tells why and shakes the card, whoever makes it") {
  const std::function<void(Hand&)> makers[] = {
      [](Hand& h) { h.drag(h.middle(h.cards("column")[1]), h.middle("waste")); },
      [](Hand& h) {
        CHECK(h.field.moves().make({.run = {h.cards("column")[1], 1}, .from = {1}, .to = {4}}).reason ==
              Reason::drop_nothing);
      }};
  for (const auto& make : makers) {
    Hand h(garden());
    make(h);
    h.wait(0.05);
    CHECK(told(h) == "picked-up proposed refused ");
    CHECK(h.last(EventKind::refused)->verdict.reason == Reason::drop_nothing);
    const auto& items = h.field.frame().items;
    CHECK(std::any_of(items.begin(), items.end(), [](const FrameItem& i) { return i.marks.refused; }));
  }
  Hand covered(garden());
  CHECK(covered.field.moves().make({.run = {covered.cards("column")[0], 1}, .from = {1}, .to = {2}}).reason ==
        Reason::face_down);
  covered.wait(0);
  CHECK(told(covered) == "pick-refused ");
  CHECK(covered.field.moves().make({.run = {{99}, 1}, .from = {1}, .to = {2}}).reason ==
        Reason::unknown_card);
}

TEST_CASE("play: what is recycled has its place in the stock at once") {
  Hand h(garden());
  for (int i = 0; i < 2; ++i)
    CHECK(h.field.moves()
              .make({.kind = MoveKind::draw, .from = h.zone("stock"), .to = h.zone("waste")})
              .allowed());
  h.settle();
  REQUIRE(h.cards("waste").size() == 2);
  CHECK(h.field.moves()
            .make({.kind = MoveKind::recycle, .from = h.zone("waste"), .to = h.zone("stock")})
            .allowed());
  REQUIRE(h.cards("stock").size() == 2);
  for (const CardId card : h.cards("stock"))
    CHECK(h.field.where().area(h.zone("stock"))->contains(h.field.where().resting_pose(card)->centre));
}

TEST_CASE(
    "play: a draw that the game answers later waits with its cards locked, and nothing disagrees about "
    "that") {
  Hand h(garden());
  h.field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>{}; });
  h.tap(h.middle("stock"));
  REQUIRE(h.field.moves().waiting().size() == 1);
  CHECK(h.field.rules().judge_stock(h.zone("stock")).reason == Reason::locked);
  for (const Move& move : h.field.rules().legal_moves()) CHECK(move.kind == MoveKind::run);
  CHECK(h.cards("waste").empty());
  CHECK(h.field.moves().answer(h.field.moves().waiting()[0].id).allowed());
  h.settle();
  CHECK(h.faces("waste") == "reed-5");
  h.tap(h.middle("stock"));
  (void)h.field.edits().move({h.cards("stock")[0], 1}, h.zone("bed"));
  h.wait(0.1);
  CHECK(h.count(EventKind::superseded) == 1);  // what was to be drawn is elsewhere
  CHECK(h.field.moves().waiting().empty());
}

TEST_CASE("play: a move by call puts back what is in the hand of its cards, and leaves another drag alone") {
  Hand h(desk(), {.window = {1000, 700}, .drag = {.several = true}});
  const CardId held = h.cards("hand")[0];
  h.point(PointerPhase::down, h.grip(held));
  h.point(PointerPhase::move, h.middle("meadow"));
  REQUIRE(h.field.hand().held().first == held);
  CHECK(h.field.moves()
            .make({.run = {h.cards("slot")[0], 1}, .from = h.zone("slot"), .to = h.zone("shelf")})
            .allowed());
  CHECK(h.field.hand().held().first == held);
  CHECK(h.field.moves()
            .make({.run = {held, 1}, .from = h.zone("hand"), .to = h.zone("shelf"), .at = 0})
            .allowed());
  h.settle();
  CHECK(h.count(EventKind::cancelled) == 1);
  CHECK(h.faces("shelf") == "fern-1 poppy-9");
  // A draw leaves the hand alone, too.
  Hand g(garden());
  const CardId grown = g.cards("column").back();
  g.point(PointerPhase::down, g.middle(grown));
  g.point(PointerPhase::move, g.middle("bed"));
  REQUIRE(g.field.hand().held().first == grown);
  CHECK(g.field.moves()
            .make({.kind = MoveKind::draw, .from = g.zone("stock"), .to = g.zone("waste")})
            .allowed());
  CHECK(g.field.hand().held().first == grown);
  CHECK(g.faces("waste") == "reed-5");
}

TEST_CASE("play: the game's own edits are complete, and none of them is judged") {
  Hand h(desk());
  const CardId slot = h.cards("slot")[0];
  const CardId first = h.cards("hand")[0];
  CHECK(h.field.edits().swap(slot, first).allowed());
  CHECK(h.faces("slot") == "fern-1");
  CHECK(h.field.edits().move({h.cards("hand")[9], 1}, h.zone("hand"), 0).allowed());
  CHECK(h.faces("hand").starts_with("fern-10 poppy-9 fern-2"));
  CHECK(h.field.edits().cut(h.zone("hand"), 2).allowed());
  CHECK(h.faces("hand").starts_with("fern-8 fern-9 fern-10"));
  CHECK(h.field.edits().shuffle(h.zone("hand"), 5).allowed());
  const std::string shuffled = h.faces("hand");
  Hand other(desk());
  CHECK(other.field.edits().shuffle(other.zone("hand"), 5).allowed());
  CHECK(shuffled != h.faces("slot"));
  const Outcome made = h.field.edits().create(h.zone("meadow"), {.face = {7}, .key = 70});
  CHECK(made.verdict.allowed());
  CHECK(h.field.table().card(made.card)->zone == h.zone("meadow"));
  CHECK(h.field.edits().create(h.zone("meadow"), {.face = {7}, .key = 70}).verdict.reason ==
        Reason::repeated_key);
  CHECK(h.field.edits().create({99}, {}).verdict.reason == Reason::unknown_zone);
  CHECK(h.field.edits().create(h.zone("meadow"), {.face = {9999}}).verdict.reason == Reason::unknown_face);
  CHECK(h.field.edits().conceal(h.zone("hand")).allowed());
  CHECK(h.faces("hand").starts_with("hidden hidden"));
  CHECK(h.field.edits().swap(slot, {99}).reason == Reason::unknown_card);
  h.settle();
  CHECK(h.count(EventKind::pick_refused) + h.count(EventKind::refused) == 0);
}

TEST_CASE("play: events wait to be read, however late, and are lost only beyond the limit") {
  Hand h(garden());
  CHECK(h.field.moves().send_to_best(h.cards("column")[1]).allowed());
  h.field.advance_to(30);
  h.field.advance_to(60);
  (void)h.field.frame();
  h.wait(0);
  CHECK(told(h) == "picked-up proposed dropped flipped edge-on arrived landed settled ");
  CHECK(h.field.count_of(NoticeKind::lost_event) == 0);
}

TEST_CASE("play: of a batch of inputs it is said at once which would be used") {
  Hand h(garden());
  Playfield& field = h.field;
  const Vec2 card = h.middle(h.cards("column")[1]);
  const auto point = [&](PointerPhase phase, Vec2 at, double time) {
    return field.pointer({.phase = phase, .at = at, .time = time});
  };
  CHECK_FALSE(point(PointerPhase::move, card, 0.1));
  CHECK(point(PointerPhase::down, card, 0.2));
  CHECK(point(PointerPhase::move, {1, 1}, 0.3));
  CHECK(point(PointerPhase::up, {1, 1}, 0.4));
  CHECK_FALSE(point(PointerPhase::move, card, 0.5));
  CHECK_FALSE(point(PointerPhase::down, {1, 1}, 0.6));  // nothing lies there
  CHECK_FALSE(point(PointerPhase::up, {1, 1}, 0.7));
  CHECK(h.told.empty());  // none was taken yet
  CHECK(field.now() == 0);
  h.wait(1);
  CHECK(h.count(EventKind::picked_up) == 1);
  CHECK_FALSE(field.key({.key = Key::undo, .time = 1.1}));
  CHECK(field.key({.key = Key::next, .time = 1.2}));
  CHECK(field.key({.key = Key::act, .time = 1.3}));  // what keys before it will have done
  CHECK(point(PointerPhase::down, card, 1.4));
  field.gate().close("menu");
  CHECK_FALSE(point(PointerPhase::up, card, 1.5));
  CHECK_FALSE(field.key({.key = Key::next, .time = 1.6}));
}

TEST_CASE("play: late inputs count as of now, and inputs out of order within a frame are put in order") {
  Hand h(garden());
  std::vector<double> times;
  h.field.set_recorder([&](const Input& input) { times.push_back(time_of(input)); });
  h.wait(2);
  (void)h.field.key({.key = Key::next, .time = 1});
  (void)h.field.key({.key = Key::next, .time = 3});
  (void)h.field.key({.key = Key::act, .time = 2.5});
  h.wait(2);
  CHECK(times == std::vector<double>{2, 2.5, 3});
}
