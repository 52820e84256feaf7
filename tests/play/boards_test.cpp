// Rounds, clocks and boards: countdowns that rest, cards at a speed of their own, decks laid out whole.
#include <catch2/catch.hpp>
#include <set>

#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: boards: a countdown rests by its own reasons while the clock goes on") {
  Hand h(desk({}));
  const CountdownId dusk = h.field.time().add_countdown(2);
  h.field.time().hold_countdown(dusk, "menu");
  h.field.time().start_countdown(dusk);
  h.wait(1);
  CHECK(h.field.time().is_held(dusk));
  CHECK(h.field.time().seconds_left(dusk) == 2);
  h.field.time().release_countdown(dusk, "menu");
  h.wait(0.5);
  h.field.time().hold_countdown(dusk, "menu");
  h.field.time().hold_countdown(dusk, "background");
  h.wait(5);
  CHECK(h.field.time().share_left(dusk) == Approx(0.75));
  h.field.time().extend_countdown(dusk, 0.5);
  CHECK(h.field.time().seconds_left(dusk) == Approx(2));
  h.field.time().release_countdown(dusk, "menu");
  h.wait(1);
  CHECK(h.field.time().seconds_left(dusk) == Approx(2));
  h.field.time().release_countdown(dusk, "background");
  const double now = h.field.now();
  h.wait(3);
  REQUIRE(h.count(EventKind::time_up) == 1);
  CHECK(h.last(EventKind::time_up)->time == Approx(now + 2));
  const CountdownId other = h.field.time().add_countdown(1);
  h.field.time().start_countdown(other);
  h.field.time().stop_countdown(other);
  h.wait(2);
  CHECK(h.count(EventKind::time_up) == 1);
  CHECK(h.field.time().seconds_left(other) == 0);
}

TEST_CASE("play: boards: cards at another speed leave timers and countdowns alone") {
  for (const double speed : {0.5, 1.0, 4.0}) {
    Hand h(desk({}));
    h.field.time().set_cards_speed(speed);
    CHECK(h.field.time().cards_speed() == speed);
    (void)h.field.time().start_timer(0.7);
    const double now = h.field.now();
    CHECK(h.field.edits().move({h.cards("hand")[9], 1}, h.zone("shelf")));
    h.wait(3);
    CHECK(h.last(EventKind::rang)->time == Approx(now + 0.7));
    CHECK(h.last(EventKind::landed)->time == Approx(now + double{Feel{}.move.glide.seconds} / speed));
    CHECK(h.field.time().at_rest());
    h.field.time().set_cards_speed(0);
    CHECK(h.field.edits().move({h.cards("hand")[8], 1}, h.zone("shelf")));
    h.wait(1);
    CHECK_FALSE(h.field.time().at_rest());
    CHECK(h.field.time().settles_at() == std::numeric_limits<double>::infinity());
    h.field.time().set_cards_speed(1);
    h.settle();
    CHECK(h.field.time().at_rest());
  }
}

TEST_CASE("play: boards: a shuffle goes straight to new cells and places, a scatter over a free zone") {
  TableSetup setup(glasshouse());
  const ZoneId grid = setup.add(
      {.name = "grid",
       .layout = {.kind = GridLayout{.columns = 3, .keeps_cells = true}, .longest = 6},
       .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3", "fern-4", "fern-5", "fern-6"})});
  const ZoneId desk_id = setup.add({.name = "desk", .layout = {.kind = FreeLayout{}, .longest = 6}});
  for (std::uint32_t i = 0; i < 5; ++i)
    (void)setup.table.create_card(desk_id,
                                  {.face = {i + 20}, .at = {0.1f + 0.2f * static_cast<float>(i), 0.5f}});
  setup.plans = {{.root = across({zone(grid, 1), zone(desk_id, 1)})}};
  Hand h(setup);
  Feel feel;
  feel.shuffle_look = ShuffleLook::straight;
  h.field.performances().set_feel(feel);
  for (const char* name : {"grid", "desk"}) {
    std::set<std::pair<float, float>> before;
    for (const CardId card : h.cards(name)) before.insert({h.middle(card).x, h.middle(card).y});
    const std::vector<CardId> order = h.cards(name);
    std::vector<Vec2> places;
    for (const CardId card : order) places.push_back(h.middle(card));
    const PerformanceId id = h.field.performances().perform(shuffle(h.zone(name), 3), {.closes_gate = true});
    CHECK(h.field.gate().closed_for("performing"));
    h.wait(0.1);
    CHECK(h.field.performances().running(id));
    h.settle();
    CHECK(h.field.gate().is_open());
    std::set<std::pair<float, float>> after;
    bool moved = false;
    for (std::size_t i = 0; i < order.size(); ++i) {
      after.insert({h.middle(order[i]).x, h.middle(order[i]).y});
      moved = moved || h.middle(order[i]) != places[i];
    }
    CHECK(after == before);
    CHECK(moved);
  }
  const std::vector<CardId> cards = h.cards("desk");
  std::vector<Vec2> places;
  for (const CardId card : cards) places.push_back(h.middle(card));
  (void)h.field.performances().perform(scatter(h.zone("desk"), 7));
  h.settle();
  const Rect area = *h.field.where().area(h.zone("desk"));
  for (std::size_t i = 0; i < cards.size(); ++i) {
    CHECK(h.middle(cards[i]) != places[i]);
    CHECK(area.contains(h.middle(cards[i])));
  }
}

TEST_CASE(
    "play: boards: a whole deck in one entry, a box off the table, columns with covered and open cards") {
  const char* text = R"({"apsidon": "table", "version": 1,
    "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"], "jokers": [{"name": "moth"}], "copies": 2},
    "zones": [{"name": "stock", "layout": "pile"}, {"name": "box", "off_table": "top", "layout": "pile"},
              {"name": "column", "layout": "column", "longest": {"covered": 6, "open": 7}}],
    "cards": {"stock": {"deck": {"packs": 2, "jokers": false}, "open": ["moth"]}},
    "plans": [{"root": {"across": [{"zone": "stock"}, {"zone": "column", "share": 1}]}}]})";
  const auto table = parse_table(text, "table");
  REQUIRE(table);
  CHECK(table->table.zone(*table->table.find_zone("stock"))->cards.size() == 7);
  const auto again = parse_table(write_table(*table), "again");
  REQUIRE(again);
  CHECK(write_table(*again) == write_table(*table));
  const ZoneLayout column = table->layout_of(*table->table.find_zone("column"));
  CHECK(column.longest == 13);
  CHECK(column.longest_covered == 6);
  Playfield field(*table, {.window = {500, 500}});
  const ZoneId box = *table->table.find_zone("box");
  CHECK(field.where().area(box)->max.y < 0);
  CHECK(field.edits().move({field.table().zones()[0].cards.back(), 1}, box));
  CHECK(field.where().resting_pose(field.table().zone(box)->cards[0])->centre.y < 0);
  for (const FrameItem& item : field.frame().items)
    CHECK((item.kind != FrameKind::outline || item.zone != box));

  // Room for covered cards is narrower: the same window has larger cards.
  TableSetup open(glasshouse());
  const ZoneId id = open.add({.name = "column", .layout = {.kind = ColumnLayout{}, .longest = 13}});
  open.plans = {{.root = zone(id)}};
  const float before = Playfield(open, {.window = {300, 400}}).where().card_size().width;
  open.layout_of(id).longest_covered = 6;
  CHECK(Playfield(open, {.window = {300, 400}}).where().card_size().width > before);
  open.plans = {{.root = space(1)}};
  CHECK_THROWS_AS(Playfield(open), Error);
  open.layout_of(id).off_table = Facing::top;
  CHECK_NOTHROW(Playfield(open));
  CHECK_THROWS_WITH(open.add_deck(id, {.packs = 2}), Catch::Contains("2 packs: 1 to 1"));
  open.add_deck(id);
  CHECK(open.table.zone(id)->cards.size() == 52);
}

TEST_CASE("play: boards: a used-up stock is reloaded, a round deals itself, and a gather may keep sides") {
  Hand h(desk({}));
  for (int i = 0; i < 3; ++i) CHECK(h.field.edits().move({h.cards("hand")[0], 1}, h.zone("meadow")));
  h.settle();
  (void)h.field.performances().perform(reload(h.zone("shelf"), h.zone("meadow"), 4));
  h.settle();
  REQUIRE(h.cards("shelf").size() == 3);
  for (const CardId card : h.cards("shelf")) CHECK_FALSE(h.field.table().card(card)->face_up);
  (void)h.field.performances().perform(gather(h.zone("meadow"), h.zone("hand"), true));
  h.settle();
  REQUIRE(h.cards("meadow").size() == 7);
  for (const CardId card : h.cards("meadow")) CHECK(h.field.table().card(card)->face_up);
  TableSetup setup = desk({});
  setup.round = {.stock = *setup.table.find_zone("shelf"),
                 .zones = {{.zone = *setup.table.find_zone("hand"), .open = 4}}};
  Hand round(setup);
  round.field.start_round(3, true);
  round.wait(0.05);
  CHECK(round.count(EventKind::began) == 1);
  CHECK_FALSE(round.field.time().at_rest());
  round.settle();
  CHECK(round.cards("hand").size() == 4);
}

TEST_CASE("play: boards: an effect takes over from another without a jump, and may be stated for one call") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[4];
  h.field.performances().shake(card, CardEffect{.seconds = 0.4f, .swings = 3, .width = 0.3f});
  Vec2 before = h.field.where().live_pose(card)->centre;
  float most = 0;
  float reach = 0;
  for (int i = 0; i < 400; ++i) {
    if (i == 77 || i == 130)
      h.field.performances().shake(card, CardEffect{.seconds = 0.4f, .swings = 3, .width = 0.3f});
    h.wait(0.002);
    const Vec2 now = h.field.where().live_pose(card)->centre;
    most = std::max(most, length(now - before));
    reach = std::max(reach, length(now - h.middle(card)));
    before = now;
  }
  CHECK(reach > 15);
  CHECK(most < 5);  // a lone one goes 3 px in that time; a jump would be up to 30
  h.settle();
  CHECK(*h.field.where().live_pose(card) == *h.field.where().resting_pose(card));
}

TEST_CASE("play: boards: a card that is taken over from a performance keeps the speed that is seen") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const PerformanceId id = h.field.performances().perform(move_cards({card}, h.zone("shelf")));
  h.field.performances().set_speed(id, 0.25);
  h.wait(0.4);
  const auto speed = [&] {
    const Vec2 from = h.field.where().live_pose(card)->centre;
    h.wait(0.002);
    return length(h.field.where().live_pose(card)->centre - from) / 0.002f;
  };
  const float before = speed();
  CHECK(before > 50);
  CHECK(h.field.edits().move({card, 1}, h.zone("meadow")));
  CHECK(speed() == Approx(before).epsilon(0.2));
}

TEST_CASE(
    "play: boards: the game's changes of a face and of how a card lies are told, and which side a flip "
    "shows") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[2];
  CHECK(h.field.edits().set_face(card, {33}));
  CHECK(h.field.edits().set_sideways(card, true));
  CHECK(h.field.edits().flip(card, false));
  h.settle();
  CHECK(h.last(EventKind::face_changed)->card == card);
  CHECK(h.last(EventKind::reoriented)->card == card);
  REQUIRE(h.last(EventKind::edge_on) != nullptr);
  CHECK_FALSE(h.last(EventKind::edge_on)->face_up);
  CHECK(h.field.edits().flip(card, true));
  h.settle();
  CHECK(h.last(EventKind::edge_on)->face_up);
}
