// What the tool prints for programs, what its help promises, and what it does where nothing can be written.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "support/process.hpp"
#include "support/schema.hpp"

using namespace apsidon::test;

namespace {

Ran shell(const std::string& command) { return run("/bin/sh", {"-c", command}); }

}  // namespace

TEST_CASE("tool: what every verb prints for programs has one shape, and is as its schema says") {
  const std::vector<std::vector<std::string>> calls{
      {"place", "data/market-stall.table.json"},
      {"place", potting_bench, "--zone", "bed-1"},
      {"probe", potting_bench, "--at", "640,100"},
      {"probe", potting_bench, "--at", "1,1"},
      {"judge", potting_bench},
      {"judge", potting_bench, "--card", "reed-2"},
      {"film", potting_bench, "--motion", "draw", "--rate", "4"},
      {"curve", "ease-out", "spring(0.4, 0.7)"},
      {"fit", potting_bench},
      {"fit", potting_bench, "--window", "40x30"},
      {"check", potting_bench},
      {"check", potting_bench, "--window", "200x200"},
      {"replay", potting_bench, "data/potting-bench.log"},
  };
  for (std::vector<std::string> words : calls) {
    const std::string verb = words.front();
    words.insert(words.end(), {"--format", "json"});
    const auto outcome = tool(words);
    CAPTURE(verb, outcome.out.substr(0, 400), outcome.err);
    REQUIRE(nlohmann::json::accept(outcome.out));
    const auto json = nlohmann::json::parse(outcome.out);
    CHECK(json["apsidon"] == verb);
    CHECK(json["version"] == 1);
    CHECK(Schema("output/" + verb).accepts(json));
  }
}

TEST_CASE("tool: every example of its help runs") {
  const Scratch scratch;
  std::filesystem::create_directory_symlink(source("data"), scratch / "data");
  int examples = 0;
  for (const std::string verb :
       {"place", "draw", "probe", "judge", "film", "curve", "faces", "fit", "check", "replay", "demo"}) {
    const auto help = lines_of(tool({verb, "--help"}).out);
    for (const std::string& line : help) {
      const auto at = line.find("apsidon " + verb + " ");
      if (at == std::string::npos || line.find("Usage") != std::string::npos) continue;
      ++examples;
      const auto outcome = shell("cd " + quoted((scratch / "").string()) + " && " + quoted(tool_program()) +
                                 line.substr(at + 7));
      CAPTURE(line, outcome.out.substr(0, 400), outcome.err);
      CHECK(outcome.code <= 1);
      CHECK(outcome.err.empty());
      // Where it answers no, it says to what.
      if (outcome.code == 1) CHECK((verb == "fit" || verb == "check" || verb == "judge"));
    }
  }
  CHECK(examples >= 14);
}

TEST_CASE("tool: output that cannot be written is an error, and one that nobody reads on is none") {
  const std::string place = tool_program() + " place " + potting_bench;
  const std::vector<std::string> commands{place + " > /dev/full", place + " >&-",
                                          tool_program() + " --help > /dev/full"};
  for (const std::string& command : commands) {
    const auto outcome = shell(command);
    CAPTURE(command, outcome.err);
    CHECK(outcome.code == 3);
  }
  CHECK(holds(shell(place + " > /dev/full").err, "the output cannot be written: No space left on device"));
  const auto head = shell("for i in 1 2 3 4 5 6 7 8; do " + place + " --format json; done | head -1");
  CHECK(head.out == "{\n");
  CHECK(head.err.empty());
}

TEST_CASE(
    "tool: replay tells every event, only the sentences where that is asked for, and refuses another's log") {
  const auto all = lines_of(tool({"replay", potting_bench, "data/potting-bench.log"}).out);
  const auto json = nlohmann::json::parse(
      tool({"replay", potting_bench, "data/potting-bench.log", "--format", "json"}).out);
  CHECK(all.size() == json["events"].size() + 1);
  const auto told = lines_of(tool({"replay", potting_bench, "data/potting-bench.log", "--sentences"}).out);
  CHECK(told.size() < all.size());
  const auto exchanged = tool({"replay", "data/potting-bench.log", potting_bench});
  CHECK(exchanged.code == 2);
  CHECK(holds(exchanged.err, "apsidon replay " + potting_bench + " data/potting-bench.log"));
  const auto others = tool({"replay", "data/trellis.table.json", "data/potting-bench.log"});
  CHECK(others.code == 3);
  CHECK(holds(others.err, "the log is of a session with another table"));
}

TEST_CASE("tool: film says to how many cards it happens, and shows art that is named") {
  const Scratch scratch;
  const auto film = [&](std::vector<std::string> words) {
    words.insert(words.begin(), {"film", potting_bench});
    words.insert(words.end(), {"--shots", "2", "--sheet", "300x200", "--out", (scratch / "f.png").string()});
    return tool(words);
  };
  CHECK(holds(film({"--motion", "flip", "--card", "reed-2"}).out, ": flip of 1 card in "));
  CHECK(holds(film({"--motion", "flip", "--count", "4"}).out, ": flip of "));
  CHECK(holds(film({"--motion", "draw", "--count", "2"}).out, ": draw of 2 cards in "));
  CHECK(holds(film({"--motion", "gather"}).out, ": gather of 52 cards in "));
  const std::string plain = contents(scratch / "f.png");
  REQUIRE(tool({"faces", "data/glasshouse.deck.json", "--recipe",
                "data/drawings/seedling/seedling.recipe.json", "--compose", (scratch / "s.png").string()})
              .code == 0);
  CHECK(film({"--motion", "gather", "--art", (scratch / "s.art.json").string()}).code == 0);
  CHECK(contents(scratch / "f.png") != plain);
}

TEST_CASE("tool: in CSV a cell with a quote or a comma is quoted, and its quotes are doubled") {
  const Scratch scratch;
  const std::pair<const char*, const char*> cells[] = {{"lone\"quote", "\"lone\"\"quote\""},
                                                       {"with,comma", "\"with,comma\""}};
  for (const auto& [name, cell] : cells) {
    const std::string file = (scratch / "t.table.json").string();
    nlohmann::json table{{"apsidon", "table"}, {"version", 1}};
    table["deck"] = {{"suits", {{{"name", "fern"}, {"colour", "green"}}}}, {"ranks", {"1"}}};
    table["zones"] = {{{"name", name}}};
    table["cards"] = {{name, {"fern-1"}}};
    table["plans"] = {{{"root", {{"zone", name}}}}};
    std::ofstream(file) << table;
    const auto said = tool({"place", file, "--format", "csv"});
    CAPTURE(said.err);
    REQUIRE(said.code == 0);
    CHECK(said.out.find(cell) != std::string::npos);
  }
}
