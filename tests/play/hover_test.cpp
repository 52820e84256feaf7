// The pointer that presses nothing: hover and zoom.
#include <algorithm>

#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: hover: sweeping slowly over a hand of ten raises each card once, in order, both ways") {
  for (const bool back : {false, true}) {
    Hand h(desk());
    const Rect area = *h.field.where().area(h.zone("hand"));
    std::vector<CardId> expected = h.cards("hand");
    if (back) std::reverse(expected.begin(), expected.end());
    const float y = h.middle(h.cards("hand")[4]).y;
    for (float x = area.min.x - 30; x < area.max.x + 30; x += 0.5f) {
      const float at = back ? area.min.x + area.max.x - x : x;
      send(h.field, PointerInput{.phase = PointerPhase::move, .at = {at, y}, .time = h.field.now() + 0.004});
      h.wait(0);
    }
    std::vector<CardId> raised;
    for (const Event& e : h.told) {
      if (e.kind == EventKind::hovered) raised.push_back(e.card);
    }
    CHECK(raised == expected);
  }
}

TEST_CASE("play: hover: a card rises, grows, turns and lifts by what is stated") {
  const HoverOptions hover{.rise = 0.1f, .growth = 0.2f, .turn = Angle::degrees(5), .lift = 0.5f};
  Hand h(desk({.hover = HoverKind::lift}), {.window = {1000, 700}, .hover = hover});
  const CardId card = h.cards("hand").back();
  const CardId beside = h.cards("hand")[8];
  const Pose rests = *h.field.where().live_pose(card);
  const Pose there = *h.field.where().live_pose(beside);
  h.point(PointerPhase::move, h.middle(card));
  h.settle();
  REQUIRE(h.field.hand().hovered() == card);
  const Pose live = *h.field.where().live_pose(card);
  CHECK(rests.centre.y - live.centre.y == Approx(0.1f * h.field.where().card_size().height).margin(0.1));
  CHECK(live.scale == Approx(rests.scale * 1.2f).epsilon(0.001));
  CHECK(live.rotation - rests.rotation == Approx(5 * 3.14159f / 180).margin(0.001));
  CHECK(live.lift == Approx(rests.lift + 0.5f).margin(0.001));
  CHECK(*h.field.where().live_pose(beside) == there);
  h.point(PointerPhase::move, {5, 5});
  h.wait(1);
  CHECK(*h.field.where().live_pose(card) == rests);
}

TEST_CASE(
    "play: hover: what lies on a card of a column stays on it, a card of a hand comes before the others") {
  const auto order_of = [](const Hand& h, CardId card) {
    const auto& items = h.field.frame().items;
    const auto at =
        std::find_if(items.begin(), items.end(), [&](const FrameItem& i) { return i.card == card; });
    return at - items.begin();
  };
  for (const bool column : {false, true}) {
    Hand h(desk({.hover = HoverKind::lift}));
    const ZoneId hand = h.zone("hand");
    ZoneBehaviour behaviour = h.field.where().behaviour(hand);
    if (column) behaviour.layout.kind = ColumnLayout{};
    REQUIRE(h.field.edits().set_behaviour(hand, behaviour));
    h.settle();
    const CardId lower = h.cards("hand")[4], upper = h.cards("hand")[5];
    const Quad shows = [&] {
      const auto& items = h.field.frame().items;
      return std::find_if(items.begin(), items.end(), [&](const FrameItem& i) { return i.card == lower; })
          ->corners;
    }();
    // Its upper left corner is free in a hand and in a column.
    h.point(PointerPhase::move, point_in(shows, {0.06f, 0.04f}));
    h.settle();
    REQUIRE(h.field.hand().hovered() == lower);
    CHECK((order_of(h, lower) < order_of(h, upper)) == column);
  }
}

TEST_CASE("play: hover: a card is left only when the pointer has gone on by the margin") {
  for (const float margin : {0.0f, 3.0f, 8.0f}) {
    Hand h(desk({.hover = HoverKind::lift}),
           {.window = {1000, 700}, .hover = {.out_seconds = 0, .margin = margin}});
    const CardId card = h.cards("slot")[0];
    CHECK(h.field.hand().hovered() == CardId{});
    const ZoneId slot = h.zone("slot");
    ZoneBehaviour behaviour = h.field.where().behaviour(slot);
    behaviour.handling.hover = HoverKind::lift;
    CHECK(h.field.edits().set_behaviour(slot, behaviour));
    const Vec2 middle = h.middle(card);
    const float half = h.field.where().card_size().width / 2;
    h.point(PointerPhase::move, middle);
    REQUIRE(h.field.hand().hovered() == card);
    h.point(PointerPhase::move, middle + Vec2{half + margin - 0.5f, 0});
    CHECK(h.field.hand().hovered() == card);
    h.point(PointerPhase::move, middle);
    h.point(PointerPhase::move, middle + Vec2{half + margin + 0.5f, 0});
    CHECK(h.field.hand().hovered() == CardId{});
  }
}

TEST_CASE("play: hover: a pointer that rests at any of ten thousand points changes it at most once") {
  for_all("resting pointer", 10, [](Random& r) {
    Hand h(desk({.hover = r.chance(0.5f) ? HoverKind::raise : HoverKind::lift, .zoom = r.chance(0.5f)}));
    const Rect area = *h.field.where().area(h.zone("hand"));
    for (int i = 0; i < 1000; ++i) {
      h.point(PointerPhase::move,
              {r.uniform(area.min.x - 20, area.max.x + 20), r.uniform(area.min.y - 60, area.max.y)});
      h.told.clear();
      for (int k = 0; k < 4; ++k) h.wait(0.11);
      RC_ASSERT(h.count(EventKind::hovered) <= 1);
      RC_ASSERT(h.count(EventKind::unhovered) <= 1);
    }
  });
}

TEST_CASE(
    "play: hover: the raised card stands above its neighbours, who make room, and ends when the pointer "
    "leaves") {
  Hand h(desk());
  const CardId card = h.cards("hand")[4];
  const Pose before = *h.field.where().resting_pose(card);
  const Pose next = *h.field.where().resting_pose(h.cards("hand")[5]);
  h.point(PointerPhase::move, h.grip(card));
  h.settle();
  REQUIRE(h.field.hand().hovered() == card);
  CHECK(h.field.where().live_pose(card)->centre.y < before.centre.y - 10);
  CHECK(h.field.where().live_pose(h.cards("hand")[5])->centre.x > next.centre.x + 3);
  CHECK(*h.field.where().neutral_pose(card) != *h.field.where().resting_pose(card));
  CHECK(h.field.hand().cursor() == "grab");
  const auto& items = h.field.frame().items;
  const auto top = std::max_element(items.begin(), items.end(),
                                    [](const FrameItem& a, const FrameItem& b) { return a.order < b.order; });
  CHECK(top->card == card);
  CHECK(top->marks.hovered);
  h.point(PointerPhase::leave, before.centre);
  h.settle();
  CHECK(h.field.hand().hovered() == CardId{});
  CHECK(*h.field.where().live_pose(card) == before);
  CHECK(h.field.hand().cursor() == "default");
}

TEST_CASE("play: hover: delays hold it back, and nothing is hovered during a drag") {
  Hand h(desk(), {.window = {1000, 700}, .hover = {.in_seconds = 0.3, .out_seconds = 0.2}});
  const CardId card = h.cards("hand")[2];
  h.point(PointerPhase::move, h.grip(card));
  CHECK(h.field.hand().hovered() == CardId{});
  h.wait(0.25);
  CHECK(h.field.hand().hovered() == CardId{});
  h.wait(0.06);
  CHECK(h.field.hand().hovered() == card);
  CHECK(h.last(EventKind::hovered)->time == Approx(0.32));
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.grip(card) - Vec2{0, 80});
  CHECK(h.field.hand().hovered() == CardId{});
  h.point(PointerPhase::move, h.middle(h.cards("hand")[7]));
  h.wait(1);
  CHECK(h.field.hand().hovered() == CardId{});
  CHECK(h.field.hand().cursor() == "grabbing");
}

TEST_CASE("play: hover: a closed gate ends it, and what the pointer is on is hovered when the gate opens") {
  Hand h(desk());
  const auto& hand = h.cards("hand");
  h.point(PointerPhase::move, h.grip(hand[2]));
  h.wait(0.5);
  REQUIRE(h.field.hand().hovered() == hand[2]);
  h.field.gate().close("a dialogue");
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == CardId{});
  h.field.gate().open("a dialogue");
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == hand[2]);

  // Where it went meanwhile counts, and whether it left.
  h.field.gate().close("a dialogue");
  h.field.gate().close("another");
  h.point(PointerPhase::move, h.grip(hand[6]));
  h.field.gate().open("a dialogue");
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == CardId{});
  h.field.gate().open("another");
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == hand[6]);
  h.field.gate().close("a dialogue");
  h.point(PointerPhase::leave, h.grip(hand[6]));
  h.field.gate().open("a dialogue");
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == CardId{});
  CHECK(h.count(EventKind::hovered) == h.count(EventKind::unhovered));
}

TEST_CASE(
    "play: zoom: the larger picture is inside the window, clear of its hand, takes no hits, and fingers get "
    "it "
    "too") {
  int zooms = 0;
  int clear = 0;
  for_all("zooms", 20, [&](Random& r) {
    Hand h(desk(), {.window = {r.uniform(300, 1400), r.uniform(300, 900)}});
    const std::size_t place = r.below(10);
    const CardId card = h.cards("hand")[place];
    const bool finger = r.chance(0.5f);
    const Vec2 at = h.grip(card);
    if (h.field.where().hit(at).card != card) return;
    if (finger) {
      h.point(PointerPhase::down, at, PointerKind::touch);
      h.wait(0.6);
    } else {
      h.point(PointerPhase::move, at);
      h.wait(0.5);
    }
    h.wait(0.5);
    if (h.field.hand().previewed() == CardId{}) return;  // there is no room for one
    RC_ASSERT(h.field.hand().previewed() == card);
    const auto& items = h.field.frame().items;
    const auto zoom = std::find_if(items.begin(), items.end(),
                                   [](const FrameItem& item) { return item.kind == FrameKind::zoom; });
    RC_ASSERT(zoom != items.end());
    RC_ASSERT(zoom->card == card);
    const Rect box = bounds(zoom->corners);
    RC_ASSERT(box.min.x >= -0.01f && box.min.y >= -0.01f);
    RC_ASSERT(box.max.x <= h.field.frame().window.width + 0.01f);
    RC_ASSERT(box.max.y <= h.field.frame().window.height + 0.01f);
    // Where the window has no room beside the hand, it may lie over the others, but not over its card.
    RC_ASSERT(overlap(box, bounds(corners(*h.field.where().resting_pose(card),
                                          h.field.where().card_size()))) <= 0.01f);
    clear += overlap(box, *h.field.where().area(h.zone("hand"))) <= 0.01f ? 1 : 0;
    RC_ASSERT(h.field.where().hit(box.centre()).card != card);
    if (finger) {
      h.point(PointerPhase::up, at, PointerKind::touch);
    } else {
      h.point(PointerPhase::leave, at);
    }
    RC_ASSERT(h.field.hand().previewed() == CardId{});
    RC_ASSERT(h.count(EventKind::zoomed) == 1);
    ++zooms;
    RC_ASSERT(h.count(EventKind::unzoomed) == 1);
  });
  CHECK(zooms >= 5);
  CHECK(clear >= 3);
}

TEST_CASE("play: zoom: its picture ends fully grown, whichever frames were asked for while it grew") {
  for (const Feel& feel : {Feel{}, springy(), calm()}) {
    PlayfieldOptions options;
    options.window = {1000, 700};
    options.feel = feel;
    Hand seldom(desk(), options);
    Hand often(desk(), options);
    const Vec2 at = seldom.grip(seldom.cards("hand")[4]);
    const auto zoom_of = [](const Hand& h) {
      const auto& items = h.field.frame().items;
      const auto it = std::find_if(items.begin(), items.end(),
                                   [](const FrameItem& item) { return item.kind == FrameKind::zoom; });
      return it == items.end() ? FrameItem{} : *it;
    };
    seldom.point(PointerPhase::move, at);
    often.point(PointerPhase::move, at);
    float before = 0;
    for (int step = 0; step < 40; ++step) {
      often.wait(0.07);
      const float now = zoom_of(often).matrix.a;
      CHECK((feel.zoom.spring || now >= before));
      before = now;
    }
    seldom.wait(often.field.now() - seldom.field.now());
    REQUIRE(zoom_of(seldom).kind == FrameKind::zoom);
    CHECK(zoom_of(seldom) == zoom_of(often));
  }
}
