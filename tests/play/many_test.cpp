// By the ten thousand: what takes the square of its number would stand still here.
#include <catch2/catch.hpp>
#include <set>

#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: timers and countdowns by the fifty thousand ring once each, in the order of their times") {
  Stage stage;
  Random r(7);
  std::map<std::uint32_t, double> timers;
  std::map<std::uint32_t, double> countdowns;
  auto& time = stage.field.time();
  for (int i = 0; i < 49'000; ++i) {
    const double at = static_cast<double>(r.below(100'000)) / 1000 + 1;
    timers[time.start_timer(at).value] = at;
    const CountdownId countdown = time.add_countdown(at);
    time.start_countdown(countdown);
    countdowns[countdown.value] = at;
  }
  for (std::uint32_t stopped = 1; stopped < 20'000; stopped += 2) {
    if (timers.erase(stopped)) time.stop_countdown({stopped});
    if (countdowns.erase(stopped)) time.stop_countdown({stopped});
  }
  double last = 0;
  for (const Event& e : stage.go(200)) {
    REQUIRE(e.time >= last);
    last = e.time;
    if (e.kind == EventKind::rang) {
      REQUIRE(timers.at(e.countdown.value) == Approx(e.time).epsilon(0).margin(1e-9));
      timers.erase(e.countdown.value);
    } else if (e.kind == EventKind::time_up) {
      REQUIRE(countdowns.at(e.countdown.value) == Approx(e.time).epsilon(0).margin(1e-9));
      countdowns.erase(e.countdown.value);
    }
  }
  CHECK(timers.empty());
  CHECK(countdowns.empty());
}

TEST_CASE("play: a script of a hundred thousand waits is done at its time") {
  Stage stage;
  stage.field.performances().perform(sequence(std::vector<Script>(99'999, wait(0.001))));
  const std::vector<Event> events = stage.go(200);
  const auto end =
      std::find_if(events.begin(), events.end(), [](const Event& e) { return e.kind == EventKind::ended; });
  REQUIRE(end != events.end());
  CHECK(end->time == Approx(99.999).margin(1e-6));
}

TEST_CASE("play: ten thousand zones of one line are read, laid out, hit, judged, written and read again") {
  const std::string text = R"({"apsidon": "table", "version": 1,
      "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1"]},
      "zones": [{"name": "bed", "repeat": 10000, "pick": "top", "drop": "anything"}],
      "panels": [{"name": "name", "repeat": 10000, "kind": "caption", "text": "bed {n}"}],
      "cards": {"bed-1": ["fern-1"], "bed-9999": ["fern-1"]},
      "plans": [{"margin": 0, "root": {"across": [
        {"each": "bed", "as": {"down": [{"panel": "name"}, {"zone": "bed"}]}}]}}]})";
  const auto setup = parse_table(text, "t.json");
  REQUIRE(setup.has_value());
  CHECK(setup->panels[4999].name == "name-5000");
  Playfield field(*setup, {.window = {9'000'000, 700}});
  const ZoneId last = *field.table().find_zone("bed-10000");
  CHECK(field.where().hit(field.where().area(last)->centre()) == Hit{.zone = last});
  CHECK(field.rules().legal_moves().size() == 2 * 9'999);
  const std::string written = write_table(*setup);
  const auto again = parse_table(written, "t.json");
  REQUIRE(again.has_value());
  CHECK(write_table(*again) == written);
}

TEST_CASE("rules: of a hundred million legal moves the first so many are listed") {
  TableSetup setup(glasshouse(200));
  for (int i = 0; i < 10'000; ++i) {
    setup.add({.name = "bed-" + std::to_string(i),
               .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything()},
               .cards = {{.face = {static_cast<std::uint32_t>(i % 52 + 1)}}}});
  }
  std::vector<Move> moves;
  find_legal_moves(setup.table, setup.rulebook(), moves, 5);
  CHECK(moves.size() == 5);
  const std::vector<Move> all = legal_moves(setup.table, setup.rulebook());
  CHECK(all.size() == most_legal_moves);
  CHECK(std::equal(moves.begin(), moves.end(), all.begin()));
  CHECK(any_legal_move(setup.table, setup.rulebook()));
}
