// Drags: sorting, exchange, free places, copies, flicks, several pointers, and what ends a drag.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: drag: a hand is sorted by dragging, room is made where the card would come to lie") {
  Hand h(desk(ZoneHandling{}));
  const CardId card = h.cards("hand")[1];
  const Vec2 from = h.grip(card);
  const Vec2 to = from - h.middle(card) + h.middle(h.cards("hand")[6]) + Vec2{5, 0};
  h.point(PointerPhase::down, from);
  h.point(PointerPhase::move, from + Vec2{20, 0});
  h.point(PointerPhase::move, to);
  h.settle();
  CHECK(h.field.hand().aimed_at() == h.zone("hand"));
  const float gap = h.middle(h.cards("hand")[7]).x - h.middle(h.cards("hand")[6]).x;
  const float usual = h.middle(h.cards("hand")[4]).x - h.middle(h.cards("hand")[3]).x;
  CHECK(gap > usual * 1.3f);
  h.point(PointerPhase::up, to);
  h.settle();
  CHECK(h.faces("hand") == "fern-1 fern-3 fern-4 fern-5 fern-6 fern-7 fern-2 fern-8 fern-9 fern-10");
  CHECK(h.count(EventKind::dropped) == 1);
  CHECK(h.field.moves().undo().allowed());
  CHECK(h.faces("hand") == "fern-1 fern-2 fern-3 fern-4 fern-5 fern-6 fern-7 fern-8 fern-9 fern-10");
}

TEST_CASE(
    "play: drag: a card from elsewhere is inserted where it is held, and lies sideways where cards do") {
  Hand h(desk());
  h.drag(h.middle("slot"), (h.middle(h.cards("hand")[2]) + h.middle(h.cards("hand")[3])) * 0.5f);
  h.settle();
  CHECK(h.faces("hand").starts_with("fern-1 fern-2 fern-3 poppy-9 fern-4"));
  const CardId card = h.cards("hand")[0];
  h.drag(h.grip(card), h.middle("shelf"));
  h.settle();
  REQUIRE(h.faces("shelf") == "fern-1");
  CHECK(h.field.table().card(card)->sideways);
  CHECK(std::abs(h.field.where().live_pose(card)->rotation) == Approx(std::numbers::pi / 2));
}

TEST_CASE("play: drag: a drop on an occupied slot exchanges the two, and undo takes it back") {
  Hand h(desk());
  const CardId card = h.cards("hand")[9];
  const CardId other = h.cards("slot")[0];
  h.drag(h.grip(card), h.middle("slot"));
  h.settle();
  CHECK(h.cards("slot") == std::vector<CardId>{card});
  CHECK(h.cards("hand")[9] == other);
  CHECK(h.last(EventKind::exchanged)->card == other);
  CHECK(h.field.moves().undo().allowed());
  h.settle();
  CHECK(h.cards("slot") == std::vector<CardId>{other});
  CHECK(h.cards("hand")[9] == card);
  CHECK(h.field.moves().redo().allowed());
  CHECK(h.cards("slot") == std::vector<CardId>{card});
  CHECK(h.field.moves().redo().reason == Reason::nothing_to_redo);
}

TEST_CASE("play: drag: in a free zone a card stays where it is let go, and can be moved about") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 spot = h.middle("meadow") + Vec2{-40, 10};
  h.drag(h.grip(card), spot - h.straightened(card, h.grip(card)));
  h.settle();
  REQUIRE(h.cards("meadow") == std::vector<CardId>{card});
  CHECK(length(h.middle(card) - spot) < 1.5f);
  h.drag(h.middle(card), spot + Vec2{50, 30});
  h.settle();
  CHECK(length(h.middle(card) - (spot + Vec2{50, 30})) < 1.5f);
}

TEST_CASE(
    "play: drag: copies follow the pointer where it is so wanted, and the cards stay until they are "
    "dropped") {
  Hand h(desk({}), {.window = {1000, 700}, .drag = {.look = DragLook::copy}});
  const CardId card = h.cards("hand")[9];
  const Pose home = *h.field.where().live_pose(card);
  const Vec2 over = h.middle("shelf") - h.straightened(card, h.grip(card));
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, over);
  h.wait(0.3);
  CHECK(*h.field.where().live_pose(card) == home);
  const auto copy = [&]() -> const FrameItem* {
    for (const FrameItem& item : h.field.frame().items) {
      if (item.kind == FrameKind::copy) return &item;
    }
    return nullptr;
  };
  REQUIRE(copy() != nullptr);
  CHECK(copy()->card == card);
  CHECK(copy()->opacity == 0.6f);
  CHECK(h.field.hand().set_drag_options({.look = DragLook::copy, .copy_opacity = 0.3f}));
  CHECK(copy()->opacity == 0.3f);
  CHECK(h.field.hand().set_drag_options({.look = DragLook::copy}));
  // As it would lie there: turned about the point where it was gripped.
  const Rect shown = bounds(copy()->corners);
  CHECK(shown.width() > shown.height());
  CHECK(shown.contains(over));
  CHECK(length(shown.centre() - over) == Approx(length(h.middle("shelf") - over)).margin(2));
  h.point(PointerPhase::up, over);
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  CHECK(copy() == nullptr);
  CHECK(length(h.field.where().live_pose(card)->centre - h.middle("shelf")) < 60);
}

TEST_CASE(
    "play: drag: the copy of a covered card is its back and tells no face, that of an open one its face") {
  for (const bool open : {true, false}) {
    TableSetup setup(glasshouse());
    const ZoneId from = setup.add({.name = "from",
                                   .rules = {.pick = {.kind = PickKind::any, .covered = true}},
                                   .cards = {{.face = {3}, .face_up = open}}});
    const ZoneId to = setup.add({.name = "to", .rules = {.drop = rule::anything()}});
    setup.plans = {{.root = across({zone(from), zone(to)})}};
    Hand h(setup, {.window = {1000, 700}, .drag = {.look = DragLook::copy}});
    h.point(PointerPhase::down, h.middle("from"));
    h.point(PointerPhase::move, h.middle("to"));
    const auto items = h.field.frame().items;
    const auto copy = std::find_if(items.begin(), items.end(),
                                   [](const FrameItem& item) { return item.kind == FrameKind::copy; });
    REQUIRE(copy != items.end());
    CHECK(copy->back == !open);
    CHECK(copy->face == (open ? FaceId{3} : hidden_face));
    CHECK(copy->card == h.cards("from")[0]);
  }
}

TEST_CASE("play: drag: a held card leans into its way and hangs straight when the pointer stops") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 from = h.grip(card);
  h.point(PointerPhase::down, from);
  for (int i = 1; i <= 8; ++i) h.point(PointerPhase::move, from - Vec2{50.0f * static_cast<float>(i), 0});
  CHECK(h.field.where().live_pose(card)->rotation < -0.01f);
  h.wait(2);
  CHECK(h.field.where().live_pose(card)->rotation == 0);
}

TEST_CASE("play: drag: a second pointer, a second button, lost focus and a closed gate") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 from = h.grip(card);
  const auto begin = [&] {
    h.told.clear();
    h.settle();
    h.point(PointerPhase::down, from);
    h.point(PointerPhase::move, h.middle("shelf"));
    REQUIRE(h.field.hand().held().count == 1);
  };
  begin();
  h.point(PointerPhase::down, h.middle(h.cards("hand")[0]), PointerKind::touch, 7);
  h.point(PointerPhase::move, {500, 300}, PointerKind::touch, 7);
  h.point(PointerPhase::up, {500, 300}, PointerKind::touch, 7);
  CHECK(h.field.hand().held().first == card);
  CHECK(h.count(EventKind::picked_up) == 1);
  send(h.field, PointerInput{.phase = PointerPhase::down,
                             .at = h.middle("shelf"),
                             .time = h.field.now() + 0.1,
                             .button = PointerButton::secondary});
  h.wait(0);
  CHECK(h.field.hand().held().count == 0);
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  send(h.field, BlurInput{h.field.now() + 0.1});
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  CHECK(h.key(Key::cancel));
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  h.field.gate().close("a dialogue");
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 1);
  CHECK(h.field.hand().cursor() == "wait");
  CHECK_FALSE(h.point(PointerPhase::down, from));
  CHECK_FALSE(h.key(Key::next));
  h.field.gate().close("another");
  h.field.gate().open("a dialogue");
  CHECK_FALSE(h.field.gate().is_open());
  h.field.gate().open("another");
  CHECK(h.field.gate().is_open());
  CHECK_FALSE(h.point(PointerPhase::move, {500, 300}));  // what went down behind the gate does nothing
  CHECK(h.field.hand().held().count == 0);
  begin();
}

TEST_CASE("play: drag: several pointers drag at once only when asked for") {
  for (const bool several : {false, true}) {
    PlayfieldOptions options;
    options.window = {1000, 700};
    options.drag.several = several;
    Hand h(desk({}), options);
    const CardId one = h.cards("hand")[9];
    const CardId other = h.cards("slot")[0];
    const auto touch = [&](PointerPhase phase, Vec2 at, std::uint32_t id) {
      h.point(phase, at, PointerKind::touch, id);
    };
    touch(PointerPhase::down, h.grip(one), 7);
    touch(PointerPhase::move, h.middle("meadow"), 7);
    touch(PointerPhase::down, h.middle(other), 8);
    touch(PointerPhase::move, h.middle("shelf"), 8);
    CHECK(h.field.hand().held_by(7).first == one);
    CHECK(h.field.hand().held_by(8).count == (several ? 1 : 0));
    CHECK(h.field.hand().held().first == (several ? other : one));
    // The first goes on while the second is still.
    touch(PointerPhase::move, h.middle("meadow") + Vec2{9, 5}, 7);
    CHECK(h.field.hand().held().first == one);
    CHECK(h.field.hand().aimed_at() == h.zone("meadow"));
    touch(PointerPhase::up, h.middle("meadow") + Vec2{9, 5}, 7);
    CHECK(h.cards("meadow") == std::vector<CardId>{one});
    CHECK(h.field.hand().held().count == (several ? 1 : 0));
    touch(PointerPhase::up, h.middle("shelf"), 8);
    CHECK(h.cards("shelf").size() == (several ? 1 : 0));
    CHECK(h.count(EventKind::dropped) == (several ? 2 : 1));
    CHECK(h.field.hand().held().count == 0);
  }
}

TEST_CASE("play: drag: what one pointer holds another cannot take, and what ends all drags ends each") {
  PlayfieldOptions options;
  options.window = {1000, 700};
  options.drag.several = true;
  TableSetup setup = desk({});
  // A column whose cards are picked up with all that lies on them.
  const Deck& deck = setup.table.deck();
  setup.rules_of({1}).pick = {.kind = PickKind::run, .link = rule::anything()};
  setup.layout_of({1}).kind = ColumnLayout{};
  for (const char* face : {"poppy-8", "poppy-7"}) setup.table.create_card({1}, {.face = *deck.find(face)});
  Hand h(std::move(setup), options);
  const std::vector<CardId> column = h.cards("slot");
  const auto top_strip = [&](std::size_t i) {
    return h.middle(column[i]) - Vec2{0, h.field.where().card_size().height * 0.45f};
  };
  h.point(PointerPhase::down, top_strip(1), PointerKind::mouse, 1);
  h.point(PointerPhase::move, h.middle("meadow"), PointerKind::mouse, 1);
  REQUIRE(h.field.hand().held_by(1).count == 2);
  h.point(PointerPhase::down, top_strip(0), PointerKind::mouse, 2);
  h.point(PointerPhase::move, h.middle("shelf"), PointerKind::mouse, 2);
  CHECK(h.field.hand().held_by(2).count == 0);
  const auto refused = std::find_if(h.told.begin(), h.told.end(),
                                    [](const Event& e) { return e.kind == EventKind::pick_refused; });
  REQUIRE(refused != h.told.end());
  CHECK(refused->verdict.reason == Reason::in_hand);
  h.point(PointerPhase::up, h.middle("shelf"), PointerKind::mouse, 2);
  const CardId free = h.cards("hand")[9];
  h.point(PointerPhase::down, h.grip(free), PointerKind::mouse, 3);
  h.point(PointerPhase::move, h.middle("shelf"), PointerKind::mouse, 3);
  REQUIRE(h.field.hand().held_by(3).first == free);
  send(h.field, ResizeInput{{900, 650}, 1, h.field.now()});
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 2);
  CHECK(h.field.hand().held().count == 0);
  h.settle();
  for (const CardId card : column)
    CHECK(*h.field.where().live_pose(card) == *h.field.where().resting_pose(card));
}

TEST_CASE("play: drag: a flick takes a card to where it is thrown, a slow drag as far does not") {
  ZoneHandling handling;
  handling.flick_to = FlickTargets::anywhere({3});  // the shelf
  Hand h(desk(handling));
  const auto throw_up = [&](double step) {
    h.settle();
    const Vec2 from = h.middle(h.cards("hand")[4]);
    const double start = h.field.now();
    send(h.field, PointerInput{.phase = PointerPhase::down, .at = from, .time = start});
    for (int i = 1; i <= 6; ++i) {
      send(h.field, PointerInput{.phase = PointerPhase::move,
                                 .at = from - Vec2{0, 15.0f * static_cast<float>(i)},
                                 .time = start + step * i});
    }
    send(h.field,
         PointerInput{.phase = PointerPhase::up, .at = from - Vec2{0, 90}, .time = start + step * 6 + 0.001});
    h.wait(0.01);
  };
  throw_up(0.01);
  CHECK(h.cards("shelf").size() == 1);
  throw_up(0.2);
  CHECK(h.cards("shelf").size() == 1);
  CHECK(h.cards("hand").size() == 9);
}
