// What a player would notice and no other test looked at: exact distances, times and orders of what the hand,
// the hover, previews, deals and finales do.
#include <catch2/catch.hpp>

#include "apsidon/geometry/quad.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Two places beside each other that take anything, and a card above them.
TableSetup two_places() {
  TableSetup setup(glasshouse());
  const ZoneId from =
      setup.add({.name = "from", .rules = {.pick = {.kind = PickKind::any}}, .cards = {{.face = {1}}}});
  const ZoneId a = setup.add({.name = "a", .rules = {.drop = rule::anything()}});
  const ZoneId b = setup.add({.name = "b", .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({zone(from), across({zone(a), zone(b)})}), .largest_width = 100}};
  return setup;
}

}  // namespace

TEST_CASE("play: an aim that trembles at any border changes once at most") {
  for_all("trembling aims", 5, [](Random& r) {
    Hand h(two_places());
    const Vec2 a = h.middle("a"), b = h.middle("b");
    h.point(PointerPhase::down, h.middle("from"));
    h.point(PointerPhase::move, a);
    REQUIRE(h.field.hand().aimed_at() == h.zone("a"));
    for (int i = 0; i < 12; ++i) {
      // Somewhere on the way, and some 2 px to either side of it for a while.
      const Vec2 at = a + (b - a) * r.uniform(0.3f, 0.7f);
      h.point(PointerPhase::move, at);
      ZoneId aimed = h.field.hand().aimed_at();
      int changes = 0;
      for (int k = 0; k < 20; ++k) {
        h.point(PointerPhase::move, at + Vec2{k % 2 == 0 ? 2.0f : -2.0f, 0});
        changes += std::exchange(aimed, h.field.hand().aimed_at()) != aimed ? 1 : 0;
      }
      RC_ASSERT(changes <= 1);
    }
  });
}

TEST_CASE("play: a finger holds its card above itself, a mouse and a pen where they gripped it") {
  for (const PointerKind kind : {PointerKind::mouse, PointerKind::pen, PointerKind::touch}) {
    Hand h(two_places(), {.window = {1000, 700}, .drag = {.above_finger = 0.5f}});
    const CardId card = h.cards("from")[0];
    const Vec2 at = h.middle("from") + Vec2{10, 20};
    h.point(PointerPhase::down, at, kind);
    h.point(PointerPhase::move, {400, 400}, kind);
    h.wait(1);
    const float above = kind == PointerKind::touch ? 0.5f * h.field.where().card_size().height : 0;
    const Vec2 now = h.field.where().live_pose(card)->centre;
    CHECK(now.x == Approx(400 - 10).margin(0.1));
    CHECK(now.y == Approx(400 - 20 - above).margin(0.1));
  }
}

TEST_CASE("play: a yes that comes when the rules have changed ends as superseded, and says what they say") {
  Hand h(two_places());
  h.field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>{}; });
  const CardId card = h.cards("from")[0];
  REQUIRE(h.field.moves().make({.run = {card, 1}, .from = h.zone("from"), .to = h.zone("a")}));
  ZoneBehaviour closed = h.field.where().behaviour(h.zone("a"));
  closed.rules.drop = rule::nothing();
  REQUIRE(h.field.edits().set_behaviour(h.zone("a"), closed));
  REQUIRE(h.field.moves().waiting().size() == 1);
  CHECK(h.field.moves().answer(h.field.moves().waiting()[0].id).reason == Reason::drop_nothing);
  h.wait(0.1);
  CHECK(h.count(EventKind::refused) == 0);
  REQUIRE(h.count(EventKind::superseded) == 1);
  CHECK(h.last(EventKind::superseded)->verdict.reason == Reason::drop_nothing);
}

TEST_CASE("play: the delay of a preview ends when the keys leave its card") {
  Hand h(desk());
  const ZoneId hand = h.zone("hand");
  REQUIRE(h.field.hand().focus({.card = h.cards("hand")[3], .zone = hand}));
  h.wait(0.2);
  REQUIRE(h.field.hand().focus({}));
  h.wait(1);
  CHECK(h.count(EventKind::zoomed) == 0);
  REQUIRE(h.field.hand().focus({.card = h.cards("hand")[3], .zone = hand}));
  h.wait(0.34);
  CHECK(h.count(EventKind::zoomed) == 0);
  h.wait(0.02);
  CHECK(h.count(EventKind::zoomed) == 1);
}

TEST_CASE("play: the cut corner of a card is not hovered, whatever the card's size") {
  for (const float width : {40.0f, 200.0f}) {
    TableSetup setup(glasshouse());
    const ZoneId slot =
        setup.add({.name = "slot", .handling = {.hover = HoverKind::lift}, .cards = {{.face = {1}}}});
    setup.plans = {{.root = zone(slot), .largest_width = width}};
    Hand h(setup, {.window = {1000, 700}, .corner_radius = 0.3f});
    const CardId card = h.cards("slot")[0];
    const Rect box = bounds(corners(*h.field.where().neutral_pose(card), h.field.where().card_size()));
    const float radius = 0.3f * h.field.where().card_size().width;
    const float cut = radius * (1 - std::sqrt(0.5f));  // along the diagonal, in either direction
    const auto hovers = [&](float inset) {
      h.point(PointerPhase::move, {1, 1});
      h.wait(0.2);
      h.point(PointerPhase::move, box.min + Vec2{inset, inset});
      h.wait(0.1);
      return h.field.hand().hovered() == card;
    };
    CHECK_FALSE(hovers(cut - 0.5f));
    CHECK(hovers(cut + 0.5f));
  }
}

TEST_CASE("play: a preview keeps its gap to what it stands beside and to the window, on every side") {
  for (const ZoomSide side : {ZoomSide::above, ZoomSide::below, ZoomSide::left, ZoomSide::right}) {
    TableSetup setup(glasshouse());
    const ZoneId slot = setup.add({.name = "slot", .handling = {.zoom = true}, .cards = {{.face = {1}}}});
    setup.plans = {{.root = zone(slot), .largest_width = 60}};
    Hand h(setup, {.window = {1400, 1000}, .hover = {.zoom_gap = 31, .zoom_sides = {side}}});
    const CardId card = h.cards("slot")[0];
    h.point(PointerPhase::move, h.middle("slot"));
    h.wait(1);
    REQUIRE(h.field.hand().previewed() == card);
    const Rect shown = bounds(h.field.frame().items.back().corners);
    const Rect own = bounds(corners(*h.field.where().resting_pose(card), h.field.where().card_size()));
    const float gap = side == ZoomSide::above   ? own.min.y - shown.max.y
                      : side == ZoomSide::below ? shown.min.y - own.max.y
                      : side == ZoomSide::left  ? own.min.x - shown.max.x
                                                : shown.min.x - own.max.x;
    CHECK(gap == Approx(31).margin(0.1));
    CHECK(shown.width() == Approx(2.2f * h.field.where().card_size().width).margin(0.1));
  }
  // As large as the window leaves room for, the gap kept.
  TableSetup setup(glasshouse());
  const ZoneId slot = setup.add({.name = "slot", .handling = {.zoom = true}, .cards = {{.face = {1}}}});
  setup.plans = {{.root = zone(slot), .largest_width = 100}};
  Hand h(setup,
         {.window = {400, 600}, .hover = {.zoom = 9, .zoom_gap = 17, .zoom_sides = {ZoomSide::below}}});
  h.point(PointerPhase::move, h.middle("slot"));
  h.wait(1);
  REQUIRE(h.field.hand().previewed());
  CHECK(bounds(h.field.frame().items.back().corners).max.y == Approx(600 - 17).margin(0.1));
}

TEST_CASE("play: the cards of a finale stay as long as the feel says before they go home") {
  std::vector<double> ends;
  for (const float stays : {0.5f, 2.25f}) {
    Feel feel;
    feel.finale_stay = stays;
    Stage stage(feel);
    stage.field.performances().perform(finale());
    ends.push_back(stage.field.time().settles_at());
  }
  CHECK(ends[1] - ends[0] == Approx(1.75));
}

TEST_CASE("play: of a deal the card that leaves first lies on top of the stock, the next below it") {
  TableSetup setup(glasshouse());
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 9}});
  const ZoneId hand =
      setup.add({.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = 9},
                 .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3", "fern-4", "fern-5"})});
  setup.plans = {{.root = down({zone(stock), zone(hand, 1)})}};
  setup.deal_from = stock;
  Hand h(setup);
  h.field.performances().deal();
  std::vector<CardId> from_top;
  for (const FrameItem& item : h.field.frame().items) {
    if (item.kind == FrameKind::card) from_top.insert(from_top.begin(), item.card);
  }
  h.wait(5);
  std::vector<CardId> left;
  for (const Event& e : h.told) {
    if (e.kind == EventKind::departed) left.push_back(e.card);
  }
  REQUIRE(left.size() == 5);
  CHECK(left == from_top);
}

TEST_CASE("motion: a card whose goal shifts while it flips has the axis of the new goal") {
  Motion motion;
  motion.resize(1);
  motion.put(0, {.flip_axis = 0.2f});
  motion.travel(0, {.flip = 3, .flip_axis = 0.2f}, {.seconds = 1});
  motion.advance_to(0.4);
  CHECK(motion.pose(0).flip_axis == 0.2f);
  motion.shift(0, {.centre = {9, 0}, .flip = 3, .flip_axis = 1.1f}, {.seconds = 1});
  motion.advance_to(0.5);
  CHECK(motion.pose(0).flip_axis == 1.1f);
  motion.advance_to(2);
  CHECK(motion.pose(0).flip_axis == 1.1f);
}

TEST_CASE(
    "play: what waits for its answer lies where it shall at once in a new window, and makes room gliding") {
  Hand h(desk());
  h.field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>{}; });
  const CardId guest = h.cards("hand")[0];
  REQUIRE(h.field.moves().make({.run = {guest, 1}, .from = h.zone("hand"), .to = h.zone("shelf")}));
  h.settle();
  h.field.resize({900, 650}, 1, h.field.now());
  h.wait(0);
  const Vec2 at_once = h.field.where().live_pose(guest)->centre;
  h.settle();
  CHECK(h.field.where().live_pose(guest)->centre == at_once);
  // A card that comes to lie there moves it: on its way it is between its places.
  REQUIRE(h.field.edits().move({h.cards("slot")[0], 1}, h.zone("shelf")));
  const auto where = [&] { return h.field.where().live_pose(guest)->centre; };
  h.wait(0.03);
  const Vec2 leaving = where();
  h.settle();
  CHECK(length(where() - at_once) > 5);
  CHECK(length(leaving - at_once) < length(where() - at_once) * 0.9f);
}
