// Sessions through every call there is, replayed from nothing but a table file and a log.
#include <cmath>
#include <filesystem>
#include <fstream>
#include <iomanip>
#include <sstream>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/loop.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/session.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// All digits, so that it reads back as the same number.
std::string fmt_time(double time) {
  std::ostringstream out;
  out << std::setprecision(17) << time;
  return out.str();
}

std::vector<std::string> events_told(const std::vector<Event>& told, const Table& table) {
  std::vector<std::string> lines;
  for (const Event& e : told) lines.push_back(event_line(e, table));
  return lines;
}

}  // namespace

TEST_CASE("play: any session through the public interface is replayed from its table and its log alone") {
  for_all("sessions with every call", 2, [](Random& r) {
    const bool hostile = r.chance(0.5f);
    Session session(with_rules_in_code(r),
                    {.window = {r.uniform(600, 1300), 700}, .feel = springy(), .most_undos = 5}, hostile);
    for (int i = 0; i < 60; ++i) {
      session.step(r);
      RC_ASSERT(session.wrong(r) == "");
    }
    session.finish();
    RC_ASSERT(session.wrong_at_end() == "");
  });
}

TEST_CASE("play: going back to a snapshot of another session cannot be replayed, and is said") {
  const TableSetup setup = []() {
    TableSetup made(glasshouse());
    (void)made.add({.name = "slot", .cards = {{.face = {1}}}});
    made.plans = {{.root = across({zone({1})})}};
    return made;
  }();
  Playfield other(setup);
  (void)other.edits().flip({1}, false);
  (void)other.edits().flip({1}, true);
  Playfield field(setup);
  std::vector<Input> log;
  field.set_recorder([&](const Input& input) { log.push_back(input); });
  const Playfield own = field;
  field.advance_to(1);
  field.restore(own);
  Playfield again(setup);
  CHECK(replay(again, log, 9, [](const Event&) {}) == 0);
  field.restore(other);
  Playfield once_more(setup);
  CHECK(replay(once_more, log, 9, [](const Event&) {}) == 1);
}

TEST_CASE("tool: sessions of the four demo tables replay exactly from table and log") {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-session-test";
  std::filesystem::create_directories(folder);
  Random r(20261127);
  for (const std::string name : {"potting-bench", "seed-drawer", "market-stall", "trellis"}) {
    for (int round = 0; round < 3; ++round) {
      CAPTURE(name, round);
      const auto loaded = load_table(source("data/" + name + "-start.table.json"));
      REQUIRE(loaded);
      Session session(dealt(*loaded, r.below(1000)), {.window = {1280, 800}});
      for (int i = 0; i < 150; ++i) session.step(r);
      session.finish();
      CHECK(session.wrong_at_end() == "");
      const auto file = [&](const std::string& what) { return (folder / (name + what)).string(); };
      std::ofstream(file(".table.json")) << write_table(session.setup());
      std::ofstream(file(".log")) << write_log(session.log(), session.setup());
      {
        std::ofstream events(file(".events"));
        for (const std::string& line : events_told(session.told(), session.field().table()))
          events << line << "\n";
      }
      const auto out = tool({"replay", file(".table.json"), file(".log"), "--check", file(".events"),
                             "--until", fmt_time(session.field().now())});
      CAPTURE(out.out, out.err);
      CHECK(out.code == 0);
      const InputLog log = session.log();
      const bool judged = std::any_of(log.inputs.begin(), log.inputs.end(),
                                      [](const Input& i) { return name_of(i) == "judged"; });
      CHECK((out.out.find("answered from the log: the game's judge") != std::string::npos) == judged);
      // A log of another table is refused.
      const auto other = tool({"replay", source("data/trellis.table.json"), file(".log")});
      CHECK(other.code == 3);
      CHECK(other.err.find("another table") != std::string::npos);
    }
  }
}

TEST_CASE("tool: what a rule in the game's code has answered is told to come from the log") {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-session-test";
  std::filesystem::create_directories(folder);
  Random r(4);
  Session session(with_rules_in_code(r), {.window = {900, 700}});
  for (int i = 0; i < 80; ++i) session.step(r);
  const std::string table = (folder / "own.table.json").string();
  const std::string log = (folder / "own.log").string();
  std::ofstream(table) << write_table(session.setup());
  std::ofstream(log) << write_log(session.log(), session.setup());
  const auto out = tool({"replay", table, log});
  CAPTURE(out.out, out.err);
  CHECK(out.code == 0);
  CHECK(out.out.find("answered from the log: the game's rule 'few'") != std::string::npos);
}
