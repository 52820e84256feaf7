// The rooms that keep something, each alone: events, the gate, numbers, timers, panels.
#include <algorithm>
#include <catch2/catch.hpp>
#include <deque>
#include <limits>
#include <map>
#include <set>
#include <string>

#include "play/decides/trail.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/gate.hpp"
#include "play/keeps/ids.hpp"
#include "play/keeps/inbox.hpp"
#include "play/keeps/panels.hpp"
#include "play/keeps/schedule.hpp"
#include "play/keeps/switches.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

TEST_CASE(
    "play: events are read as they were told, and only beyond a limit the oldest are lost, and counted") {
  for_all("events", 20, [](Random& r) {
    EventQueue events;
    std::deque<Event> told;
    std::uint32_t number = 0;
    for (int i = r.between(0, 200); i > 0; --i) {
      if (r.chance(0.4f) && events.any()) {
        RC_ASSERT(events.take() == told.front());
        told.pop_front();
        continue;
      }
      Event event{.kind = EventKind::landed, .time = 1.0 * number, .card = {++number}, .count = 1};
      if (r.chance(0.5f)) {
        events.tell(event);
      } else {
        // Of a card that lies covered the face is not kept.
        const Card card{.id = event.card, .face = {7}, .face_up = r.chance(0.5f)};
        if (card.face_up) event.face = card.face;
        events.tell_card(event.kind, event.time, card, {});
      }
      told.push_back(event);
    }
    while (events.any()) {
      RC_ASSERT(events.take() == told.front());
      told.pop_front();
    }
    RC_ASSERT(told.empty() && events.lost() == 0);
  });
  EventQueue full;
  for (std::uint32_t i = 1; i <= most_unread_events + 3; ++i) full.tell({.card = {i}});
  CHECK(full.lost() == 3);
  CHECK(full.take()->card == CardId{4});
}

TEST_CASE("play: inputs come out in order of their times, equals as they came in") {
  for_all("inbox", 10, [](Random& r) {
    Inbox inbox;
    std::vector<std::pair<double, std::uint64_t>> put;
    for (std::uint64_t i = 0; i < 40; ++i) {
      put.emplace_back(r.below(6), i);
      inbox.put(RoundInput{.seed = i, .time = put.back().first});
    }
    std::sort(put.begin(), put.end());
    for (const auto& [time, seed] : put) {
      RC_ASSERT(inbox.due() == time);
      RC_ASSERT(inbox.first<RoundInput>() && !inbox.first<KeyInput>());
      RC_ASSERT(inbox.take() == AnyInput(RoundInput{.seed = seed, .time = time}));
    }
    RC_ASSERT(inbox.due() == std::numeric_limits<double>::infinity());
  });
}

TEST_CASE("play: an event that is written in the place of another has nothing of it") {
  EventQueue events;
  events.tell({.kind = EventKind::cue, .time = 1, .card = {7}, .proposal = 9, .name = "drum"});
  (void)events.take();
  for (int i = 0; i < 16; ++i) events.tell_card(EventKind::landed, 2, {.id = {1}, .zone = {3}}, {});
  while (events.any()) {
    CHECK(events.take() == Event{.kind = EventKind::landed, .time = 2, .card = {1}, .count = 1, .to = {3}});
  }
}

TEST_CASE("play: what a log foretells is answered once, in its order, and everything said is told") {
  Trail trail;
  const Table table{Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}})};
  const OwnRule rule{.name = "mine", .judge = [](const RuleQuestion&) { return Verdict{}; }};
  const OwnRule bare{.name = "theirs"};
  const RuleQuestion question{.table = table};
  trail.foretell(OwnRuleInput{.rule = "mine", .verdict = {.reason = Reason::own_rule}});
  CHECK(trail.answer(bare, question).reason == Reason::unbound);   // nobody is there to ask
  CHECK(trail.answer(rule, question).reason == Reason::own_rule);  // foretold
  CHECK(trail.answer(rule, question).allowed());                   // asked
  CHECK(trail.take_told().size() == 3);
  CHECK(trail.judge({.id = 1})->allowed());
  CHECK(trail.take_told().empty());  // no judge, nothing was said
  trail.foretell(JudgedInput{.proposal = 3});
  trail.set_judge([](const Proposal&) { return Verdict{.reason = Reason::refused_by_game}; });
  CHECK(trail.judge({.id = 2})->reason == Reason::refused_by_game);
  CHECK_FALSE(trail.judge({.id = 3}).has_value());
  CHECK(
      trail.take_told() ==
      std::vector<AnyInput>{JudgedInput{.proposal = 2, .verdict = Verdict{.reason = Reason::refused_by_game}},
                            JudgedInput{.proposal = 3}});
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
  for (int i = 0; i < 5; ++i) (void)there.next_countdown();
  here.keep_ahead_of(there);
  CHECK(here.next_proposal() == 4);
  CHECK(here.next_countdown() == CountdownId{6});
  CHECK(here.next_performance() == PerformanceId{1});
}

TEST_CASE("play: the table's clock stands exactly while a reason holds it, however often that was given") {
  Schedule schedule(0);
  const auto goes = [&](double time) {
    const double before = schedule.clock().own();
    schedule.clock().advance_to(time);
    return schedule.clock().own() > before;
  };
  CHECK(goes(1));
  schedule.hold("menu");
  schedule.hold("background");
  schedule.hold("menu");
  CHECK(schedule.holds().size() == 2);
  CHECK_FALSE(goes(2));
  schedule.release("menu");
  schedule.release("nobody");
  CHECK_FALSE(goes(3));
  schedule.release("background");
  CHECK(goes(4));
}

TEST_CASE("play: timers and countdowns are told once, each when it is due, however time is cut") {
  for_all("schedule", 10, [](Random& r) {
    Schedule schedule(0.0);
    EventQueue events;
    std::vector<double> rings;
    for (std::uint32_t i = 1; i <= 5; ++i) {
      rings.push_back(double{r.uniform(0, 2)});
      schedule.start_timer({i}, rings.back(), 0);
    }
    schedule.add_countdown({6}, 1.5, true);
    RC_ASSERT(schedule.countdown({6}) != nullptr && schedule.countdown({7}) == nullptr);
    schedule.start_waiting(0.25);
    rings.push_back(1.75);
    const std::uint32_t stopped = static_cast<std::uint32_t>(r.between(1, 5));
    schedule.remove_countdown({stopped});
    rings.erase(rings.begin() + stopped - 1);
    for (double t = 0; t < 3;) {
      const double due = schedule.due();
      t = std::min(due, t + double{r.uniform(0.01f, 0.7f)});
      schedule.clock().advance_to(t);
      schedule.ring(t, t, events);
    }
    std::vector<double> told;
    while (events.any()) told.push_back(events.take()->time);
    std::sort(rings.begin(), rings.end());
    RC_ASSERT(told == rings);
    RC_ASSERT(schedule.due() == std::numeric_limits<double>::infinity());
    // Timers are gone, a countdown is there to be set anew.
    for (std::uint32_t i = 1; i <= 5; ++i) RC_ASSERT(schedule.countdown({i}) == nullptr);
    RC_ASSERT(schedule.countdown({6}) != nullptr && schedule.countdown({6})->over());
  });
}

TEST_CASE("play: a panel is found by its name, and shows a share from 0 to 1") {
  Panels panels({{.name = "score"}, {.name = "time", .kind = PanelKind::bar}});
  CHECK(panels.find("time") == PanelId{2});
  CHECK(panels.find("lives") == PanelId{});
  const std::uint64_t before = panels.revision();
  panels.show({.panel = {2}, .text = "dusk", .fill = 1.5f, .tone = PanelTone::bad});
  CHECK(panels.panel({3}) == nullptr);
  CHECK(panels.all()[1].tone == PanelTone::bad);
  CHECK(panels.all()[1].fill == 1);
  CHECK(panels.all()[1].text == "dusk");
  CHECK(panels.revision() == before + 1);
}

TEST_CASE("play: a thing is off while a reason has it so, hidden things are off, and marks end in time") {
  for_all("switches", 30, [](Random& r) {
    using What = SwitchInput::What;
    Switches switches({});
    // What holds each of six things, kept in the plainest way.
    const Switchable things[] = {CardId{1}, CardId{2}, ZoneId{1}, ZoneId{2}, PanelId{1}, PanelId{2}};
    std::set<std::string> off[6];
    std::set<std::string> hidden[6];
    std::map<std::string, double> marks[6];  // with their ends
    double own = 0;
    for (int i = 0; i < 90; ++i) {
      const std::size_t of = r.below(6);
      const auto what = static_cast<What>(r.below(6));
      const std::string reason = r.chance(0.5f) ? "" : "asleep";
      if (what == What::mark || what == What::unmark) {
        const double seconds = r.chance(0.5f) ? r.between(1, 9) : 0;
        marks[of].erase(reason);
        if (what == What::mark) marks[of][reason] = seconds > 0 ? own + seconds : 1e9;
        RC_ASSERT(
            !switches.turn({.what = what, .of = things[of], .reason = reason, .seconds = seconds}, own));
        own += r.between(0, 2);
        switches.end_marks(own);
        double due = 1e9;
        for (std::size_t t = 0; t < 6; ++t) {
          std::erase_if(marks[t], [&](const auto& mark) { return mark.second <= own; });
          for (const auto& [name, end] : marks[t]) due = std::min(due, end);
          RC_ASSERT(switches.marks_of(things[t]).size() == marks[t].size());
        }
        RC_ASSERT(std::min(switches.due(), 1e9) == due);
        continue;
      }
      auto& held = what == What::hide || what == What::show ? hidden[of] : off[of];
      const bool gives = what == What::off || what == What::hide;
      const bool changes = gives ? held.insert(reason).second : held.erase(reason) > 0;
      RC_ASSERT(switches.turn({.what = what, .of = things[of], .reason = reason}, own) == changes);
      std::size_t cards = 0;
      std::size_t zones = 0;
      for (std::size_t t = 0; t < 6; ++t) {
        const bool is_off = !off[t].empty() || !hidden[t].empty();
        RC_ASSERT(switches.is_off(things[t]) == is_off);
        RC_ASSERT(switches.is_hidden(things[t]) == !hidden[t].empty());
        cards += is_off && things[t].card ? 1u : 0u;
        zones += is_off && things[t].zone ? 1u : 0u;
      }
      RC_ASSERT(switches.off().cards.size() == cards);
      RC_ASSERT(switches.off().zones.size() == zones);
    }
    RC_ASSERT(!switches.turn({.what = What::off, .of = {}, .reason = "nothing"}, own));
  });
}
