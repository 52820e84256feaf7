// Where a drag goes: aims, flicks, swipes, fingers, zones one over another; and where keys go.
#include <catch2/catch.hpp>
#include <cmath>

#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A heap in the middle, a box on either side.
TableSetup sorting() {
  TableSetup setup(glasshouse());
  const ZoneId left = setup.add({.name = "left", .rules = {.drop = rule::anything()}});
  const ZoneId right = setup.add({.name = "right", .rules = {.drop = rule::anything()}});
  const ZoneId heap =
      setup.add({.name = "heap",
                 .layout = {.kind = PileLayout{}, .longest = 5},
                 .rules = {.pick = {.kind = PickKind::top}},
                 .handling = {.flick_to = {.left = left, .right = right}},
                 .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3", "fern-4"})});
  setup.plans = {{.root = across({zone(left), zone(heap, 1), zone(right)}, 2), .largest_width = 90}};
  return setup;
}

/// Goes so far in so many steps of 10 ms, and lets go.
void throw_card(Hand& h, Vec2 by, int steps) {
  const Vec2 from = h.middle(h.cards("heap").back());
  const auto point = [&](PointerPhase phase, Vec2 at) {
    (void)h.field.pointer({.phase = phase, .at = at, .time = h.field.now() + 0.01});
    h.wait(0.01);
  };
  point(PointerPhase::down, from);
  for (int i = 1; i <= steps; ++i)
    point(PointerPhase::move, from + by * (static_cast<float>(i) / static_cast<float>(steps)));
  point(PointerPhase::up, from + by);
  h.settle();
}

/// Two rows of a patience: beds above columns of different heights, two of them with covered cards.
TableSetup patience() {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  std::vector<PlanNode> beds;
  std::vector<PlanNode> columns;
  for (int i = 1; i <= 3; ++i) {
    beds.push_back(
        zone(setup.add({.name = "bed-" + std::to_string(i),
                        .rules = {.pick = {.kind = PickKind::top},
                                  .drop = rule::any({rule::rank_on_empty(0),
                                                     rule::all({rule::same_suit(), rule::rank_up()})})},
                        .cards = some(deck, {i == 1   ? "fern-1"
                                             : i == 2 ? "reed-1"
                                                      : "poppy-1"})})));
  }
  const std::vector<std::vector<const char*>> open{
      {"poppy-9", "poppy-8", "poppy-7", "poppy-6"}, {"fern-2"}, {"marigold-5", "marigold-4", "reed-2"}};
  for (int i = 1; i <= 3; ++i) {
    ZoneSetup column{
        .name = "column-" + std::to_string(i),
        .layout = {.kind = ColumnLayout{}, .longest = 8},
        .rules = {.pick = {.kind = PickKind::run, .link = rule::rank_down()}, .drop = rule::rank_down()}};
    for (int k = 0; k < 4 - i; ++k)
      column.cards.push_back({.face = {static_cast<std::uint32_t>(40 + 4 * i + k)}, .face_up = false});
    for (const char* face : open[static_cast<std::size_t>(i - 1)])
      column.cards.push_back(open_card(deck, face));
    columns.push_back(zone(setup.add(column)));
  }
  setup.plans = {{.root = down({across(beds, 0.5f), across(columns, 0.5f)}, 0.4f), .largest_width = 80}};
  setup.send_top_of = {*setup.table.find_zone("column-1"), *setup.table.find_zone("column-3")};
  setup.finish.into = {*setup.table.find_zone("bed-1"), *setup.table.find_zone("bed-2"),
                       *setup.table.find_zone("bed-3")};
  return setup;
}

std::string focused_zone(const Hand& h) {
  const Zone* zone = h.field.table().zone(h.field.hand().focused().zone);
  return zone ? zone->name : "";
}

}  // namespace

TEST_CASE("play: aim: a flick goes by its direction, and the event says how it was let go") {
  Hand h(sorting());
  throw_card(h, {-140, 20}, 6);
  CHECK(h.cards("left").size() == 1);
  CHECK(h.last(EventKind::dropped)->flicked);
  CHECK(h.last(EventKind::dropped)->velocity.x < -900);
  throw_card(h, {140, -20}, 6);
  CHECK(h.cards("right").size() == 1);
  throw_card(h, {10, -140}, 6);  // nothing is that way
  CHECK(h.cards("heap").size() == 2);
  CHECK(h.last(EventKind::cancelled)->flicked);
  throw_card(h, {-140, 0}, 60);  // slowly
  CHECK(h.cards("heap").size() == 2);
  CHECK_FALSE(h.last(EventKind::cancelled)->flicked);
}

TEST_CASE("play: aim: where swipes count, a slow release far enough to one side is one") {
  Hand h(sorting(), {.window = {1000, 700}, .drag = {.swipe = 1.5f}});
  throw_card(h, {-100, 0}, 60);
  CHECK(h.cards("left").empty());
  throw_card(h, {-140, 0}, 60);
  CHECK(h.cards("left").size() == 1);
  CHECK(h.last(EventKind::dropped)->flicked);
  CHECK(h.last(EventKind::dropped)->velocity.x > -900);
  // Beyond the window a release is a release.
  throw_card(h, {900, 0}, 60);
  CHECK(h.cards("right").size() == 1);
}

TEST_CASE("play: aim: how much of a card has to lie over a zone can be stated") {
  for (const float overlap : {0.0f, 0.1f, 0.6f}) {
    Hand h(sorting(), {.window = {1000, 700}, .drag = {.aim_overlap = overlap}});
    const Rect left = *h.field.where().area(h.zone("left"));
    const CardId card = h.cards("heap").back();
    const float width = h.field.where().card_size().width;
    h.point(PointerPhase::down, h.middle(card));
    // A third of the card lies over it.
    h.point(PointerPhase::move, {left.max.x + width * (0.5f - 0.33f), left.centre().y});
    CHECK((h.field.hand().aimed_at() == h.zone("left")) == (overlap < 0.33f));
  }
}

TEST_CASE(
    "play: aim: a finger within the outline of an empty zone means that zone, and not a card beside it") {
  TableSetup setup(glasshouse());
  const ZoneId stock = setup.add({.name = "stock", .handling = {.tap = TapKind::draw}});
  const ZoneId waste = setup.add({.name = "waste",
                                  .rules = {.pick = {.kind = PickKind::top}},
                                  .cards = some(setup.table.deck(), {"fern-1"})});
  setup.rules_of(stock).stock = StockRule{.to = waste};
  setup.plans = {{.root = across({zone(stock), zone(waste)}, 0.05f), .largest_width = 60}};
  Hand h(setup, {.window = {390, 844}});
  const Rect outline = bounds(corners(*h.field.where().outline(stock), h.field.where().card_size()));
  int taps = 0;
  for (float x = outline.min.x + 1; x < outline.max.x - 0.5f; x += 3) {
    h.told.clear();
    h.tap({x, outline.centre().y}, PointerKind::touch);
    REQUIRE(h.count(EventKind::tapped) == 1);
    CHECK(h.last(EventKind::tapped)->from == stock);
    h.wait(2);
    if (h.cards("stock").size() == 1) (void)h.field.moves().undo();
    h.settle();
    ++taps;
  }
  CHECK(taps > 15);
}

TEST_CASE("play: aim: a finger a little beside a card picks it up, a mouse there does not") {
  for (const PointerKind kind : {PointerKind::touch, PointerKind::mouse, PointerKind::pen}) {
    Hand h(patience());
    const CardId card = h.cards("column-2").back();
    const Vec2 beside = h.middle(card) + Vec2{0, h.field.where().card_size().height / 2 + 5};
    h.point(PointerPhase::down, beside, kind);
    h.point(PointerPhase::move, beside + Vec2{0, 60}, kind);
    CHECK(h.count(EventKind::picked_up) == (kind == PointerKind::touch ? 1 : 0));
  }
}

TEST_CASE("play: aim: held cards may be translucent, and lean fully at the stated speed") {
  Feel feel;
  feel.tilt_speed = 5;
  Hand h(desk({}), {.window = {1000, 700}, .feel = feel, .drag = {.held_opacity = 0.5f}});
  const CardId card = h.cards("hand")[9];
  h.point(PointerPhase::down, h.grip(card));
  const float step = 5 * h.field.where().card_size().width * 0.02f;  // a width in 0.2 s
  Vec2 at = h.grip(card);
  for (int i = 0; i < 14; ++i) h.point(PointerPhase::move, at = at - Vec2{step, 0});
  CHECK(h.field.where().live_pose(card)->opacity == Approx(0.5).margin(1e-3));
  CHECK(h.field.where().live_pose(card)->rotation == Approx(-8 * 3.14159265 / 180).margin(0.02));
  h.point(PointerPhase::up, at);
  h.settle();
  CHECK(h.field.where().live_pose(card)->opacity == 1);
}

TEST_CASE("play: aim: what lies where a drag was let go is hovered, though the pointer rests") {
  Hand h(desk({.hover = HoverKind::lift}));
  const CardId card = h.cards("hand")[2];
  const CardId other = h.cards("hand")[7];
  const Vec2 at = h.grip(other) + Vec2{0, 8};
  h.drag(h.grip(card), at);
  h.settle();
  const CardId under = h.field.where().hit(at).card;
  CHECK(under != CardId{});
  CHECK(h.field.hand().hovered() == under);
}

TEST_CASE("play: aim: of zones one over another the upper takes presses and drops, and lies above") {
  TableSetup setup(glasshouse());
  const ZoneId box = setup.add({.name = "box",
                                .layout = {.kind = PileLayout{}, .longest = 5},
                                .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything()},
                                .cards = some(setup.table.deck(), {"fern-1", "fern-2"})});
  const ZoneId table =
      setup.add({.name = "table",
                 .layout = {.kind = FreeLayout{}, .longest = 5},
                 .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true}});
  (void)setup.table.create_card(table, {.face = {9}, .at = {1, 0}});
  setup.plans = {
      {.root = layers({zone(table), placed(zone(box), Align::end, Align::start)}), .largest_width = 90}};
  Hand h(setup);
  const Rect area = *h.field.where().area(box);
  const Rect whole = *h.field.where().area(table);
  CHECK(area.max.x == Approx(whole.max.x).margin(1));
  CHECK(area.min.y == whole.min.y);
  CHECK(area.width() < 110);
  // A card of the table lies in the same corner: below the box, though its zone came later.
  const CardId below = h.cards("table")[0];
  CHECK(h.field.where().hit(h.middle(below)).zone == box);
  const CardId top = h.cards("box").back();
  h.drag(h.middle(top), {200, 500});
  CHECK(h.cards("table").size() == 2);
  h.drag({200, 500}, area.centre());
  CHECK(h.cards("box").back() == top);
  const auto file = parse_table(write_table(setup), "table");
  REQUIRE(file);
  CHECK(file->plans == setup.plans);
}

TEST_CASE(
    "play: keys: to the neighbouring column however short it is, up to the row above, each change told "
    "once") {
  Hand h(patience());
  CHECK(h.field.hand().focus({.card = h.cards("column-1").back(), .zone = h.zone("column-1")}));
  h.wait(0);
  h.told.clear();
  CHECK(h.key(Key::right));
  CHECK(focused_zone(h) == "column-2");
  CHECK(h.key(Key::right));
  CHECK(focused_zone(h) == "column-3");
  CHECK(h.key(Key::left));
  CHECK(h.key(Key::left));
  CHECK(focused_zone(h) == "column-1");
  CHECK(h.count(EventKind::focused) == 4);
  CHECK(h.field.hand().focus({.card = h.cards("column-1").back(), .zone = h.zone("column-1")}));
  for (int i = 0; i < 3; ++i) CHECK(h.key(Key::up));
  CHECK(focused_zone(h) == "column-1");
  CHECK(h.field.table().card(h.field.hand().focused().card)->index == 3);  // the highest open one
  // The whole run is marked, and above its neighbours when it is picked up.
  int marked = 0;
  for (const FrameItem& item : h.field.frame().items) marked += item.marks.focus ? 1 : 0;
  CHECK(marked == 4);
  const Run run = h.field.hand().focused_run();
  CHECK(run.count == 4);
  CHECK(h.key(Key::act));
  std::uint64_t lowest_held = ~std::uint64_t{0};
  std::uint64_t highest_other = 0;
  int held = 0;
  for (const FrameItem& item : h.field.frame().items) {
    if (item.kind != FrameKind::card) continue;
    held += item.marks.held ? 1 : 0;
    if (item.marks.held) lowest_held = std::min(lowest_held, item.order);
    if (!item.marks.held) highest_other = std::max(highest_other, item.order);
  }
  CHECK(held == 4);
  CHECK(lowest_held > highest_other);
  CHECK(h.key(Key::cancel));
  h.settle();
  CHECK(h.field.hand().focus({.card = run.first, .zone = h.zone("column-1")}));
  CHECK(h.key(Key::up));
  CHECK(focused_zone(h) == "bed-1");
  CHECK(h.key(Key::down));
  CHECK(focused_zone(h) == "column-1");
}

TEST_CASE("play: keys: one sends what is focused where it goes, another the top of the table's zones") {
  Hand h(patience());
  CHECK(h.field.hand().focus({.card = h.cards("column-2").back(), .zone = h.zone("column-2")}));
  CHECK(h.key(Key::send));
  CHECK(h.cards("bed-1").size() == 2);
  h.settle();
  CHECK(h.key(Key::send_top));  // of the first column nothing goes; of the third it does
  CHECK(h.cards("bed-2").size() == 2);
  h.settle();
  h.told.clear();
  CHECK(h.key(Key::send_top));
  CHECK(h.count(EventKind::pick_refused) == 1);
}

TEST_CASE("play: finish: what is left goes home card after card when it is safe, and is told once") {
  for (const bool by_itself : {false, true}) {
    TableSetup setup(glasshouse());
    const Deck& deck = setup.table.deck();
    const Rule builds = rule::any({rule::rank_on_empty(0), rule::all({rule::same_suit(), rule::rank_up()})});
    const auto column = [&](const char* name, std::initializer_list<const char*> faces) {
      return setup.add(
          {.name = name,
           .layout = {.kind = ColumnLayout{}, .longest = 6},
           .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything(), .flips_uncovered = true},
           .cards = some(deck, faces)});
    };
    const ZoneId bed = setup.add({.name = "bed", .rules = {.drop = builds}, .cards = some(deck, {"fern-1"})});
    const ZoneId a = column("a", {"fern-5", "fern-2"});
    const ZoneId b = column("b", {"fern-4", "fern-3"});
    CHECK(setup.table.flip(setup.table.zone(a)->cards[0], false));
    setup.plans = {{.root = across({zone(bed), zone(a), zone(b)})}};
    setup.won = goal::all_in({bed});
    setup.finish = {.into = {bed}, .by_itself = by_itself};
    Hand h(setup);
    CHECK(h.field.moves().finishing_moves().empty());  // a card lies covered: nobody knows
    CHECK(h.field.moves().finish().reason == Reason::nothing_to_finish);
    h.drag(h.middle(h.cards("a").back()), h.middle("bed"));
    h.wait(0.01);
    REQUIRE(h.count(EventKind::may_finish) == 1);  // it was flipped, and all goes home from here
    if (!by_itself) {
      CHECK(h.field.gate().is_open());
      CHECK(h.field.moves().finishing_moves().size() == 3);
      CHECK(h.field.moves().finish());
    }
    CHECK(h.field.gate().closed_for("finishing"));
    // When all of it will be at rest is found by trying, and the judge is not asked what is only tried.
    int asked = 0;
    h.field.moves().set_judge([&](const Proposal&) { return ++asked, Verdict{}; });
    CHECK(h.field.time().settles_at() > h.field.now());
    CHECK(asked == 0);
    h.settle();
    CHECK(asked > 0);
    CHECK(h.cards("bed").size() == 5);
    CHECK(h.field.moves().standing() == Standing::won);
    CHECK(h.count(EventKind::won) == 1);
    CHECK(h.field.gate().is_open());
    CHECK(h.field.moves().undo());
    CHECK(h.cards("bed").size() == 4);
    CHECK(h.count(EventKind::may_finish) == 1);
  }
}

TEST_CASE("play: speech: cards and zones are spoken of by the table's names, or the client's") {
  TableSetup setup = desk({});
  setup.names = {.card = "{rank} of {suit}",
                 .words = {{"fern", "ferns"}, {"10", "ten"}, {"shelf", "the shelf"}}};
  Hand h(setup);
  h.drag(h.grip(h.cards("hand")[9]), h.middle("shelf"));
  CHECK(describe(*h.last(EventKind::dropped), h.field) == "Ten of ferns laid on the shelf.");
  Phrases german = default_phrases();
  german.names = {.card = "{suit} {rank}", .words = {{"fern", "Farn"}}};
  CHECK(describe(*h.last(EventKind::dropped), h.field, default_event_phrases(), german) ==
        "Farn 10 laid on shelf.");
  CHECK(spoken(*setup.table.deck().find("reed-3"), setup.table.deck(), setup.names) == "3 of reed");
}
