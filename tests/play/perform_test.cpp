// Scripts and what they come to: order of events, handles, clocks.
#include <algorithm>
#include <cmath>
#include <map>

#include "support/stage.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

Feel cued() {
  Feel feel;
  feel.draw.cues = {{"lift", 0}, {"half", 0.5f}, {"clack", 1}};
  return feel;
}

}  // namespace

TEST_CASE("play: drawn cards leave one by one, turn on the way, land in order, and cues come between") {
  Stage s(cued());
  const std::vector<CardId> top3 = [&] {
    const auto all = s.cards(s.stock);
    return std::vector<CardId>{all.rbegin(), all.rbegin() + 3};
  }();
  const PerformanceId id = s.field.performances().perform(draw(s.stock, s.waste, 3));
  // The table's truth changes at once, the picture follows.
  CHECK(s.cards(s.waste) == top3);
  CHECK(s.field.table().card(top3[0])->face_up);
  CHECK_FALSE(s.at_rest());
  CHECK(s.field.performances().running(id));
  const auto events = s.go(5);
  CHECK(counted(events) == std::map<EventKind, int>{{EventKind::began, 1},
                                                    {EventKind::departed, 3},
                                                    {EventKind::edge_on, 3},
                                                    {EventKind::arrived, 3},
                                                    {EventKind::landed, 3},
                                                    {EventKind::cue, 3},
                                                    {EventKind::ended, 1},
                                                    {EventKind::settled, 1}});
  CHECK(std::is_sorted(events.begin(), events.end(),
                       [](const Event& a, const Event& b) { return a.time < b.time; }));
  std::vector<CardId> landed;
  for (const Event& e : events) {
    if (e.kind == EventKind::landed) landed.push_back(e.card);
    if (e.kind == EventKind::cue && e.name == "half") CHECK(e.time == Approx((0.36 + 0.18) / 2));
    if (e.kind == EventKind::ended) CHECK(e.time == Approx(0.36 + 0.18));
  }
  CHECK(landed == top3);
  CHECK(s.at_rest());
  CHECK_FALSE(s.field.performances().running(id));
}

TEST_CASE("play: each part of a sequence begins at the very time at which the one before ended") {
  const auto run = [](double step) {
    Stage s;
    const auto hand = s.cards(s.hand);
    s.field.performances().perform(
        sequence({wait(0.25), together({flip(hand, false), pulse({hand[0]})}), shuffle(s.hand, 5),
                  reveal({hand[1], hand[2]}, 0.5), draw(s.stock, s.hand, 2), finale()}));
    std::vector<Event> all;
    for (double t = step; t < 12; t += step) {
      for (const Event& e : s.go(t)) all.push_back(e);
    }
    CHECK(s.at_rest());
    return all;
  };
  const auto coarse = run(11.9);
  const auto fine = run(1.0 / 144);
  CHECK(coarse.size() > 60);
  CHECK(coarse == fine);
}

TEST_CASE("play: a performance can be skipped to its end, whatever is still to come in it") {
  for_all("skip", 2, [](Random& r) {
    Stage s(r.chance(0.5f) ? springy() : Feel{});
    const auto hand = s.cards(s.hand);
    Script scripts[] = {deal(),
                        gather(s.stock),
                        shuffle(s.hand, 3),
                        draw(s.stock, s.hand, 4),
                        finale(),
                        collect({hand[0], hand[3]}, s.waste),
                        reveal({hand[1]}, 1)};
    const Script script = sequence({scripts[r.below(7)], wait(0.3), scripts[r.below(7)]});
    Stage whole(s.field.performances().feel());
    const PerformanceId id = s.field.performances().perform(script);
    whole.field.performances().perform(script);
    s.field.advance_to(double{r.uniform(0, 1.5f)});
    const bool moves = s.field.time().settles_at() > s.field.now();
    s.field.performances().skip(id);
    RC_ASSERT(!s.field.performances().running(id));
    RC_ASSERT(s.at_rest());
    RC_ASSERT(s.field.time().settles_at() == s.field.now());
    const int settled = counted(s.go(s.field.now() + 1))[EventKind::settled];
    RC_ASSERT((moves ? settled == 1 : settled <= 1));
    whole.field.advance_to(60);
    RC_ASSERT(whole.at_rest());
    for (const Zone& zone : s.field.table().zones()) RC_ASSERT(zone.cards == whole.cards(zone.id));
  });
}

TEST_CASE(
    "play: a deal interrupted by a gather, then a new deal, then skip, ends in exactly the resting poses") {
  for_all("interrupted", 2, [](Random& r) {
    Stage s(r.chance(0.5f) ? springy() : Feel{}, 20, 52);
    s.field.performances().deal();
    s.field.advance_to(double{r.uniform(0, 2)});
    s.field.performances().perform(gather(s.stock));
    s.field.advance_to(s.field.now() + double{r.uniform(0, 0.6f)});
    RC_ASSERT(s.cards(s.stock).size() == 72);
    s.field.performances().perform(draw(s.stock, s.hand, 52));
    s.field.advance_to(s.field.now() + double{r.uniform(0, 0.3f)});
    const PerformanceId last = s.field.performances().deal();
    s.field.advance_to(s.field.now() + double{r.uniform(0, 1)});
    s.field.performances().skip(last);
    s.field.advance_to(s.field.time().settles_at() + 10);
    RC_ASSERT(s.at_rest());
    assert_whole(s.field.table(), 72);
  });
}

TEST_CASE("play: a stopped performance sends its cards home and forgets what had not begun") {
  Stage s;
  const PerformanceId id = s.field.performances().perform(sequence({deal(), draw(s.stock, s.waste, 3)}));
  s.field.advance_to(0.3);
  s.field.performances().stop(id);
  const auto events = s.go(5);
  CHECK(counted(events)[EventKind::stopped] == 1);
  CHECK(counted(events)[EventKind::ended] == 0);
  CHECK(s.at_rest());
  CHECK(s.cards(s.waste).empty());
  s.field.performances().stop(id);
  s.field.performances().skip(id);
  s.field.performances().skip({99});
}

TEST_CASE("play: cards that are taken away in a performance that stands still keep nothing awake") {
  Stage s;
  const PerformanceId deal = s.field.performances().deal();
  s.field.performances().set_speed(deal, 0);
  s.field.performances().shake(s.cards(s.hand)[1]);
  REQUIRE(s.field.edits().remove(s.cards(s.hand)[1]));
  const std::vector<WantedZone> nothing{{.key = Stage::hand_key}};
  REQUIRE(s.field.edits().sync(nothing).retired.size() == 5);
  s.field.performances().stop(deal);
  CHECK(std::isfinite(s.field.time().settles_at()));
  CHECK(counted(s.go(20))[EventKind::settled] == 1);
}

TEST_CASE("play: a performance has a pace of its own, and stands still at none") {
  Stage s;
  const PerformanceId id = s.field.performances().perform(draw(s.stock, s.waste, 1));
  const CardId card = s.cards(s.waste)[0];
  s.field.advance_to(0.1);
  s.field.performances().set_speed(id, 0);
  const Pose paused = *s.field.where().live_pose(card);
  s.field.advance_to(7);
  CHECK(*s.field.where().live_pose(card) == paused);
  CHECK(std::isinf(s.field.time().settles_at()));
  s.field.performances().set_speed(id, 2);
  CHECK(s.field.time().settles_at() == Approx(7.13));
  const auto events = s.go(9);
  CHECK(s.at_rest());
  for (const Event& e : events) {
    if (e.kind == EventKind::landed) CHECK(e.time == Approx(7.13));
  }
  s.field.performances().set_speed(id, NAN);
  CHECK(s.field.ignored() == 1);
}

TEST_CASE("play: flipping a card a hundred times in a second ends on the right side") {
  for (const Feel& feel : {Feel{}, springy(), calm()}) {
    Stage s(feel);
    const CardId card = s.cards(s.hand)[2];
    for (int i = 1; i <= 101; ++i) {
      s.field.advance_to(i * 0.01);
      REQUIRE(s.field.edits().flip(card, i % 2 == 0));
    }
    CHECK(s.field.where().live_pose(card)->flip > 0);
    s.field.advance_to(6);
    CHECK(*s.field.where().live_pose(card) == *s.field.where().resting_pose(card));
    CHECK_FALSE(s.field.table().card(card)->face_up);
    for (const FrameItem& item : s.field.frame().items) {
      if (item.card == card) CHECK(item.back);
    }
  }
}

TEST_CASE("play: a flip to a face that is not known waits on its edge, and goes on when it is told") {
  Stage s;
  const CardId card = s.cards(s.stock).back();
  REQUIRE(s.field.edits().set_face(card, hidden_face));
  REQUIRE(s.field.edits().flip(card, true));
  s.field.advance_to(3);
  CHECK(s.field.where().live_pose(card)->flip == Approx(1.5707963));
  for (const FrameItem& item : s.field.frame().items) {
    if (item.card == card) CHECK_FALSE(item.face);
  }
  REQUIRE(s.field.edits().set_face(card, {7}));
  s.field.advance_to(3.15);
  CHECK(s.field.where().live_pose(card)->flip < 1.5f);
  s.field.advance_to(5);
  CHECK(s.field.where().live_pose(card)->flip == 0);
  CHECK(s.field.edits().set_face(card, {999}).reason == Reason::unknown_face);
}

TEST_CASE("play: the side that shows changes exactly when the event says that it turns") {
  Stage s;
  const CardId card = s.cards(s.hand)[0];
  REQUIRE(s.field.edits().flip(card, false));
  const auto shows_back = [&] {
    for (const FrameItem& item : s.field.frame().items) {
      if (item.card == card) return item.back;
    }
    return false;
  };
  Stage other;
  REQUIRE(other.field.edits().flip(card, false));
  double turned = 0;
  for (const Event& e : other.go(2)) {
    if (e.kind == EventKind::edge_on) turned = e.time;
  }
  CHECK(turned == Approx(0.15));
  s.field.advance_to(turned - 1e-6);
  CHECK_FALSE(shows_back());
  s.field.advance_to(turned + 1e-6);
  CHECK(shows_back());
}

TEST_CASE("play: the table's clock can be held and sped up, and timers and countdowns go by it") {
  Stage s;
  s.field.performances().deal();
  s.field.advance_to(0.2);
  const CardId card = s.cards(s.hand)[5];
  s.field.time().hold("menu");
  const Pose held = *s.field.where().live_pose(card);
  const CountdownId timer = s.field.time().start_timer(1);
  s.field.time().stop_countdown(s.field.time().start_timer(0.5));
  const CountdownId count = s.field.time().add_countdown(4);
  s.field.time().start_countdown(count);
  s.field.advance_to(50);
  CHECK(*s.field.where().live_pose(card) == held);
  CHECK(s.field.time().stopped_for("menu"));
  CHECK(s.field.time().share_left(count) == 1);
  s.field.time().release("menu");
  s.field.time().set_speed(2);
  const auto events = s.go(60);
  double rang = 0;
  double up = 0;
  for (const Event& e : events) {
    if (e.kind == EventKind::rang && e.countdown == timer) rang = e.time;
    if (e.kind == EventKind::time_up && e.countdown == count) up = e.time;
  }
  CHECK(rang == Approx(50.5));
  CHECK(up == Approx(52));
  CHECK(counted(events)[EventKind::rang] == 1);
  CHECK(s.at_rest());
  // What is over stays over.
  s.field.time().extend_countdown(count, 100);
  s.field.time().start_countdown(count);
  CHECK(counted(s.go(400))[EventKind::time_up] == 0);
  s.field.time().reset_countdown(count, 10);
  s.field.time().start_countdown(count);
  s.field.time().extend_countdown(count, 2);
  CHECK(s.field.time().seconds_left(count) == 12);
  CHECK(counted(s.go(410))[EventKind::time_up] == 1);
  CHECK(s.field.time().seconds_left({9}) == 0);
}

TEST_CASE("play: what is told while the table's clock is held has the time of what brought it") {
  // Whether a client asks often or rarely: the same events at the same times.
  std::vector<Event> often;
  for (const double step : {0.01, 10.0}) {
    Stage s;
    s.field.performances().deal();
    s.field.advance_to(60);
    s.field.time().hold("menu");
    s.field.advance_to(61);
    std::vector<Event> told;
    (void)events_so_far(s.field);
    const auto to = [&](double time) {
      while (s.field.now() < time) {
        for (const Event& e : s.go(std::min(s.field.now() + step, time))) told.push_back(e);
      }
    };
    to(61.5);
    send(s.field, KeyInput{.key = Key::next, .time = 61.5});
    s.field.performances().perform(flip({s.cards(s.hand)[0]}, false));
    to(62);
    send(s.field, BlurInput{62});
    to(63);
    REQUIRE(counted(told)[EventKind::began] == 1);
    for (const Event& e : told) {
      CHECK(e.time >= 61.5);
      if (e.kind == EventKind::began) CHECK(e.time == 61.5);
    }
    if (often.empty()) {
      often = told;
    } else {
      CHECK(told == often);
    }
  }
}

TEST_CASE("play: a countdown can begin at the player's first move") {
  Stage s;
  const CountdownId count = s.field.time().add_countdown(9, true);
  s.field.advance_to(100);
  CHECK(s.field.time().seconds_left(count) == 9);
  const Vec2 from = s.field.where().resting_pose(s.cards(s.hand)[3])->centre;
  const Vec2 to = s.field.where().area(s.waste)->centre();
  send(s.field, PointerInput{.phase = PointerPhase::down, .at = from, .time = 100});
  for (int i = 1; i <= 5; ++i) {
    send(s.field, PointerInput{.phase = PointerPhase::move,
                               .at = from + (to - from) * (static_cast<float>(i) / 5),
                               .time = 100 + i * 0.1});
  }
  send(s.field, PointerInput{.phase = PointerPhase::up, .at = to, .time = 101});
  REQUIRE(s.cards(s.waste).size() == 1);
  s.field.advance_to(103);
  CHECK(s.field.time().seconds_left(count) == 7);
}

TEST_CASE("play: stale cards and unknown zones in a script are passed over") {
  Stage s;
  const PerformanceId id = s.field.performances().perform(sequence(
      {move_cards({{999}}, s.waste), gather({77}), shuffle({77}, 1), draw({77}, s.waste), flip({{999}}, true),
       shake({{999}}), collect({{999}}, {77}), wait(-5), together({}), sequence({})}));
  CHECK_FALSE(s.field.performances().running(id));
  CHECK(s.at_rest());
  CHECK(s.cards(s.stock).size() == 12);
}

TEST_CASE("play: starting over in mid-flight equals a fresh start, up to ids") {
  for_all("start over", 4, [](Random& r) {
    const TableSetup setup = random_setup(r);
    Playfield field(random_setup(r), {.window = {900, 600}});
    const auto used = field.table().last_id();
    field.performances().deal();
    field.advance_to(double{r.uniform(0, 1)});
    field.performances().perform(sequence({gather(field.table().zones()[0].id), finale()}));
    const CountdownId count = field.time().add_countdown(5);
    field.time().start_countdown(count);
    (void)field.time().start_timer(0.1);
    const auto revision = field.frame().revision;
    field.start_over(setup);
    const Playfield fresh(setup, {.window = {900, 600}});
    RC_ASSERT(field.frame().revision > revision);
    RC_ASSERT(field.frame().items.size() == fresh.frame().items.size());
    for (std::size_t i = 0; i < fresh.frame().items.size(); ++i) {
      FrameItem item = field.frame().items[i];
      if (item.card) item.card.value -= used.value;
      RC_ASSERT(item == fresh.frame().items[i]);
    }
    RC_ASSERT(field.time().settles_at() == field.now());
    RC_ASSERT(field.time().share_left(count) == 0);
    (void)events_so_far(field);
    for (const Event& e : events_until(field, field.now() + 20))
      RC_ASSERT(e.kind != EventKind::rang && e.kind != EventKind::ended);
    for (std::uint32_t id = 1; id <= used.value; ++id) RC_ASSERT(field.table().card({id}) == nullptr);
    assert_whole(field.table(), setup.table.card_count());
  });
}

TEST_CASE(
    "play: a card whose goal shifts while its performance stands still is not left hanging in the air") {
  for (const bool skipped : {false, true}) {
    Stage s;
    const PerformanceId id = s.field.performances().deal();
    s.field.advance_to(0.3);
    s.field.performances().set_speed(id, 0);
    // One card of the hand goes; the others, on their way, have other places now.
    REQUIRE(s.field.edits().move({s.cards(s.hand)[0], 1}, s.waste));
    s.field.advance_to(5);
    CHECK_FALSE(s.at_rest());
    if (skipped) {
      s.field.performances().skip(id);
    } else {
      s.field.performances().stop(id);
    }
    s.field.advance_to(9);
    CHECK(s.at_rest());
    CHECK(s.field.time().settles_at() == 9);
  }
}
