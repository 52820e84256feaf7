// The rooms that keep something, each alone: events, the gate, numbers, timers, panels.
#include <catch2/catch.hpp>

#include "play/event_queue.hpp"
#include "play/gate.hpp"
#include "play/ids.hpp"
#include "play/panels.hpp"
#include "play/schedule.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

TEST_CASE("play: events are read in order of time, equals as they were told, and none is lost") {
  for_all("events", 20, [](Random& r) {
    EventQueue events;
    std::vector<Event> told;
    for (int i = r.between(0, 40); i > 0; --i) {
      const Event event{.kind = EventKind::landed,
                        .time = static_cast<double>(r.below(6)),
                        .card = {static_cast<std::uint32_t>(told.size() + 1)},
                        .count = 1};
      if (r.chance(0.5f)) {
        events.tell(event);
      } else {
        events.tell_card(event.kind, event.time, event.card, {}, {});
      }
      told.push_back(event);
    }
    RC_ASSERT(events.readable().empty());
    events.sort_from(0);
    events.publish();
    std::stable_sort(told.begin(), told.end(),
                     [](const Event& a, const Event& b) { return a.time < b.time; });
    RC_ASSERT(std::equal(told.begin(), told.end(), events.readable().begin(), events.readable().end()));
    events.publish();
    RC_ASSERT(events.readable().empty());
  });
}

TEST_CASE("play: an event that is written in the place of another has nothing of it") {
  EventQueue events;
  events.tell({.kind = EventKind::cue, .time = 1, .card = {7}, .proposal = 9, .name = "drum"});
  events.publish();
  events.publish();
  events.tell_card(EventKind::landed, 2, {1}, {3}, {});
  events.publish();
  CHECK(events.readable()[0] ==
        Event{.kind = EventKind::landed, .time = 2, .card = {1}, .count = 1, .to = {3}});
}

TEST_CASE("play: a gate is closed while a reason holds it, each reason once") {
  Gate gate;
  CHECK(gate.is_open());
  CHECK(gate.close("menu"));
  CHECK_FALSE(gate.close("menu"));
  CHECK(gate.close("server"));
  gate.open("menu");
  CHECK_FALSE(gate.is_open());
  CHECK_FALSE(gate.closed_for("menu"));
  CHECK(std::vector<std::string>(gate.reasons().begin(), gate.reasons().end()) ==
        std::vector<std::string>{"server"});
  gate.open("server");
  gate.open("nobody");
  CHECK(gate.is_open());
}

TEST_CASE("play: numbers go on where whichever playfield is further has stopped") {
  Ids here;
  Ids there;
  for (int i = 0; i < 3; ++i) (void)here.next_proposal();
  for (int i = 0; i < 5; ++i) (void)there.next_timer();
  here.keep_ahead_of(there);
  CHECK(here.next_proposal() == 4);
  CHECK(here.next_timer() == TimerId{6});
  CHECK(here.next_performance() == PerformanceId{1});
  CHECK(here.next_countdown() == CountdownId{1});
}

TEST_CASE("play: timers and countdowns are told once, each when it is due, however time is cut") {
  for_all("schedule", 10, [](Random& r) {
    Schedule schedule(0.0);
    EventQueue events;
    std::vector<double> rings;
    for (std::uint32_t i = 1; i <= 5; ++i) {
      rings.push_back(double{r.uniform(0, 2)});
      schedule.start_timer({i}, rings.back());
    }
    schedule.add_countdown({1}, 1.5, true);
    RC_ASSERT(schedule.countdown({1}) != nullptr && schedule.countdown({2}) == nullptr);
    schedule.start_waiting(0.25);
    rings.push_back(1.75);
    const std::uint32_t stopped = static_cast<std::uint32_t>(r.between(1, 5));
    schedule.stop_timer({stopped});
    rings.erase(rings.begin() + stopped - 1);
    for (double t = 0; t < 3;) {
      const double due = schedule.due();
      t = std::min(due, t + double{r.uniform(0.01f, 0.7f)});
      schedule.clock().advance_to(t);
      schedule.ring(t, events);
    }
    events.publish();
    std::vector<double> told;
    for (const Event& e : events.readable()) told.push_back(e.time);
    std::sort(rings.begin(), rings.end());
    RC_ASSERT(told == rings);
    RC_ASSERT(schedule.due() == std::numeric_limits<double>::infinity());
  });
}

TEST_CASE("play: a panel is found by its name, and shows a share from 0 to 1") {
  Panels panels({{.name = "score"}, {.name = "time", .kind = PanelKind::bar}});
  CHECK(panels.find("time") == PanelId{2});
  CHECK(panels.find("lives") == PanelId{});
  const std::uint64_t before = panels.revision();
  panels.show({2}, "dusk", 1.5f);
  panels.show({3}, "nothing", 0);
  CHECK(panels.all()[1].fill == 1);
  CHECK(panels.all()[1].text == "dusk");
  CHECK(panels.revision() == before + 1);
}
