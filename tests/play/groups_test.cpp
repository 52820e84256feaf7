// The groups of a playfield, and what lasts over rounds and snapshots.
#include <catch2/catch.hpp>

#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A desk with a card of the hand picked up and dragged over the meadow.
Hand in_mid_drag() {
  Hand h(desk());
  const Vec2 from = h.grip(h.cards("hand")[3]);
  h.point(PointerPhase::move, from);
  h.point(PointerPhase::down, from);
  h.point(PointerPhase::move, h.middle("meadow"));
  REQUIRE(h.field.hand().held().count == 1);
  return h;
}

}  // namespace

TEST_CASE("play: numbers that were given out are not given out again, over rounds and snapshots") {
  for_all("numbers", 3, [](Random& r) {
    TableSetup setup = desk();
    setup.round = {.stock = *setup.table.find_zone("slot"), .zones = {}};
    Playfield field(setup);
    Playfield snapshot = field;
    std::uint32_t timers = 0;
    std::uint32_t countdowns = 0;
    std::uint32_t performances = 0;
    CardId cards = field.table().last_id();
    for (int i = 0; i < 12; ++i) {
      switch (r.below(5)) {
        case 0:
          field.start_round(r.below(99));
          break;
        case 1:
          field.restore(snapshot);
          break;
        case 2:
          snapshot = field;
          break;
        default:
          break;
      }
      const CountdownId timer = field.time().start_timer(1);
      const CountdownId countdown = field.time().add_countdown(1);
      const PerformanceId performance = field.performances().perform(wait(0.1));
      RC_ASSERT(timer.value > timers);
      RC_ASSERT(countdown.value > countdowns);
      RC_ASSERT(performance.value > performances);
      timers = timer.value;
      countdowns = countdown.value;
      performances = performance.value;
      RC_ASSERT(field.table().last_id() >= cards);
      cards = field.table().last_id();
    }
  });
}

TEST_CASE("play: a card that is new after a restore has an id that no card had before it") {
  TableSetup setup(glasshouse());
  const ZoneId hand = setup.add({.name = "hand", .key = 5, .layout = {.kind = HandLayout{}, .longest = 9}});
  setup.plans = {{.root = zone(hand, 1)}};
  Playfield field(setup);
  const Playfield empty = field;
  const auto deal_one = [&](std::uint64_t key) {
    const std::vector<WantedZone> wanted{{.key = 5, .cards = {{.key = key, .face = FaceId{1}}}}};
    const SyncReport report = field.edits().sync(wanted);
    REQUIRE(report.created.size() == 1);
    return report.created.front();
  };
  const CardId first = deal_one(1);
  field.restore(empty);
  const CardId second = deal_one(2);
  CHECK(second > first);
  CHECK(field.table().card(first) == nullptr);
  CHECK(field.where().live_pose(second).has_value());
}

TEST_CASE("play: starting over and going back to a snapshot end a pick-up in mid-drag with its event") {
  for (const bool restores : {false, true}) {
    CAPTURE(restores);
    Hand h = in_mid_drag();
    const Playfield in_hand = h.field;  // a snapshot in mid-drag
    const Playfield before(desk());
    if (restores) {
      h.field.restore(before);
    } else {
      h.field.start_over(desk());
    }
    h.wait(0);
    CHECK(h.count(EventKind::picked_up) == 1);
    CHECK(h.count(EventKind::cancelled) == 1);
    CHECK(h.field.hand().held().count == 0);
    // What was in the hand then is put back without a second end.
    h.field.restore(in_hand);
    h.settle();
    CHECK(h.count(EventKind::cancelled) == 1);
    CHECK(h.field.hand().held().count == 0);
    CHECK(h.field.time().at_rest());
  }
}

TEST_CASE("play: a proposal that waits ends once, also when the round is over before its answer") {
  Hand h = in_mid_drag();
  h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
  h.point(PointerPhase::up, h.middle("meadow"));
  REQUIRE(h.field.moves().waiting().size() == 1);
  h.field.start_over(desk());
  h.wait(0);
  CHECK(h.count(EventKind::superseded) == 1);
  CHECK(h.field.moves().waiting().empty());
}

TEST_CASE("play: a snapshot keeps the window as it is now") {
  Hand h(desk());
  const Playfield snapshot = h.field;
  send(h.field, ResizeInput{{600, 500}, 2, h.field.now()});
  const Size card = h.field.where().card_size();
  const Rect area = *h.field.where().area(h.zone("hand"));
  h.field.restore(snapshot);
  CHECK(h.field.frame().window == Size{600, 500});
  CHECK(h.field.where().card_size() == card);
  CHECK(*h.field.where().area(h.zone("hand")) == area);
  CHECK(h.field.time().at_rest());
}

TEST_CASE("play: who closed the gate or stopped the clock can be asked") {
  Hand h(desk());
  h.field.gate().close("menu");
  h.field.gate().close("server");
  h.field.time().hold("background");
  REQUIRE(h.field.gate().reasons().size() == 2);
  CHECK(h.field.gate().reasons()[1] == "server");
  CHECK(h.field.gate().closed_for("menu"));
  REQUIRE(h.field.time().reasons().size() == 1);
  CHECK(h.field.time().stopped_for("background"));
  h.field.gate().open("menu");
  h.field.time().release("background");
  CHECK_FALSE(h.field.gate().is_open());
  CHECK(h.field.time().reasons().empty());
}

TEST_CASE("play: panels are found by name, and the zones of a formation as a group") {
  TableSetup setup(glasshouse());
  const PanelId score = setup.add_panel({.name = "score"});
  PlanNode lattice = setup.add_formation({.name = "frame"}, formation_of_pyramid(3));
  const ZoneId other = setup.add({.name = "frame-less"});
  lattice.share = 1;
  setup.plans = {{.root = down({panel(score, {.px = 80}, {.px = 20}), lattice, zone(other)})}};
  const Playfield field(setup);
  CHECK(field.where().find_panel("score") == score);
  CHECK_FALSE(field.where().find_panel("time"));
  const auto group = field.table().find_group("frame");
  REQUIRE(group.size() == 6);
  CHECK(field.table().zone(group.front())->name == "frame-1-1");
  CHECK(field.table().find_group("nothing").empty());
}

TEST_CASE("play: drag, hover and gesture options of a running field change what is played next") {
  Hand h(desk());
  h.field.hand().set_hover_options({.in_seconds = 0.3});
  const Vec2 at = h.grip(h.cards("hand")[3]);
  h.point(PointerPhase::move, at);
  CHECK_FALSE(h.field.hand().hovered());
  h.wait(0.35);
  CHECK(h.field.hand().hovered() == h.cards("hand")[3]);
  GestureThresholds wide = h.field.hand().thresholds();
  wide.mouse_slop = 60;
  h.field.hand().set_thresholds(wide);
  h.point(PointerPhase::down, at);
  h.point(PointerPhase::move, at + Vec2{40, 0});
  CHECK(h.field.hand().held().count == 0);
  h.point(PointerPhase::move, at + Vec2{70, 0});
  CHECK(h.field.hand().held().count == 1);
  h.point(PointerPhase::cancel, at);
  h.field.hand().set_drag_options({.look = DragLook::copy});
  h.drag(at, at + Vec2{0, -90});
  h.point(PointerPhase::down, at);
  h.point(PointerPhase::move, h.middle("meadow"));
  const auto& items = h.field.frame().items;
  CHECK(
      std::any_of(items.begin(), items.end(), [](const FrameItem& i) { return i.kind == FrameKind::copy; }));
  const Verdict wrong = h.field.hand().set_drag_options({.copy_opacity = 2});
  CHECK(wrong.reason == Reason::out_of_range);
  CHECK_THAT(describe(wrong, h.field), Catch::Contains("copy_opacity"));
  CHECK(h.field.hand().drag_options().copy_opacity == DragOptions{}.copy_opacity);
}

TEST_CASE("play: what a frame changes is told, and applied to the one before it gives the whole frame") {
  for_all("frame changes", 3, [](Random& r) {
    Hand h(desk());
    std::vector<FrameItem> scene = h.field.frame().items;
    std::uint64_t drawn = h.field.frame().revision;
    RC_ASSERT(h.field.frame_changes(drawn).items.empty());
    RC_ASSERT(!h.field.frame_changes(drawn).all);
    h.field.performances().deal();
    int partly = 0;
    for (int i = 0; i < 80; ++i) {
      if (r.chance(0.1f)) h.field.performances().shake(h.cards("hand")[r.below(10)]);
      h.wait(double{r.uniform(0, 0.04f)});
      const FrameChanges changes = h.field.frame_changes(drawn);
      const Frame& frame = h.field.frame();
      if (changes.all) {
        scene = frame.items;
      } else {
        for (const std::uint32_t item : changes.items) scene[item] = frame.items[item];
        partly += changes.items.empty() ? 0 : 1;
      }
      drawn = frame.revision;
      RC_ASSERT(scene == frame.items);
    }
    RC_ASSERT(partly > 10);
    RC_ASSERT(h.field.frame_changes(drawn - 2).all);
  });
}

TEST_CASE("play: what lies under a resting pointer after scrolling is what is hovered") {
  TableSetup setup(glasshouse());
  std::vector<CardOptions> cards;
  for (std::uint32_t face = 1; face <= 30; ++face) cards.push_back({.face = {face}});
  const ZoneId shelf = setup.add({.name = "shelf",
                                  .layout = {.kind = SpreadLayout{.spacing = 1.1f, .align = Align::start},
                                             .longest = 30,
                                             .scrolls = true},
                                  .handling = {.hover = HoverKind::lift},
                                  .cards = cards});
  setup.plans = {{.root = zone(shelf, 1), .largest_width = 80}};
  Hand h(std::move(setup));
  const Vec2 at = h.middle("shelf");
  h.point(PointerPhase::move, at);
  const CardId before = h.field.hand().hovered();
  REQUIRE(before);
  h.field.where().scroll_to(shelf, 400);
  h.point(PointerPhase::move, at);
  h.wait(0.2);
  CHECK(h.field.hand().hovered() != before);
  CHECK(h.field.hand().hovered() == h.field.where().hit(at).card);
}
