// Cards opened by taps, compared, and what undo makes of that.
#include <algorithm>
#include <catch2/catch.hpp>

#include "support/loop.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Four covered cards on a grid, two sets of two: 1 and 2 belong together, 3 and 4.
struct Pairs {
  Playfield field;
  ZoneId grid;

  Pairs() : field(setup(), {.window = {600, 400}}), grid(*field.table().find_zone("grid")) {}

  static TableSetup setup() {
    DeckOptions options{.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3", "4"}};
    options.sets = {{.faces = {"fern-1", "fern-2"}}, {.faces = {"fern-3", "fern-4"}}};
    TableSetup setup{Deck(options)};
    std::vector<CardOptions> cards;
    for (std::uint32_t face = 1; face <= 4; ++face) cards.push_back({.face = {face}, .face_up = false});
    const ZoneHandling handling{.tap = TapKind::flip};
    const ZoneId basket = setup.add({.name = "basket", .rules = {.drop = rule::anything()}});
    const ZoneId grid = setup.add(
        {.name = "grid",
         .layout = {.kind = GridLayout{.columns = 2}, .longest = 4},
         .rules = {.flip = rule::anything(), .match = MatchRule{.open = 2, .to = basket, .seconds = 0.5}},
         .handling = handling,
         .cards = cards});
    setup.plans = {{.root = across({zone(grid, 1), zone(basket)})}};
    return setup;
  }
  /// By its number in the beginning.
  static CardId card(std::uint32_t i) { return {i}; }

  int go(double seconds, EventKind kind) {
    return count_of(kind, events_until(field, field.now() + seconds));
  }
  void tap(std::uint32_t i) {
    const Vec2 at = field.where().resting_pose(card(i))->centre;
    for (const PointerPhase phase : {PointerPhase::down, PointerPhase::up}) {
      send(field, PointerInput{.phase = phase, .at = at, .time = field.now() + 0.02});
    }
  }
  bool open(std::uint32_t i) const { return field.table().card(card(i))->face_up; }
};

}  // namespace

TEST_CASE("play: matching: what lies open after an undo is compared with what is opened next") {
  Pairs p;
  p.tap(1);
  p.tap(3);
  CHECK(p.field.gate().closed_for("comparing"));
  CHECK(p.go(1, EventKind::unmatched) == 1);
  CHECK_FALSE(p.open(1));
  CHECK_FALSE(p.open(3));
  // The second card and the covering of both were one move.
  CHECK(p.field.moves().undo());
  CHECK(p.open(1));
  CHECK_FALSE(p.open(3));
  p.tap(2);
  CHECK(p.field.gate().closed_for("comparing"));
  CHECK(p.go(1, EventKind::matched) == 1);
  CHECK(p.field.table().zone(p.grid)->cards.size() == 2);
}

TEST_CASE("play: matching: a table at which cards are compared settles when they have been") {
  Pairs p;
  p.tap(1);
  p.tap(3);
  (void)p.go(0.35, EventKind::unmatched);
  const double settles = p.field.time().settles_at();
  CHECK(settles > p.field.now() + 0.1);
  CHECK(p.go(settles - p.field.now() + 0.01, EventKind::unmatched) == 1);
  CHECK(p.field.time().at_rest());
}

TEST_CASE("play: matching: an undo and a redo while two are compared begin the comparing anew") {
  Pairs p;
  p.tap(1);
  p.tap(2);
  CHECK(p.field.moves().undo());
  CHECK(p.field.gate().is_open());
  CHECK(p.go(1, EventKind::matched) == 0);
  CHECK(p.open(1));
  CHECK(p.field.moves().redo());
  CHECK(p.field.gate().closed_for("comparing"));
  CHECK(p.go(1, EventKind::matched) == 1);
  CHECK(p.field.gate().is_open());
}

TEST_CASE("play: matching: a move that the game takes back is no step, and what it covers is not compared") {
  Pairs p;
  p.tap(1);
  CHECK(p.field.moves().can_undo());
  CHECK(p.field.edits().flip(Pairs::card(1), false));
  // The step is seen to be nothing when the next one begins.
  p.tap(3);
  CHECK(p.field.gate().is_open());
  CHECK(p.field.moves().undo());
  CHECK_FALSE(p.field.moves().can_undo());
  CHECK_FALSE(p.open(1));
  CHECK_FALSE(p.open(3));
}

TEST_CASE(
    "play: matching: what was found may stay open where it lies, or vanish there, and all compared are "
    "told") {
  for (const MatchEnd end : {MatchEnd::stay, MatchEnd::vanish}) {
    TableSetup setup(glasshouse(2));
    const ZoneHandling handling{.tap = TapKind::flip};
    const ZoneId box = setup.add({.name = "box", .layout = {.off_table = Facing::top}});
    const MatchRule match{
        .open = 2, .end = end, .to = end == MatchEnd::stay ? ZoneId{} : box, .seconds = 0.5};
    std::vector<CardOptions> cards;
    for (const std::uint32_t face : {1u, 1u, 2u, 2u}) cards.push_back({.face = {face}, .face_up = false});
    const ZoneId grid =
        setup.add({.name = "grid",
                   .layout = {.kind = GridLayout{.columns = 2, .rows = 2, .keeps_cells = true}, .longest = 4},
                   .rules = {.flip = rule::anything(), .match = match},
                   .handling = handling,
                   .cards = cards});
    setup.plans = {{.root = zone(grid)}};
    Playfield field(setup, {.window = {600, 400}});
    // Equal faces belong together, though no set of the deck names them.
    CHECK(field.moves().flip({1}));
    CHECK(field.moves().flip({2}));
    const auto told = events_until(field, field.now() + 3);
    REQUIRE(count_of(EventKind::matched, told) == 1);
    for (const Event& event : told) {
      if (event.kind == EventKind::matched) CHECK(event.cards == std::vector<CardId>{{1}, {2}});
    }
    CHECK(field.table().card({1})->zone == (end == MatchEnd::stay ? grid : box));
    CHECK(field.table().card({1})->face_up);
    if (end == MatchEnd::stay) CHECK(field.moves().flip({1}).reason == Reason::open_already);
    // Others that do not match are covered again, and all of them are told.
    CHECK(field.moves().flip({3}));
    CHECK(field.edits().set_face({4}, {9}));
    CHECK(field.moves().flip({4}));
    for (const Event& event : events_until(field, field.now() + 3)) {
      if (event.kind == EventKind::unmatched) CHECK(event.cards == std::vector<CardId>{{3}, {4}});
    }
    CHECK_FALSE(field.table().card({3})->face_up);
    CHECK(field.edits().set_cell({3}, 4).reason == Reason::unknown_index);
    CHECK(field.edits().set_cell({3}, 3));
  }
}

TEST_CASE("play: matching: what the game has opened is not compared after undo") {
  Pairs p;
  p.tap(1);
  CHECK(p.field.edits().flip(Pairs::card(3), true));
  p.field.edits().mark_move();
  CHECK(p.field.edits().flip(Pairs::card(4), true));
  p.field.edits().mark_move();
  CHECK(p.field.moves().undo());
  CHECK(p.open(3));
  CHECK(p.field.gate().is_open());
  CHECK(p.go(2, EventKind::unmatched) == 0);
}
