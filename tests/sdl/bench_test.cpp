// The bench in its window: what is pulled and set there, shown at once and saved.
#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "support/display.hpp"
#include "support/reference.hpp"

using namespace apsidon::test;

TEST_CASE("sdl: a knob of the bench is pulled and saved: the file gets that, and all else stays") {
  const Scratch scratch;
  const std::string stall = "data/market-stall.table.json";
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(stall), table);
  // Over a card of the hand, so that the bench shows its zone; then its spacing, and the button that
  // saves.
  const auto outcome = played(table + " --no-deal --bench", "sleep 0.5\n" + at(420, 660) + at(424, 664) +
                                                                at(1000, 384, "mousedown") + at(1030, 384) +
                                                                at(1060, 384, "mouseup") + click(940, 62));
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  auto before = nlohmann::json::parse(contents(source(stall)));
  auto after = nlohmann::json::parse(contents(table));
  const auto hand = [](nlohmann::json& file) -> nlohmann::json& {
    return *std::find_if(file["zones"].begin(), file["zones"].end(),
                         [](const auto& zone) { return zone["name"] == "hand"; });
  };
  const auto layout = hand(after)["layout"];
  REQUIRE(layout.is_object());
  CHECK(layout["spacing"].get<double>() > 0.7);
  CHECK(layout.size() == 2);
  hand(before)["layout"] = layout;
  CHECK(before == after);
}

TEST_CASE("sdl: each knob of each layout sets what it names, over its range, and is saved") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::ofstream(table) << R"({"apsidon": "table", "version": 1, "deck": "glasshouse.deck.json", "zones": [
    {"name": "hand", "layout": "hand", "longest": 1}, {"name": "column", "layout": "column", "longest": 1},
    {"name": "pile", "layout": "pile", "longest": 1}, {"name": "spread", "layout": "spread", "longest": 1},
    {"name": "grid", "layout": "grid", "longest": 1}, {"name": "ring", "layout": "ring", "longest": 1}],
    "plans": [{"root": {"down": [
      {"across": [{"zone": "hand", "share": 1}, {"zone": "column", "share": 1}, {"zone": "pile", "share": 1}]},
      {"across": [{"zone": "spread", "share": 1}, {"zone": "grid", "share": 1}, {"zone": "ring", "share": 1}]}]}}]})";
  // A zone is pointed at; its knobs lie below each other, and each is set to the same share of its range.
  constexpr float share = (1100.0f - 918) / 210;
  const auto row = [](int n) { return 245 + 32 * n; };
  const auto knobs = [&](int x, int y, int count) {
    std::string all = at(x, y) + at(x + 4, y);
    for (int n = 0; n < count; ++n) all += click(1100, row(n));
    return all;
  };
  // Of the ring, also what all zones have; "turned" and "zoom" are boxes to tick.
  const auto outcome = played(
      table + " --no-deal --bench",
      knobs(150, 200, 6) + knobs(450, 200, 5) + knobs(750, 200, 3) + knobs(150, 600, 4) + knobs(450, 600, 4) +
          knobs(750, 600, 2) + click(922, row(2)) + click(1100, row(3)) + click(1100, row(4)) +
          click(922, row(7)) + click(1100, row(8)) + click(1100, row(9)) + click(940, 62));
  CAPTURE(outcome.err, contents(table));
  CHECK(outcome.code == 0);
  const auto file = nlohmann::json::parse(contents(table));
  const auto expect = [&](const nlohmann::json& in, const std::string& key, double least, double most,
                          double precision) {
    CAPTURE(key);
    CHECK(in.value(key, -1000.0) == Approx(least + share * (most - least)).margin(precision));
  };
  const auto layout = [&](int zone) { return file["zones"][static_cast<std::size_t>(zone)]["layout"]; };
  expect(layout(0), "spacing", 0.01, 1.5, 0.01);
  expect(layout(0), "least_spacing", 0, 1.3, 0.01);
  expect(layout(0), "step_deg", 0, 20, 0.1);
  expect(layout(0), "largest_angle_deg", 0, 160, 0.1);
  expect(layout(0), "raise", 0, 1, 0.01);
  expect(layout(0), "part", 0, 1, 0.01);
  expect(layout(1), "open_strip", 0.05, 1, 0.01);
  expect(layout(1), "covered_strip", 0.02, 1, 0.01);
  expect(layout(1), "least_open_strip", 0, 0.87, 0.01);
  expect(layout(1), "least_covered_strip", 0, 0.87, 0.01);
  expect(layout(1), "look_strip", 0, 1, 0.01);
  expect(layout(2), "thickness", 0, 0.05, 0.001);
  expect(layout(2), "untidy_angle_deg", 0, 30, 0.1);
  expect(layout(2), "untidy_offset", 0, 0.5, 0.01);
  expect(layout(3), "spacing", 0, 1.5, 0.01);
  expect(layout(3), "least_spacing", 0, 1.3, 0.01);
  expect(layout(3), "last", 0, 20, 1);
  expect(layout(3), "lift", 0, 1, 0.01);
  expect(layout(4), "columns", 0, 20, 1);
  expect(layout(4), "rows", 0, 20, 1);
  expect(layout(4), "gap", 0, 1, 0.01);
  expect(layout(4), "row_gap", 0, 1, 0.01);
  expect(layout(5), "start_deg", -180, 180, 0.2);
  expect(layout(5), "sweep_deg", 10, 360, 0.2);
  CHECK_FALSE(layout(5).value("turned", true));
  const auto& ring = file["zones"][5];
  expect(ring, "factor", 0.2, 3, 0.01);
  expect(ring, "longest", 0, 60, 1);
  CHECK(ring.value("zoom", false));
  const auto& plan = file["plans"][0];
  expect(plan["root"]["down"][1], "gap", 0, 2, 0.01);
  expect(plan, "margin", 0, 120, 1);
}

TEST_CASE(
    "sdl: the bench takes a move back and makes it again, slows the table, stops it and goes on by a step") {
  const Scratch scratch;
  const std::string log = (scratch / "s.log").string();
  // The stock gives a card; then the bench's buttons, and its box to stop.
  const auto outcome =
      played(potting_bench + " --bench --no-deal --record " + log,
             click(150, 90) + "sleep 0.8\n" + click(1076, 93) + "sleep 0.6\n" + click(1132, 93) +
                 "sleep 0.6\n" + click(965, 125) + click(922, 157) + click(1040, 157));
  CAPTURE(outcome.err, contents(log));
  CHECK(outcome.code == 0);
  std::vector<std::string> done;
  std::istringstream lines(contents(log));
  for (std::string line; std::getline(lines, line);) {
    const auto input = nlohmann::json::parse(line);
    for (const std::string key : {"undo", "redo", "clock", "hold", "release"}) {
      if (input.contains(key) && input[key] != "background") done.push_back(key);
    }
    if (input.contains("clock")) CHECK(input["number"].get<double>() == Approx(0.45).margin(0.02));
  }
  CHECK(done == std::vector<std::string>{"undo", "redo", "clock", "hold", "release", "hold"});
  auto kinds = told(potting_bench, log);
  std::erase_if(
      kinds, [](const std::string& kind) { return kind != "drawn" && kind != "undone" && kind != "redone"; });
  CHECK(kinds == std::vector<std::string>{"drawn", "undone", "redone"});
}

TEST_CASE("sdl: a knob of one zone of several has no place in their entry, and that is told") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  // Over column-1, where no card lies: not for all of its name, its strip, saved.
  const auto outcome =
      played(table + " --no-deal --bench", "sleep 0.5\n" + at(160, 560) + at(164, 564) + click(994, 539) +
                                               at(1000, 252, "mousedown") + at(1030, 252) +
                                               at(1060, 252, "mouseup") + click(940, 62));
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  CHECK(contents(table) == contents(source(potting_bench)));
  CHECK(holds(outcome.err, "what has changed of 'column-1' alone is not saved"));
}

TEST_CASE(
    "sdl: a face, a strip, a gap and a curve of the bench are in the files that it saves, line by "
    "line") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  const auto pull = [](int x0, int y0, int x1, int y1) {
    return at(x0, y0, "mousedown") + at((x0 + x1) / 2, (y0 + y1) / 2) + at(x1, y1, "mouseup");
  };
  // The waste's top card gets the first face of the list; then column-1, where no card lies; then the curve
  // of making room, by its first control point.
  const auto outcome =
      played(table + " --no-deal --bench",
             "sleep 0.5\n" + at(250, 60) + at(255, 60) + click(1000, 268) + click(950, 310) + at(160, 560) +
                 at(164, 564) + pull(1000, 252, 1060, 252) + pull(1000, 572, 1020, 572) + click(940, 62) +
                 click(1036, 191) + click(925, 267) + pull(1060, 490, 1100, 440) + click(1030, 62));
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  const std::string was = contents(source(potting_bench)), is = contents(table);
  const auto lines = [](const std::string& text) {
    std::vector<std::string> all;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) all.push_back(line);
    return all;
  };
  const auto a = lines(was), b = lines(is);
  REQUIRE(a.size() == b.size());
  int changed = 0;
  for (std::size_t i = 0; i < a.size(); ++i) changed += a[i] == b[i] ? 0 : 1;
  CHECK(changed == 3);
  const auto then = nlohmann::json::parse(was), now = nlohmann::json::parse(is);
  CHECK(then["cards"]["waste"][2] == "reed-2");
  CHECK(now["cards"]["waste"][2] == "fern-1");
  CHECK(now["zones"][3]["layout"].value("open_strip", 0.0) > 0.4);
  CHECK(now["plans"][1]["root"]["down"][1].value("gap", 0.0) > 0.5);
  const auto feel = nlohmann::json::parse(contents(scratch / "t.feel.json"));
  CHECK(feel["shift"]["curve"].get<std::string>().starts_with("cubic-bezier(0."));
}

TEST_CASE("sdl: a knob for all of one name changes of the others what it stands for, and no more") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  const std::string before = R"({"apsidon": "table", "version": 1, "deck": "glasshouse.deck.json",
    "zones": [{"name": "row-1", "layout": "hand", "longest": 7}, {"name": "row-2", "layout": "hand", "longest": 4},
              {"name": "row-3", "layout": "pile", "longest": 2}],
    "cards": {"row-1": ["fern-3"]},
    "plans": [{"root": {"down": [{"zone": "row-3"}, {"zone": "row-2"}, {"zone": "row-1"}]}}]})";
  std::ofstream(table) << before;
  const auto outcome = played(table + " --no-deal --bench", "sleep 0.5\n" + at(445, 660) + at(447, 664) +
                                                                at(1000, 384, "mousedown") + at(1030, 384) +
                                                                at(1060, 384, "mouseup") + click(940, 62));
  CAPTURE(outcome.err, contents(table));
  CHECK(outcome.code == 0);
  auto zones = nlohmann::json::parse(contents(table))["zones"];
  CHECK(zones[0]["layout"].value("spacing", 0.0) > 0.7);
  CHECK(zones[1]["layout"] == zones[0]["layout"]);
  const auto was = nlohmann::json::parse(before)["zones"];
  zones[0]["layout"] = zones[1]["layout"] = "hand";
  CHECK(zones == was);
}

TEST_CASE("sdl: the bench by the pointer, the file, the feel, events and outlines is what was looked at") {
  const Scratch scratch;
  // By how much the bench differs from what is kept, with the tab that lies so many px from the left in
  // front.
  const auto differs = [&](const std::string& name, int tab, const std::string& act) {
    const std::string shot = (scratch / (name + ".png")).string();
    const auto outcome =
        played(potting_bench + " --no-deal --bench",
               at(tab, 189, "click") + act + at(800, 600) + "sleep 0.5\nimport -window $W " + quoted(shot));
    CHECK(outcome.code == 0);
    // How long a frame took is written below.
    return differs_from_kept(shot, name, "1280x700+0+0");
  };
  const std::string to_column = at(700, 300) + at(730, 330);
  CHECK(differs("bench-pointer", 939, to_column) < 0.03);
  CHECK(differs("bench-file", 991, to_column) < 0.03);
  CHECK(differs("bench-feel", 1035, "") < 0.03);
  CHECK(differs("bench-outlines", 1157, at(922, 217, "click")) < 0.03);
  CHECK(differs("bench-events", 1089, "") < 0.03);
  // What is told is listed there, each with its time.
  if (!references_are_renewed()) CHECK(differs("bench-events", 1089, at(255, 90) + at(245, 85)) > 0.1);
}

TEST_CASE("sdl: a single card of a deck lies on the bench, and one that is not in it is told") {
  const auto shown = [](const std::string& face) {
    return run("timeout",
               {"60", "xvfb-run", "--auto-servernum", "--server-args=-screen 0 1400x1000x24", tool_program(),
                "play", "data/glasshouse.deck.json", "--card", face, "--frames", "5"});
  };
  const auto outcome = shown("fern-12");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  const auto unknown = shown("fern-14");
  CHECK(unknown.code == 2);
  CHECK(holds(unknown.err, "'fern-14' is no face of data/glasshouse.deck.json, whose first is fern-1"));
}
