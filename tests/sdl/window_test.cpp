// The window with real pointers, wheels and keys: SDL's events come from an X server, and from a window
// manager.
#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "support/display.hpp"
#include "support/reference.hpp"

using namespace apsidon::test;

namespace {

long count(const std::vector<std::string>& kinds, const std::string& kind) {
  return std::count(kinds.begin(), kinds.end(), kind);
}

}  // namespace

TEST_CASE("sdl: a mouse drags in the window: what is allowed is dropped, what is not goes back") {
  const Scratch scratch;
  const std::string log = (scratch / "s.log").string();
  // Reed-2 lies on the waste and belongs on bed-2; marigold-9 does not.
  const auto outcome = played(potting_bench + " --no-deal --record " + log,
                              drag(79, 290, 1200, 290) + drag(79, 470, 1200, 290));
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.out, "inputs"));
  const auto kinds = told(potting_bench, log);
  CHECK(count(kinds, "picked-up") == 2);
  CHECK(count(kinds, "dropped") == 1);
  CHECK(count(kinds, "refused") + count(kinds, "cancelled") == 1);
  CHECK(count(kinds, "hovered") >= 2);
}

TEST_CASE("sdl: keys, a resize in mid-drag, and a window that is closed") {
  const Scratch scratch;
  const std::string log = (scratch / "s.log").string();
  const auto outcome =
      played(potting_bench + " --no-deal --record " + log,
             "xdotool windowfocus $W; sleep 0.2; xdotool key Tab Tab space; sleep 0.3; xdotool key Escape; "
             "sleep 0.2\nxdotool mousemove --window $W 79 290; sleep 0.1; xdotool mousedown 1\n" +
                 moves(79, 290, 500, 400) +
                 "xdotool windowsize $W 900 700; sleep 0.6; xdotool mouseup 1; sleep 0.3");
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  const auto kinds = told(potting_bench, log);
  CHECK(count(kinds, "focused") >= 2);
  CHECK(count(kinds, "picked-up") >= 1);
  CHECK(count(kinds, "cancelled") >= 1);
  CHECK(holds(contents(log), "\"resize\""));
}

TEST_CASE("sdl: without anybody a window shows a deal, counts its frames and takes pictures of them") {
  const Scratch scratch;
  const auto outcome =
      run("timeout", {"60", "xvfb-run", "--auto-servernum", "--server-args=-screen 0 1400x1000x24",
                      tool_program(), "play", "data/trellis.table.json", "--window", "390x844", "--frames",
                      "60", "--shots", (scratch / "shots").string()});
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.out, "frames drawn: core "));
  int pictures = 0;
  for (const auto& entry : std::filesystem::directory_iterator(scratch / "shots"))
    pictures += entry.path().extension() == ".png" ? 1 : 0;
  CHECK(pictures >= 2);  // of as many frames as the machine draws meanwhile
  CHECK(pictures <= 12);
}

TEST_CASE(
    "sdl: a table that is saved while it is played shows at once, and a broken one leaves the last good "
    "one") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  const auto outcome =
      played(table + " --no-deal", "sleep 1; echo '{' > " + table +
                                       "; sleep 1.3; xdotool mousemove --window $W 200 200; sleep 0.3\n");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.err, "this is not JSON"));
}

TEST_CASE(
    "sdl: a file that is saved while its cards fly changes how they lie, and not where the game stands") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string(), log = (scratch / "s.log").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  // It is being dealt when the columns get further apart; afterwards a card goes to a bed as ever.
  const auto outcome =
      played(table + " --seed 7 --record " + log,
             "sed -i 's/\"gap\": 0.2}/\"gap\": 0.3}/' " + table + "; sleep 4; " + at(120, 80, "click"));
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  const std::string inputs = contents(log);
  CHECK(holds(inputs, "\"plans\""));
  CHECK_FALSE(holds(inputs, "\"start_over\""));
  CHECK(count(told(potting_bench, log), "drawn") == 1);
}

TEST_CASE("sdl: a drag is cancelled when another window takes the attention") {
  const Scratch scratch;
  const std::string log = (scratch / "s.log").string();
  const auto outcome =
      played(potting_bench + " --no-deal --record " + log,
             at(79, 290, "mousedown") + moves(79, 290, 500, 400) +
                 "xterm & other=$!; sleep 1.5; kill $other; sleep 0.3; xdotool mouseup 1; sleep 0.3");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  const auto kinds = told(potting_bench, log);
  CHECK(count(kinds, "picked-up") == 1);
  CHECK(count(kinds, "cancelled") == 1);
  CHECK(count(kinds, "dropped") == 0);
}

TEST_CASE("sdl: a wheel scrolls the zone below the mouse") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string(), log = (scratch / "s.log").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::ofstream(table) << R"({"apsidon": "table", "version": 1, "deck": "glasshouse.deck.json",
    "zones": [{"name": "shelf", "layout": {"kind": "spread", "spacing": 1.1, "least_spacing": 1.1},
               "longest": 52, "scrolls": true}],
    "cards": {"shelf": {"deck": {"packs": 1, "open": true}}}, "plans": [{"root": {"zone": "shelf"}}]})";
  const auto outcome = played(table + " --no-deal --record " + log,
                              at(640, 400) + "xdotool click 5; sleep 0.2; xdotool click 5; sleep 0.4");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  // Down, and so to what lies beyond the end.
  double scrolled_to = 0;
  for (const std::string& line : lines_of(contents(log))) {
    const auto input = nlohmann::json::parse(line);
    if (input.contains("scroll")) scrolled_to = input["offset"];
  }
  CHECK(scrolled_to > 50);
}

TEST_CASE("sdl: a session that is played back in the window is the session that it was") {
  const Scratch scratch;
  const std::string log = (scratch / "a.log").string(), again = (scratch / "b.log").string();
  std::ofstream first(log);
  std::istringstream all(contents(source("data/potting-bench.log")));
  std::string line;
  for (int i = 0; i < 12 && std::getline(all, line); ++i) first << line << "\n";
  first.close();
  const auto outcome = played(potting_bench + " --log " + log + " --record " + again, "sleep 2.5");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  const auto was = told(potting_bench, log), is = told(potting_bench, again);
  REQUIRE(was.size() > 3);
  CHECK(std::vector(is.begin(), is.begin() + static_cast<long>(std::min(is.size(), was.size()))) == was);
}

TEST_CASE("sdl: what a button did is done once when the session is played back") {
  const Scratch scratch;
  const std::string start = "data/potting-bench-start.table.json";
  const std::string log = (scratch / "a.log").string(), again = (scratch / "b.log").string();
  // Two cards of the stock, and the button that takes the second back.
  REQUIRE(played(start + " --no-deal --record " + log,
                 at(75, 90, "click") + at(78, 92, "click") + "sleep 0.6\n" + at(200, 763, "click"))
              .code == 0);
  REQUIRE(played(start + " --log " + log + " --record " + again, "sleep 8").code == 0);
  for (const std::string& session : {log, again}) {
    const auto kinds = told(start, session);
    CHECK(count(kinds, "drawn") == 2);
    CHECK(count(kinds, "undone") == 1);
  }
}

TEST_CASE("sdl: a card that gets another face in its file gets it on the table") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string(), log = (scratch / "s.log").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  const auto outcome =
      played(table + " --no-deal --record " + log,
             "sed -i 's/\"poppy-13\", \"reed-2\"/\"poppy-13\", \"fern-1\"/' " + table + "; sleep 1.5");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  CHECK(count(told(potting_bench, log), "face-changed") == 1);
  CHECK_FALSE(holds(contents(log), "\"start_over\""));
}

TEST_CASE("sdl: what the window shows at rest is the picture that is drawn without one") {
  const Scratch scratch;
  const std::string shots = (scratch / "shots").string(), drawn = (scratch / "drawn.png").string();
  REQUIRE(tool({"draw", "data/trellis.table.json", "--window", "900x600", "--out", drawn}).code == 0);
  const auto outcome =
      run("timeout", {"60", "xvfb-run", "--auto-servernum", "--server-args=-screen 0 1400x1000x24",
                      tool_program(), "play", "data/trellis.table.json", "--window", "900x600", "--no-deal",
                      "--frames", "12", "--shots", shots});
  REQUIRE(outcome.code == 0);
  // The line about the bench lies at the lower edge. In the window cards are shown from pictures of
  // them: their edges are as smooth, and not the same to the bit. Another picture differs ten times as much.
  const auto differs = [&](const std::string& seen, const std::string& picture) {
    const auto compared = run("sh", {"-c", "compare -metric RMSE -extract 900x540+0+0 " + seen + " " +
                                               picture + " null: 2>&1 | sed 's/.*(\\(.*\\))/\\1/'"});
    CAPTURE(compared.out, compared.err);
    return std::stod(compared.out);
  };
  const auto differs_from = [&](const std::string& picture) {
    return differs("$(ls " + shots + "/*.png | tail -1)", picture);
  };
  CHECK(differs_from(drawn) < 0.04);
  // And so is what stands on the screen, until there is a new round.
  const std::string log = (scratch / "s.log").string(), before = (scratch / "a.png").string(),
                    after = (scratch / "b.png").string();
  CHECK(played("data/trellis.table.json --window 900x600 --no-deal --record " + log,
               "import -window $W " + before +
                   "; xdotool mousemove --window $W 5 5; xdotool key n; sleep 3; import -window $W " + after)
            .code == 0);
  CHECK(differs(before, drawn) < 0.04);
  CHECK(differs(after, drawn) > 0.2);
  CHECK(holds(contents(log), "\"round\""));
  REQUIRE(tool({"draw", "data/trellis-start.table.json", "--window", "900x600", "--out", drawn}).code == 0);
  CHECK(differs_from(drawn) > 0.2);
}

TEST_CASE("sdl: where there is no display that is said, and what would be one") {
  const auto outcome = run("env", {"-u", "DISPLAY", "-u", "WAYLAND_DISPLAY", "-u", "SDL_VIDEODRIVER",
                                   tool_program(), "play", potting_bench, "--frames", "3"});
  CHECK(outcome.code == 1);
  CHECK(holds(outcome.err, "there is no display: one is expected, as on a desktop or under xvfb-run"));
}
