// What nobody does on purpose: numbers that are none, times that go backwards, effects that stand still.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/allocations.hpp"
#include "support/hand.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr float nan_px = std::numeric_limits<float>::quiet_NaN();
constexpr double forever = std::numeric_limits<double>::infinity();

bool is_drawable(const Pose& p) {
  constexpr float most = 1e13f;
  return std::abs(p.centre.x) < most && std::abs(p.centre.y) < most && std::abs(p.rotation) < most &&
         std::abs(p.flip) < most && p.scale < most && p.lift < most && p.opacity >= 0 && p.opacity <= 1;
}

bool all_drawable(const Playfield& field) {
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards) {
      if (!is_drawable(*field.where().live_pose(card))) return false;
    }
  }
  return true;
}

bool in_order(const std::vector<Event>& told) {
  return std::is_sorted(told.begin(), told.end(),
                        [](const Event& a, const Event& b) { return a.time < b.time; });
}

}  // namespace

TEST_CASE("play: a card let go in the very moment of its last move flies, whatever curve carried it") {
  for (const char* curve : {"circ-out", "cubic-bezier(0, 0.55, 0.45, 1)", "linear(0, 1, 1 0.0000001%)",
                            "cubic-bezier(0, 1000, 0, 1000)"}) {
    CAPTURE(curve);
    Feel feel = springy();
    feel.carry = {.seconds = 0.2f, .curve = Easing::parse(curve)};
    Hand hand(desk(), {.window = {1000, 700}, .feel = feel});
    const Vec2 at = hand.grip(hand.cards("hand")[2]);
    hand.point(PointerPhase::down, at);
    for (int i = 1; i < 9; ++i) hand.point(PointerPhase::move, at - Vec2{0, 30.0f * static_cast<float>(i)});
    const double now = hand.field.now();
    (void)hand.field.pointer({.phase = PointerPhase::move, .at = {900, 20}, .time = now});
    (void)hand.field.pointer({.phase = PointerPhase::up, .at = {900, 20}, .time = now});
    for (int i = 0; i < 100; ++i) {
      hand.wait(0.02);
      REQUIRE(all_drawable(hand.field));
    }
    hand.settle();
    CHECK(hand.field.time().at_rest());
    CHECK(hand.count(EventKind::picked_up) == 1);
  }
}

TEST_CASE("play: seconds and delays that are none, or without end, count as none or as the longest") {
  Stage stage;
  Act deal{.kind = ActKind::deal};
  deal.delays = {std::nan(""), -forever, forever, 1e300};
  const PerformanceId id = stage.field.performances().perform({.act = deal});
  (void)stage.go(1);
  CHECK(all_drawable(stage.field));
  CHECK(stage.field.time().settles_at() < 4000);
  stage.field.performances().skip(id);
  CHECK_FALSE(stage.field.performances().running(id));
  (void)stage.field.performances().perform({.act = {.kind = ActKind::wait, .seconds = forever}});
  CHECK(stage.field.time().settles_at() == Approx(3601).margin(1));
}

TEST_CASE("play: a script that is nested too deep, or is too long, is not begun") {
  Stage stage;
  Script deep = apsidon::wait(0);
  for (int i = 0; i < 5'000; ++i) {
    Script around{.kind = Script::Kind::sequence};
    around.parts.push_back(std::move(deep));
    deep = std::move(around);
  }
  CHECK_FALSE(stage.field.performances().perform(deep));
  CHECK_FALSE(stage.field.performances().perform(sequence(std::vector<Script>(100'001, apsidon::wait(0)))));
  CHECK(stage.field.ignored() == 2);
  CHECK(stage.field.performances().perform(sequence(std::vector<Script>(50'000, apsidon::wait(0.01)))));
  CHECK(count_of(EventKind::ended, stage.go(600)) == 1);
}

TEST_CASE("play: what swells or shakes in a performance that stands still comes to rest with it") {
  for (const bool skips : {true, false}) {
    for (const bool shakes : {true, false}) {
      CAPTURE(skips, shakes);
      Stage stage;
      const auto cards = stage.cards(stage.hand);
      const PerformanceId id = stage.field.performances().perform(shakes ? shake(cards) : pulse(cards));
      (void)stage.go(0.1);
      stage.field.performances().set_speed(id, 0);
      (void)stage.go(0.2);
      CHECK_FALSE(stage.at_rest());
      skips ? stage.field.performances().skip(id) : stage.field.performances().stop(id);
      CHECK(stage.at_rest() == skips);
      CHECK(stage.field.time().settles_at() < 5);
      CHECK(count_of(EventKind::settled, stage.go(5)) == 1);
      CHECK(stage.at_rest());
      CHECK(stage.field.time().at_rest());
    }
  }
}

TEST_CASE("play: a shake that another feel leaves out leaves nothing behind") {
  Stage stage;
  const CardId card = stage.cards(stage.hand)[0];
  const Feel feel;
  for (const Feel& other : {reduced(feel), [&] {
                              Feel none = feel;
                              none.shake.seconds = 0;
                              return none;
                            }()}) {
    stage.field.performances().set_feel(feel);
    stage.field.performances().shake(card);
    (void)stage.go(stage.field.now() + 0.1);
    stage.field.performances().set_feel(other);
    stage.field.performances().shake(card);
    (void)stage.go(stage.field.now() + 3);
    CHECK(stage.at_rest());
    CHECK(stage.field.time().at_rest());
  }
}

TEST_CASE("play: a client whose clock begins below zero sees cards move at once") {
  Stage stage(Playfield(
      [] {
        TableSetup setup(glasshouse());
        const ZoneId s = setup.add({.name = "stock", .cards = {{.face = {1}}, {.face = {2}}}});
        const ZoneId w = setup.add({.name = "waste", .rules = {.drop = rule::anything()}});
        const ZoneId h = setup.add({.name = "hand"});
        setup.plans = {{.root = across({zone(s), zone(w), zone(h)})}};
        return setup;
      }(),
      {.start_time = -100}));
  CHECK(stage.field.now() == -100);
  (void)stage.field.performances().perform(draw(stage.stock, stage.waste));
  const CardId card = stage.cards(stage.waste)[0];
  (void)stage.go(-99.9);
  CHECK(*stage.field.where().live_pose(card) != *stage.field.where().resting_pose(card));
  CHECK(stage.field.time().settles_at() < -98);
  const auto told = stage.go(-98);
  CHECK(count_of(EventKind::landed, told) == 1);
  CHECK(count_of(EventKind::settled, told) == 1);
  CHECK(stage.at_rest());
}

TEST_CASE("play: times beyond all clocks are ignored and counted") {
  Stage stage;
  stage.field.time().set_speed(1000);
  (void)stage.field.performances().deal();
  for (const double time : {1e308, -1e308, forever, std::nan("")}) {
    stage.field.advance_to(time);
    (void)stage.field.next_event(time);
    CHECK_FALSE(stage.field.pointer({.time = time}));
  }
  CHECK(stage.field.ignored() == 12);
  CHECK(stage.field.now() == 0);
  stage.field.advance_to(1.8e12);  // milliseconds since 1970
  CHECK(stage.at_rest());
}

TEST_CASE("play: events come in order of time, whatever is shifted, resized and late") {
  Feel feel = springy();
  feel.shift.seconds = 0;
  feel.shift.spring.reset();
  feel.move.stagger = 0;
  Hand hand(desk(), {.window = {1000, 700}, .feel = feel});
  hand.drag(hand.grip(hand.cards("hand")[1]), hand.middle("meadow"));
  hand.wait(0.1);
  hand.field.resize({900, 500}, 1, hand.field.now());
  (void)hand.field.edits().move({hand.cards("hand")[1], 1}, hand.zone("shelf"));
  hand.wait(0.05);
  for (const double late : {3.0, 0.1, 0.2}) {
    (void)hand.field.key({.key = Key::next, .time = hand.field.now() - late});
    hand.field.resize({1000, 700}, 1, hand.field.now() - late);
  }
  hand.wait(3);
  CHECK(in_order(hand.told));
  CHECK(hand.count(EventKind::settled) >= 1);
  CHECK(hand.told.back().kind == EventKind::settled);
}

TEST_CASE("play: what is accepted is written, read and replayed, and what cannot be meant is counted") {
  Hand hand(desk(), {.window = {1000, 700}, .start_time = 1.7e12});
  std::vector<Input> log;
  hand.field.set_recorder([&](const Input& input) { log.push_back(input); });
  const TableSetup setup = desk();
  const double now = hand.field.now();
  // What nobody can mean.
  hand.field.resize({-5, 100}, 1, now);
  hand.field.resize({500, 100}, 0, now);
  hand.field.resize({500, 100}, 1, now, {.left = nan_px});
  hand.field.resize({3e38f, 100}, 1, now);
  (void)hand.field.pointer({.at = {2e7f, 0}, .time = now});
  (void)hand.field.pointer(
      {.phase = PointerPhase::down, .at = {9, 9}, .time = now, .button = static_cast<PointerButton>(7)});
  (void)hand.field.pointer({.phase = static_cast<PointerPhase>(9), .time = now});
  (void)hand.field.key({.key = static_cast<Key>(99), .time = now});
  hand.field.performances().set_speed({1}, -1);
  hand.field.edits().set_panel({1}, "", nan_px);
  (void)hand.field.moves().answer(1, {.reason = static_cast<Reason>(250)});
  CHECK(log.empty());
  CHECK(hand.field.ignored() == 11);
  // What is put right.
  hand.field.gate().close("\xff reason");
  CHECK(hand.field.gate().reasons()[0] == "\xEF\xBF\xBD reason");
  hand.field.gate().open("\xff reason");
  CHECK(hand.field.gate().is_open());
  (void)hand.field.time().start_timer(forever);
  (void)hand.field.pointer({.at = {10, 10}, .time = now - 50});
  hand.drag(hand.grip(hand.cards("hand")[1]), hand.middle("meadow"));
  hand.wait(2);
  const std::string text =
      write_log({.options = {.window = {1000, 700}, .start_time = 1.7e12}, .inputs = log}, setup);
  const auto read = parse_log(text, "log", setup);
  REQUIRE(read);
  CHECK(read->inputs == log);
  Playfield again(setup, read->options);
  std::vector<Event> told;
  CHECK(replay(again, read->inputs, hand.field.now(), [&](const Event& e) { told.push_back(e); }) == 0);
  while (const auto e = again.next_event(hand.field.now())) told.push_back(*e);
  CHECK(told == hand.told);
}

TEST_CASE("play: a playfield that was moved from can be copied, assigned and destroyed") {
  Stage stage;
  Playfield kept = std::move(stage.field);
  Playfield copy = stage.field;
  copy = kept;
  CHECK(copy.table().card_count() == 18);
  kept = stage.field;
  stage.field = copy;
  CHECK(stage.field.table().card_count() == 18);
}

TEST_CASE("play: of several parts that are out of range the first is named") {
  Stage stage;
  std::vector<std::string> heard;
  stage.field.set_watcher([&](const Notice& notice) { heard.push_back(describe(notice)); });
  (void)stage.field.pointer({.phase = static_cast<PointerPhase>(99), .at = {nan_px, 0}});
  (void)stage.field.pointer({.at = {nan_px, 0}, .kind = static_cast<PointerKind>(99)});
  CHECK(heard == std::vector<std::string>{"pointer is out of range: it is ignored",
                                          "pointer: 'at' is out of range: it is ignored"});
}

TEST_CASE("play: a watcher hears of what was ignored, late and stale, and each is counted") {
  Stage stage;
  std::vector<std::string> heard;
  stage.field.set_watcher([&](const Notice& notice) { heard.push_back(describe(notice)); });
  (void)stage.go(1);
  (void)stage.field.pointer({.at = {nan_px, 0}, .time = 1});
  (void)stage.field.pointer({.at = {1, 1}, .time = forever});
  (void)stage.field.key({.key = Key::next, .time = 0.5});
  (void)stage.field.edits().flip({999}, true);
  (void)stage.field.performances().perform(sequence(std::vector<Script>(100'001, apsidon::wait(0))));
  stage.field.time().set_speed(-1);
  CHECK(heard == std::vector<std::string>{"pointer: 'at' is out of range: it is ignored",
                                          "pointer has no time that a clock could show: it is ignored",
                                          "key came after its time: it counts as of now",
                                          "edit names what is not there: it changes nothing",
                                          "perform is nested too deep, or has too many acts: it is not begun",
                                          "clock: 'number' is out of range: it is ignored"});
  const auto counted = [](const Playfield& field) {
    std::vector<std::uint64_t> all;
    for (int kind = 0; kind < notice_kind_count; ++kind)
      all.push_back(field.count_of(static_cast<NoticeKind>(kind)));
    return all;
  };
  const std::vector<std::uint64_t> expected{2, 1, 1, 0, 1, 1, 0, 0, 0};
  CHECK(counted(stage.field) == expected);
  CHECK(stage.field.ignored() == 4);
  // They last over rounds and snapshots; a copy has counted the same, and nobody watches it.
  Playfield copy = stage.field;
  (void)copy.edits().flip({999}, true);
  CHECK(heard.size() == 6);
  stage.field.restore(copy);
  stage.field.start_round(1);
  CHECK(counted(stage.field) == expected);
  for (int kind = 0; kind < notice_kind_count; ++kind)
    CHECK(name_of(static_cast<NoticeKind>(kind)) != "unknown");
}

TEST_CASE("play: fingers that come and go leave nothing behind") {
  Hand hand(desk());
  const auto touch = [&](std::uint32_t id) {
    hand.point(PointerPhase::down, {500, 500}, PointerKind::touch, id);
    hand.point(PointerPhase::up, {500, 500}, PointerKind::touch, id);
    hand.told.clear();
  };
  for (std::uint32_t id = 1; id < 200; ++id) touch(id);
  const std::size_t few = allocations_in([&] { touch(1000); });
  for (std::uint32_t id = 2000; id < 4000; ++id) touch(id);
  CHECK(allocations_in([&] { touch(5000); }) == few);
}

TEST_CASE("play: a shuffle by distance takes as long as it says, however far its cards lie") {
  Feel feel;
  feel.shuffle_look = ShuffleLook::wash;
  feel.shuffle_rounds = 1;
  feel.shuffle.by = StaggerBy::distance;
  feel.shuffle.stagger = 0.3f;
  feel.shuffle.longest = 0.2f;
  Stage stage(feel);
  (void)stage.field.performances().perform(shuffle(stage.stock, 3));
  double last = 0;
  int departures = 0;
  for (const Event& e : stage.go(0.4)) {
    if (e.kind != EventKind::departed) continue;
    last = e.time;
    ++departures;
  }
  CHECK(departures == 12);
  CHECK(last > 0.1);
  CHECK(last <= 0.2 + 1e-6);
}

TEST_CASE("play: what a card leaves behind when it is collected follows by the feel") {
  // A layout of the game's own that covers every second card.
  CustomFunctions stripes;
  stripes.lay_out = [](const LayoutInput& in, std::span<Pose> poses) {
    for (std::size_t i = 0; i < poses.size(); ++i) {
      poses[i].centre = in.area.min + Vec2{40.0f + 30.0f * static_cast<float>(i), 60};
      poses[i].flip = i % 2 == 0 ? 0 : 3.14159265f;
    }
    return LayoutReport{};
  };
  stripes.least_size = [](const LayoutNeed&, Size card) { return card * 2; };
  const CustomLayout striped{.name = "striped",
                             .functions = std::make_shared<const CustomFunctions>(stripes)};
  TableSetup setup(glasshouse());
  std::vector<CardOptions> six;
  for (std::uint32_t i = 1; i <= 6; ++i) six.push_back({.face = {i}});
  const ZoneId row = setup.add({.name = "row", .layout = {.kind = striped, .longest = 6}, .cards = six});
  const ZoneId away = setup.add({.name = "away", .layout = {.longest = 6}});
  setup.plans = {{.root = across({zone(row, 1), zone(away)})}};
  Playfield field(setup);
  const CardId second = field.table().zone(row)->cards[1];
  (void)field.performances().perform(collect({second}, away));
  (void)events_until(field, 10);
  for (const CardId card : field.table().zone(row)->cards)
    CHECK(*field.where().live_pose(card) == *field.where().resting_pose(card));
  CHECK(field.time().at_rest());
}

TEST_CASE("files: a table with more cards of a face than its deck has is read again") {
  TableSetup setup(glasshouse());
  const ZoneId slot = setup.add({.name = "slot", .cards = {{.face = {1}}, {.face = {1}}, {.face = {1}}}});
  setup.plans = {{.root = across({zone(slot)})}};
  check(setup);
  const auto read = parse_table(write_table(setup), "table");
  REQUIRE(read);
  CHECK(read->table.card_count() == 3);
}
