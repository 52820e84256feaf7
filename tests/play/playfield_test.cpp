#include <algorithm>
#include <catch2/catch.hpp>
#include <numbers>

#include "apsidon/geometry/limits.hpp"
#include "support/loop.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A hand of which any card may be picked, a bed that takes what is one rank above, a shelf that takes
/// nothing.
struct Garden {
  ZoneId hand, bed, shelf;
  Playfield field = make();

  CardId card(const std::string& face) const {
    for (const Zone& zone : field.table().zones()) {
      for (const CardId id : zone.cards) {
        if (field.table().card(id)->face == field.table().deck().find(face)) return id;
      }
    }
    return {};
  }
  Vec2 middle(CardId id) const { return field.where().live_pose(id)->centre; }
  Vec2 middle(ZoneId id) const { return field.where().area(id)->centre(); }

  void press(Vec2 at) {
    send(field, PointerInput{.phase = PointerPhase::down, .at = at, .time = field.now() + 0.01});
  }
  void move(Vec2 at) {
    send(field, PointerInput{.phase = PointerPhase::move, .at = at, .time = field.now() + 0.01});
  }
  void release(Vec2 at) {
    send(field, PointerInput{.phase = PointerPhase::up, .at = at, .time = field.now() + 0.01});
  }
  void drag(Vec2 from, Vec2 to) {
    press(from);
    move(from + (to - from) * 0.5f);
    move(to);
    release(to);
  }

  /// The names of what happened until everything came to rest.
  std::string told() {
    std::string out;
    for (const Event& e : events_until(field, field.time().settles_at() + 0.001)) {
      if (!out.empty()) out += ' ';
      out += name_of(e.kind);
    }
    return out;
  }

 private:
  Playfield make() {
    TableSetup setup(glasshouse(2));
    const Deck& deck = setup.table.deck();
    const auto cards = [&](std::initializer_list<const char*> faces) {
      std::vector<CardOptions> out;
      for (const char* face : faces) out.push_back({.face = *deck.find(face), .key = ++keys});
      return out;
    };
    hand = setup.add({.name = "hand",
                      .key = 1,
                      .layout = {.kind = HandLayout{}, .longest = 9},
                      .rules = {.pick = {.kind = PickKind::any}},
                      .cards = cards({"fern-2", "fern-2", "reed-5", "poppy-9"})});
    bed = setup.add({.name = "bed",
                     .key = 2,
                     .layout = {.kind = PileLayout{}, .longest = 13},
                     .rules = {.pick = {.kind = PickKind::top}, .drop = rule::rank_up()},
                     .cards = cards({"fern-1"})});
    shelf = setup.add({.name = "shelf", .key = 3, .layout = {.kind = PileLayout{}, .longest = 4}});
    setup.plans = {{.root = down({across({zone(bed), zone(shelf)}, 1), zone(hand, 1)})}};
    return Playfield(std::move(setup), {.window = {900, 700}});
  }
  std::uint64_t keys = 0;
};

}  // namespace

TEST_CASE("play: a card dragged onto a zone that takes it lies there, and the events tell it in order") {
  Garden g;
  const CardId card = g.card("fern-2");
  g.drag(g.middle(card), g.middle(g.bed));
  CHECK(g.field.table().card(card)->zone == g.bed);
  CHECK(g.told() == "picked-up proposed dropped no-moves arrived landed settled");
  CHECK(*g.field.where().live_pose(card) == *g.field.where().resting_pose(card));
}

TEST_CASE("play: of two cards with the same face each drags itself") {
  Garden g;
  const auto hand = g.field.table().zone(g.hand)->cards;
  REQUIRE(g.field.table().card(hand[0])->face == g.field.table().card(hand[1])->face);
  for (const CardId card : {hand[1], hand[0]}) {
    Garden fresh;
    // By its left edge, which no other card covers.
    const Vec2 grip = fresh.middle(card) - Vec2{fresh.field.where().card_size().width * 0.42f, 0};
    REQUIRE(fresh.field.where().hit(grip).card == card);
    fresh.drag(grip, fresh.middle(fresh.bed));
    CHECK(fresh.field.table().card(card)->zone == fresh.bed);
    CHECK(fresh.field.table().zone(fresh.hand)->cards.size() == 3);
    CHECK(fresh.field.table().zone(fresh.bed)->cards.size() == 2);
  }
}

TEST_CASE("play: a refused card goes home shaking, with the reason in the event") {
  Garden g;
  const CardId card = g.card("reed-5");
  const Vec2 home = g.middle(card);
  g.drag(home, g.middle(g.bed));
  const std::vector<Event> told = events_until(g.field, g.field.now() + 0.1);
  const auto refused =
      std::find_if(told.begin(), told.end(), [](const Event& e) { return e.kind == EventKind::refused; });
  REQUIRE(refused != told.end());
  CHECK(refused->verdict.reason == Reason::not_rank_up);
  CHECK(refused->card == card);
  CHECK(refused->proposal == 1);
  CHECK(describe(refused->verdict, g.field.table()) ==
        "Reed-5 is not one rank above fern-1, as bed builds up.");
  const auto& items = g.field.frame().items;
  CHECK(std::any_of(items.begin(), items.end(),
                    [&](const FrameItem& i) { return i.card == card && i.marks.refused; }));
  CHECK(g.told() == "settled");  // it went nowhere: nothing has landed
  CHECK(g.middle(card) == home);
  CHECK(g.field.table().card(card)->zone == g.hand);
}

TEST_CASE("play: a zone that takes nothing refuses, a drop over nothing or at home is a cancel") {
  Garden g;
  g.drag(g.middle(g.card("reed-5")), g.middle(g.shelf));
  CHECK(g.told() == "picked-up proposed refused settled");
  g.drag(g.middle(g.card("reed-5")), {2, 2});
  CHECK(g.told() == "picked-up cancelled settled");
  g.drag(g.middle(g.card("reed-5")), g.middle(g.card("reed-5")) + Vec2{30, 5});
  CHECK(g.told() == "picked-up cancelled settled");
}

TEST_CASE("play: what may not be picked up says why and shakes") {
  Garden g;
  REQUIRE(g.field.edits().flip(g.card("poppy-9"), false));
  (void)g.told();
  g.drag(g.middle(g.card("poppy-9")), g.middle(g.bed));
  CHECK(g.told() == "pick-refused settled");
  g.press({2, 2});
  g.release({2, 2});
  CHECK(g.told().empty());
  g.press(g.middle(g.card("poppy-9")));
  g.release(g.middle(g.card("poppy-9")));
  CHECK(g.told() == "tapped");
}

TEST_CASE("play: while a card is held its targets are known and marked, and it lies above all, unhit") {
  Garden g;
  const CardId card = g.card("fern-2");
  g.press(g.middle(card));
  g.move(g.middle(g.bed));
  CHECK(g.field.hand().held() == Run{card, 1});
  REQUIRE(g.field.hand().targets().size() == 1);
  CHECK(g.field.hand().targets()[0] == g.bed);
  g.field.advance_to(g.field.now() + 1);
  const Frame& frame = g.field.frame();
  CHECK(frame.items.back().card == card);
  CHECK(frame.items.back().marks.held);
  CHECK(frame.items.back().lift > 0);
  for (const FrameItem& item : frame.items) {
    const bool bed_top = item.zone == g.bed;
    CHECK(item.marks.legal_target == bed_top);
    CHECK(item.marks.aimed_at == bed_top);
  }
  CHECK(g.field.where().hit(g.middle(g.bed)).card == g.card("fern-1"));
  CHECK(count_of(EventKind::settled, events_so_far(g.field)) == 0);
}

TEST_CASE("play: a drag keeps its grip and comes exactly under the pointer") {
  Garden g;
  const CardId card = g.card("poppy-9");
  const Vec2 grip{15, -20};
  const float turned = g.field.where().resting_pose(card)->rotation;
  REQUIRE(turned != 0);  // it comes out of a fan, and straightens about the point where it is held
  g.press(g.middle(card) + grip);
  g.move({400, 300});
  const Vec2 held = rotated(grip, std::cos(-turned), std::sin(-turned));
  for (int i = 0; i < 20; ++i) {
    g.field.advance_to(g.field.now() + 0.01);
    const Pose pose = *g.field.where().live_pose(card);
    const Vec2 under = pose.centre + rotated(held, std::cos(pose.rotation), std::sin(pose.rotation));
    if (i > 7) CHECK(length(under - Vec2{400, 300}) < 1);
  }
  g.field.advance_to(g.field.now() + 1);
  CHECK(length(g.middle(card) - (Vec2{400, 300} - held)) < 1e-3f);
  CHECK(g.field.where().live_pose(card)->rotation == 0);
}

TEST_CASE("play: a lost pointer, a resize, or a change of its cards cancels a drag, and no other change") {
  const auto ending = [](auto&& disturb) {
    Garden g;
    const CardId card = g.card("poppy-9");
    g.press(g.middle(card));
    g.move({400, 300});
    disturb(g);
    CHECK(g.field.hand().held().count == 0);
    const std::string told = g.told();
    for (const Zone& zone : g.field.table().zones()) {
      for (const CardId id : zone.cards)
        CHECK(*g.field.where().live_pose(id) == *g.field.where().resting_pose(id));
    }
    return told.substr(0, told.find(" ", std::string("picked-up ").size()));
  };
  CHECK(ending([](Garden& g) { send(g.field, PointerInput{.phase = PointerPhase::cancel, .time = 5}); }) ==
        "picked-up cancelled");
  CHECK(ending([](Garden& g) { send(g.field, PointerInput{.phase = PointerPhase::leave, .time = 5}); }) ==
        "picked-up cancelled");
  CHECK(ending([](Garden& g) { send(g.field, ResizeInput{{500, 400}, 2, 5}); }) == "picked-up cancelled");
  CHECK(ending([](Garden& g) {
          CHECK(g.field.edits().move({g.card("poppy-9"), 1}, g.shelf));
        }) == "picked-up cancelled");
  Garden stays;
  stays.press(stays.middle(stays.card("poppy-9")));
  stays.move({400, 300});
  CHECK(stays.field.edits().move({stays.card("reed-5"), 1}, stays.shelf));  // of the same zone
  CHECK(stays.field.hand().held().first == stays.card("poppy-9"));
  stays.field.advance_to(stays.field.now() + 1);
  CHECK(length(stays.field.where().live_pose(stays.card("poppy-9"))->centre - Vec2{400, 300}) < 1);
  CHECK(ending([](Garden& g) {
          CHECK(g.field.edits().sync(std::vector<WantedZone>{{.key = 1, .cards = {}}}).retired.size() == 4);
        }) == "picked-up cancelled");
  CHECK(ending([](Garden& g) { g.field.performances().deal(); }) == "picked-up cancelled");
}

TEST_CASE("play: a drag goes on when other zones change, with its targets found anew") {
  Garden g;
  g.press(g.middle(g.card("fern-2")));
  g.move({400, 300});
  REQUIRE(g.field.hand().targets().size() == 1);
  REQUIRE(g.field.edits().move({g.card("fern-1"), 1}, g.shelf));
  CHECK(g.field.hand().held().count == 1);
  CHECK(g.field.hand().targets().empty());
}

TEST_CASE("play: a run that a sync tears apart in mid-drag does not hang in the air") {
  // Two cards of a run are held; the game takes the upper one away. The lower one has to fly home by itself.
  TableSetup setup(glasshouse());
  const ZoneId a = setup.add({.name = "a",
                              .key = 1,
                              .layout = {.kind = ColumnLayout{}, .longest = 5},
                              .rules = {.pick = {.kind = PickKind::run}},
                              .cards = {{.face = {3}, .key = 1}, {.face = {2}, .key = 2}}});
  const ZoneId b = setup.add({.name = "b", .key = 2});
  setup.plans = {{.root = across({zone(a), zone(b)})}};
  Playfield field(std::move(setup));
  const CardId first = field.table().zone(a)->cards.front();
  const Vec2 from =
      field.where().live_pose(first)->centre - Vec2{0, field.where().card_size().height * 0.45f};
  send(field, PointerInput{.phase = PointerPhase::down, .at = from, .time = 0.1});
  send(field, PointerInput{.phase = PointerPhase::move, .at = from + Vec2{300, 200}, .time = 0.2});
  REQUIRE(field.hand().held().count == 2);
  field.advance_to(0.5);
  REQUIRE(field.edits().sync(std::vector<WantedZone>{{.key = 1, .cards = {{.key = 1}}}}).verdict);
  CHECK(field.hand().held().count == 0);
  field.advance_to(field.time().settles_at() + 0.01);
  CHECK(*field.where().live_pose(first) == *field.where().resting_pose(first));
}

TEST_CASE("play: a covered card flips in place, and the frame never shows a face that is not showing") {
  Garden g;
  const CardId card = g.card("poppy-9");
  REQUIRE(g.field.edits().flip(card, false));
  const double end = g.field.time().settles_at();
  int faces = 0;
  int backs = 0;
  for (int i = 0; i <= 30; ++i) {
    g.field.advance_to(end * i / 30);
    for (const FrameItem& item : g.field.frame().items) {
      if (item.card != card) continue;
      CHECK(item.back == !shows_face(g.field.where().live_pose(card)->flip));
      CHECK((item.back ? item.face == hidden_face : item.face == g.field.table().card(card)->face));
      ++(item.back ? backs : faces);
    }
  }
  CHECK(faces > 5);
  CHECK(backs > 5);
}

TEST_CASE("play: the first frame counts as changed, and a frame at rest does not") {
  Garden g;
  CHECK(g.field.frame().revision == 1);
  CHECK(g.field.frame().revision == 1);
  g.field.advance_to(10);
  CHECK(g.field.frame().revision == 1);
  g.field.performances().shake(g.card("fern-1"));
  g.field.advance_to(10.1);
  CHECK(g.field.frame().revision == 2);
  CHECK(std::is_sorted(g.field.frame().items.begin(), g.field.frame().items.end(),
                       [](const FrameItem& a, const FrameItem& b) { return a.order < b.order; }));
}

TEST_CASE("play: a move by the game flies, empties its zone, and a refused one changes nothing") {
  Garden g;
  REQUIRE(g.field.edits().move({g.card("fern-1"), 1}, g.shelf));
  CHECK(g.told() == "emptied no-moves arrived landed settled");
  CHECK(g.field.edits().move({{99}, 1}, g.shelf).reason == Reason::unknown_card);
  CHECK(g.field.edits().flip({99}, true).reason == Reason::unknown_card);
  g.field.performances().shake({99});
  CHECK(g.told().empty());
  CHECK_FALSE(g.field.where().live_pose({99}).has_value());
  CHECK_FALSE(g.field.where().area({99}).has_value());
  CHECK_FALSE(g.field.where().crowded({99}));
}

TEST_CASE("play: an empty zone has an outline, and is hit as a zone") {
  Garden g;
  const auto outlines = [&] {
    return std::count_if(g.field.frame().items.begin(), g.field.frame().items.end(),
                         [](const FrameItem& i) { return i.kind == FrameKind::outline; });
  };
  CHECK(outlines() == 1);
  CHECK(g.field.where().hit(g.middle(g.shelf)) == Hit{.card = {}, .zone = g.shelf});
  REQUIRE(g.field.edits().move({g.card("fern-1"), 1}, g.shelf));
  CHECK(outlines() == 2);  // the card is still on its way
  g.told();
  CHECK(outlines() == 1);
}

TEST_CASE("play: a resize puts what rests at its place at once and bends what flies") {
  Garden g;
  REQUIRE(g.field.edits().move({g.card("fern-1"), 1}, g.shelf));
  send(g.field, ResizeInput{{1400, 1000}, 1, 0.05});
  CHECK(*g.field.where().live_pose(g.card("reed-5")) == *g.field.where().resting_pose(g.card("reed-5")));
  CHECK(g.field.where().live_pose(g.card("fern-1"))->centre !=
        g.field.where().resting_pose(g.card("fern-1"))->centre);
  CHECK(g.told() == "emptied no-moves arrived landed settled");
  CHECK(*g.field.where().live_pose(g.card("fern-1")) == *g.field.where().resting_pose(g.card("fern-1")));
}

TEST_CASE("play: what is not finite is ignored and counted, and tiny windows are defined") {
  Garden g;
  CHECK_FALSE(send(g.field, PointerInput{.phase = PointerPhase::down, .at = {NAN, 0}, .time = 1}));
  CHECK_FALSE(g.field.input(PointerInput{.phase = PointerPhase::down, .at = {0, 0}, .time = INFINITY}));
  send(g.field, ResizeInput{{NAN, 1}, 1, 1});
  g.field.advance_to(NAN);
  CHECK(g.field.ignored() == 4);
  CHECK(g.field.where().fits());
  for (const Size window : {Size{1, 1}, Size{0, 0}, Size{-3, 5}}) {
    send(g.field, ResizeInput{window, 1, 1});
    CHECK_FALSE(g.field.where().fits());
    for (const FrameItem& item : g.field.frame().items) CHECK(is_finite(item.corners.corners[0]));
    (void)g.field.where().hit({0, 0});
  }
}

TEST_CASE("play: a set-up that makes no sense is refused") {
  TableSetup empty(glasshouse());
  CHECK_THROWS_WITH(Playfield(empty), "table: no zones: at least one is expected");
  const ZoneId a = empty.add({.name = "a"});
  CHECK_THROWS_WITH(Playfield(empty), "table: no plans: at least one is expected");
  empty.plans = {{.root = zone(a)}};
  CHECK_NOTHROW(Playfield(empty));
  CHECK_THROWS_WITH(Playfield(empty, {.corner_radius = 2}),
                    "playfield: corner radius is 2: 0 to 0.5 is expected");
  CHECK_THROWS_AS(Playfield(empty, {.start_time = NAN}), Error);
  Feel slow;
  slow.move.glide.seconds = -1;
  CHECK_THROWS_WITH(Playfield(empty, {.feel = slow}), Catch::Contains("seconds is -1"));
  CHECK_THROWS_WITH(Playfield(empty, {.thresholds = {.mouse_slop = -1}}), Catch::Contains("slop"));
  CHECK_THROWS_WITH(Playfield(empty, {.drag = {.held_opacity = 2}}), Catch::Contains("opacity is 2"));
  CHECK_THROWS_WITH(Playfield(empty, {.hover = {.rise = NAN}}), Catch::Contains("rise"));
  const std::string long_name(most_name_bytes + 1, 'n');
  empty.plans.front().name = long_name;
  CHECK_THROWS_WITH(Playfield(empty), "plan: name: 201 bytes: at most 200 are expected");
  empty.plans.front().name.clear();
  empty.deal_from = {7};
  CHECK_THROWS_WITH(Playfield(empty), "table: the deal comes from zone 7: a zone of the table is expected");
  const auto zones = empty.table.zones().size();
  CHECK_THROWS_AS(empty.add({.name = "b", .cards = {{.face = {99}}}}), Error);
  CHECK(empty.table.zones().size() == zones);  // no half-filled zone stays behind
}
