// The rooms that turn inputs and time into requests, each alone: Hand, Hover, Focus, Performances.
#include <catch2/catch.hpp>

#include "play/requests/focus.hpp"
#include "play/requests/hand.hpp"
#include "play/requests/hover.hpp"
#include "play/requests/performances.hpp"
#include "play/requests/taps.hpp"
#include "rooms_support.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

namespace {

/// What the rooms look at: cards at rest.
struct Ground {
  explicit Ground(TableSetup given)
      : referee(std::move(given), {.most_undos = 10}),
        arrangement(referee.setup(), {.size = {900, 600}}),
        panels({}) {
    test::follow(traffic, arrangement, setup(), Change::first, feel);
  }
  const TableSetup& setup() const { return referee.setup(); }
  const Table& table() const { return referee.table(); }
  Vec2 middle(CardId card) const { return arrangement.neutral(*table().slot(card)).centre; }
  FocusView focus_view(const Hand::Carry& carry, double time) const {
    return {setup(), panels, arrangement, referee, carry, selection, switches, false, time};
  }

  Referee referee;
  Arrangement arrangement;
  Panels panels;
  Switches switches{{}};
  Selection selection;
  Traffic traffic{0};
  EventQueue events;
  Feel feel;
};

std::size_t count(EventQueue& events, EventKind kind) {
  std::size_t n = 0;
  while (events.any()) n += events.take()->kind == kind ? 1u : 0u;
  return n;
}

}  // namespace

TEST_CASE("play: a carry knows its cards, the zones that take them, and where they go") {
  const Ground ground(two_hands());
  Hand hand({}, {});
  CHECK(hand.empty());
  hand.take({.by = 1, .picked_up = true}, {{2}, 1}, ground.table());
  hand.find_targets(ground.table(), ground.setup().rulebook());
  CHECK(hand.has({2}));
  CHECK_FALSE(hand.has({1}));
  CHECK(hand.carry().targets == std::vector<ZoneId>{{1}, {2}});  // its own sorts
  CHECK(hand.held().empty());                                    // the drag has not begun
  hand.begin_drag({}, 0, 100);
  REQUIRE(hand.held().size() == 1);
  const Vec2 over = ground.arrangement.area({2}).centre();
  const std::uint64_t before = hand.revision();
  hand.move_to(over, 0.1, ground.setup(), ground.arrangement, ground.feel);
  CHECK(hand.revision() > before);
  CHECK(hand.carry().aimed == ZoneId{2});
  REQUIRE(hand.insertions().size() == 1);
  CHECK(hand.goal(hand.carry(), {2}, ground.table(), ground.arrangement, ground.feel).centre == over);
  const auto proposal =
      hand.let_go({.kind = GestureKind::drag_end, .at = over}, ground.setup(), ground.arrangement).move;
  REQUIRE(proposal);
  CHECK(proposal->to == ZoneId{2});
  CHECK(proposal->at == hand.insertions()[0].index);
  (void)hand.forget();
  CHECK(hand.empty());
  CHECK(hand.held().empty());
  CHECK(hand.insertions().empty());
}

TEST_CASE("play: what a finger that is gone was pressed on is forgotten") {
  const Ground ground(two_hands());
  Hand hand({}, {});
  for (std::uint32_t finger = 1; finger < 50; ++finger) {
    hand.press(finger, {.zone = {1}});
    REQUIRE(hand.pressed_on(finger) != nullptr);
    if (finger > 1) CHECK(hand.pressed_on(finger - 1) == nullptr);
  }
}

TEST_CASE("play: of several carries the one whose pointer moved last is first, and each ends by itself") {
  const Ground ground(two_hands());
  Hand hand({.several = true}, {});
  hand.take({.by = 1, .picked_up = true}, {{1}, 1}, ground.table());
  hand.take({.by = 2, .picked_up = true}, {{6}, 1}, ground.table());
  CHECK(hand.carry().by == 2);
  hand.select(1);
  CHECK(hand.carry().by == 1);
  CHECK(hand.pointers() == std::vector<std::uint32_t>{1, 2});
  CHECK(hand.forget().by == 1);
  CHECK(hand.carry().by == 2);
  CHECK(hand.has({6}));
  CHECK_FALSE(hand.has({1}));
}

TEST_CASE("play: a tap is told and does nothing through a closed gate, and lays down what is in the hand") {
  TableSetup setup = two_hands();
  const std::array<TapKind, 6> kinds{TapKind::none, TapKind::flip, TapKind::pick,
                                     TapKind::draw, TapKind::send, TapKind::reorient};
  for_all("taps", 300, [&](Random& r) {
    const ZoneId home{1};
    const ZoneId zone{1 + static_cast<std::uint32_t>(r.below(2))};
    setup.handling_of(zone).tap = kinds[r.below(kinds.size())];
    setup.handling_of(zone).double_tap = TapKind::flip;
    const std::vector<CardId>& cards = setup.table.zone(zone)->cards;
    const CardId gone{999};
    const CardId card = r.chance(0.2f) ? gone : r.chance(0.8f) ? cards[r.below(cards.size())] : CardId{};
    Hand::Carry carry;
    if (r.chance(0.4f)) carry = {.run = {setup.table.zone(home)->cards.front(), 1}, .home = home};
    const bool twice = r.chance(0.3f);
    const bool primary = r.chance(0.8f);
    const Gesture gesture{.kind = twice ? GestureKind::double_tap : GestureKind::tap,
                          .button = primary ? PointerButton::primary : PointerButton::secondary};
    const bool open = r.chance(0.8f);
    const Tap tap = read_tap(gesture, {.card = card, .zone = zone}, {setup, carry, open, false});
    RC_ASSERT(tap.told);
    RC_ASSERT(tap.on.card == (card == gone ? CardId{} : card));
    const bool acts = open && primary && card != gone;
    RC_ASSERT(tap.drops == (acts && !carry.empty() && zone != home));
    RC_ASSERT(tap.puts_back == (acts && !carry.empty() && zone == home));
    const bool same = tap.puts_back && card == carry.run.first;
    const TapKind stated = twice ? TapKind::flip : setup.handling_of(zone).tap;
    const bool possible = card != CardId{} || stated == TapKind::draw;
    RC_ASSERT(tap.does == (acts && !tap.drops && !same && possible ? stated : TapKind::none));
  });
  const Tap off = read_tap({.kind = GestureKind::tap}, {.panel = {1}}, {setup, {}, true, true});
  CHECK_FALSE(off.told);
}

TEST_CASE("play: a key that acts does what a tap does, and picks up where that is nothing") {
  TableSetup setup = two_hands();
  const Hit card{.card = {1}, .zone = {1}};
  setup.handling_of({1}).double_tap = TapKind::flip;
  for (const TapKind kind : {TapKind::none, TapKind::pick}) {
    setup.handling_of({1}).tap = kind;
    CHECK(read_act(card, false, setup).does == TapKind::pick);
    CHECK_FALSE(read_act(card, false, setup).told);
    CHECK(read_act(card, true, setup).does == TapKind::flip);
  }
  setup.handling_of({1}).tap = TapKind::send;
  CHECK(read_act(card, false, setup).told);
  CHECK(read_act(card, false, setup).does == TapKind::send);
  CHECK(read_act({.zone = {1}}, false, setup).does == TapKind::none);
  CHECK(read_act({.zone = {2}}, false, setup).does == TapKind::none);
  CHECK_FALSE(read_act({.zone = {2}}, false, setup).told);
  CHECK(read_act({.panel = {1}}, false, setup).told);
}

TEST_CASE("play: a pointer that rests changes what is hovered at most once, whatever rises because of it") {
  for_all("hover", 4, [](Random& r) {
    Ground ground(two_hands());
    Hover hover({.in_seconds = r.chance(0.5f) ? 0.05 : 0});
    hover.move_to({r.uniform(0, 900), r.uniform(0, 600)});
    std::size_t changes = 0;
    for (int i = 0; i < 30; ++i) {
      const HoverView view{ground.setup(), ground.arrangement, ground.traffic, ground.feel,
                           0.07f,          i * 0.02,           true,           0};
      if (hover.run_due(view, ground.events).changed) ++changes;
      if (hover.consider(view, ground.events).changed) ++changes;
      (void)ground.arrangement.make_room(ground.setup(), {.raised = hover.raised(ground.setup())});
    }
    RC_ASSERT(changes <= 1);
    RC_ASSERT((hover.card() != CardId{}) == (changes == 1));
  });
}

TEST_CASE("play: a preview ends with the hover that it is of, and is told") {
  Ground ground(two_hands());
  Hover hover({.zoom_seconds = 0.1});
  const auto view = [&](double time) {
    return HoverView{ground.setup(), ground.arrangement, ground.traffic, ground.feel, 0.07f, time, true, 0};
  };
  hover.move_to(ground.middle({8}));
  (void)hover.consider(view(0), ground.events);
  REQUIRE(hover.card() == CardId{8});
  CHECK(hover.due() == Approx(0.1));
  (void)hover.run_due(view(0.1), ground.events);
  CHECK(hover.previewed() == CardId{8});
  std::vector<Hover::Preview> shown;
  hover.previews(ground.setup(), ground.arrangement, 9, shown);
  REQUIRE(shown.size() == 1);
  CHECK(shown[0].pose.scale > 1);
  (void)hover.set({}, view(0.2), ground.events);
  CHECK(hover.previewed() == CardId{});
  CHECK(count(ground.events, EventKind::unzoomed) == 1);
}

TEST_CASE("play: the focus is on what can be acted on, and is told once whenever it changes") {
  for_all("focus", 4, [](Random& r) {
    Ground ground(two_hands());
    Focus focus;
    const Hand::Carry none;
    const Key keys[] = {Key::left, Key::right, Key::up, Key::down, Key::next, Key::previous};
    for (int i = 0; i < 30; ++i) {
      const Hit before = focus.on();
      const FocusView view = ground.focus_view(none, i * 0.1);
      const KeyRequest request = focus.read({.key = keys[r.below(6)]}, view, ground.events);
      RC_ASSERT(request == KeyRequest::moved);
      RC_ASSERT(ground.referee.judge_pick(focus.on().card).verdict.allowed());
      RC_ASSERT(count(ground.events, EventKind::focused) == (focus.on() == before ? 0u : 1u));
    }
    RC_ASSERT(focus.read({.key = Key::act, .repeat = true}, ground.focus_view(none, 9), ground.events) ==
              KeyRequest::unused);
  });
}

TEST_CASE("play: a step begins when those before it have ended, once, and a performance ends once") {
  Ground ground(two_hands());
  Performances performances;
  const ClockIndex clock = ground.traffic.add_clock();
  const PerformanceId id{7};
  performances.add(id, clock, sequence({wait(0.5), together({wait(0.25), wait(1)}), flip({{1}}, false)}),
                   ground.feel);
  const Scene scene{ground.setup(), ground.arrangement, ground.traffic, ground.feel};
  std::vector<double> begun;
  while (performances.running(id)) {
    while (const auto step = performances.next_ready(id, ground.traffic.motion())) {
      begun.push_back(ground.traffic.now());
      const auto change = performances.change_of(*step, scene);
      CHECK(change.has_value() == (begun.size() == 4));
      performances.begun(*step, performances.plan(*step, change, {}, scene));
    }
    const double due = performances.due(ground.traffic.motion());
    REQUIRE(due < 10);
    ground.traffic.advance_to(due, due, ground.table(), ground.events);
    CHECK(performances.first_due(ground.traffic.motion()) == id);
    CHECK(performances.end_steps(id, ground.traffic.motion()));
    CHECK_FALSE(performances.end_steps(id, ground.traffic.motion()));
    if (performances.finished(id)) performances.remove(id);
  }
  CHECK(begun == std::vector<double>{0, 0.5, 0.5, 1.5});
}

TEST_CASE("play: a step that is cut short ends now, and tells of what it had begun") {
  Ground ground(two_hands());
  Performances performances;
  const ClockIndex clock = ground.traffic.add_clock();
  performances.add({1}, clock, deal(), ground.feel);
  const Scene scene{ground.setup(), ground.arrangement, ground.traffic, ground.feel};
  const auto step = performances.next_ready({1}, ground.traffic.motion());
  REQUIRE(step);
  const StepPlan plan = performances.plan(*step, std::nullopt, {}, scene);
  CHECK(plan.departures.size() == 8);
  for (const Departure& d : plan.departures)
    performances.depart(*step, ground.traffic.card(d.slot).id, d.delay, 5);
  performances.begun(*step, plan);
  performances.cut_short({1});
  performances.tell({1}, ground.traffic.motion(), ground.table(), 0, ground.events);
  CHECK(count(ground.events, EventKind::departed) == 8);
  CHECK(performances.end_steps({1}, ground.traffic.motion()));
  CHECK(performances.finished({1}));
}
