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

/// `apsidon play` in a window on a display of its own; `act` is what a hand does meanwhile, in words of
/// xdotool, of which each line is one, or a command of the shell.
Outcome played(const std::string& words, const std::string& act) {
  const std::string script =
      "openbox >/dev/null 2>&1 &\nsleep 0.7\n" + quoted(tool_program()) + " play " + words +
      " &\nplay=$!\nfor i in $(seq 100); do W=$(xdotool search --onlyvisible --name '^Apsidon' | tail -1); "
      "[ -n \"$W\" ] && break; sleep 0.1; done\nsleep 0.7\n" +
      act + "\nsleep 0.6\nkill -TERM $play\nwait $play\n";
  return on_a_display({"sh", "-c", script});
}

/// The pointer goes there, and a button may go down or up; with time enough for the window to see each in a
/// frame of its own.
std::string at(int x, int y, const std::string& button = "") {
  return "xdotool mousemove --window $W " + std::to_string(x) + " " + std::to_string(y) + "; sleep 0.4\n" +
         (button.empty() ? "" : "xdotool " + button + " 1; sleep 0.4\n");
}

/// The kinds of events that a recorded session has told, each with its card's face or its zone.
std::vector<std::string> told(const std::string& table, const std::string& log) {
  const auto replayed = tool({"replay", table, log, "--format", "json"});
  CAPTURE(replayed.err);
  REQUIRE(replayed.code == 0);
  std::vector<std::string> kinds;
  const auto json = nlohmann::json::parse(replayed.out);
  for (const auto& event : json["events"]) kinds.push_back(event["event"]);
  return kinds;
}

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

TEST_CASE("sdl: a knob of the bench is pulled and saved: the file gets that, and all else stays") {
  const Scratch scratch;
  const std::string stall = "data/market-stall.table.json";
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(stall), table);
  // Over a card of the hand, so that the bench shows its zone; then its spacing, and the button that
  // saves.
  const auto outcome =
      played(table + " --no-deal --bench",
             "sleep 0.5\n" + at(420, 660) + at(424, 664) + at(1000, 384, "mousedown") + at(1030, 384) +
                 at(1060, 384, "mouseup") + at(940, 62, "mousedown") + at(940, 62, "mouseup"));
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  auto before = nlohmann::json::parse(contents(source(stall)));
  auto after = nlohmann::json::parse(contents(table));
  const auto hand = [](nlohmann::json& file) -> nlohmann::json& {
    return *std::find_if(file["zones"].begin(), file["zones"].end(),
                         [](const auto& zone) { return zone["id"] == "hand"; });
  };
  const auto layout = hand(after)["layout"];
  REQUIRE(layout.is_object());
  CHECK(layout["spacing"].get<double>() > 0.7);
  CHECK(layout.size() == 2);
  hand(before)["layout"] = layout;
  CHECK(before == after);
}

TEST_CASE("sdl: a knob of one zone of several has no place in their entry, and that is told") {
  const Scratch scratch;
  const std::string table = (scratch / "t.table.json").string();
  std::filesystem::copy(source("data/glasshouse.deck.json"), scratch / "glasshouse.deck.json");
  std::filesystem::copy(source(potting_bench), table);
  // Over column-1, where no card lies: not for all of its name, its strip, saved.
  const auto outcome =
      played(table + " --no-deal --bench",
             "sleep 0.5\n" + at(160, 560) + at(164, 564) + at(994, 539, "mousedown") +
                 at(994, 539, "mouseup") + at(1000, 252, "mousedown") + at(1030, 252) +
                 at(1060, 252, "mouseup") + at(940, 62, "mousedown") + at(940, 62, "mouseup"));
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
  const auto click = [](int x, int y) { return at(x, y, "mousedown") + at(x, y, "mouseup"); };
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
    "zones": [{"id": "row-1", "layout": "hand", "longest": 7}, {"id": "row-2", "layout": "hand", "longest": 4},
              {"id": "row-3", "layout": "pile", "longest": 2}],
    "cards": {"row-1": ["fern-3"]},
    "plans": [{"root": {"down": [{"zone": "row-3"}, {"zone": "row-2"}, {"zone": "row-1"}]}}]})";
  std::ofstream(table) << before;
  const auto outcome =
      played(table + " --no-deal --bench",
             "sleep 0.5\n" + at(445, 660) + at(447, 664) + at(1000, 384, "mousedown") + at(1030, 384) +
                 at(1060, 384, "mouseup") + at(940, 62, "mousedown") + at(940, 62, "mouseup"));
  CAPTURE(outcome.err, contents(table));
  CHECK(outcome.code == 0);
  auto zones = nlohmann::json::parse(contents(table))["zones"];
  CHECK(zones[0]["layout"].value("spacing", 0.0) > 0.7);
  CHECK(zones[1]["layout"] == zones[0]["layout"]);
  const auto was = nlohmann::json::parse(before)["zones"];
  zones[0]["layout"] = zones[1]["layout"] = "hand";
  CHECK(zones == was);
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
    "zones": [{"id": "shelf", "layout": {"kind": "spread", "spacing": 1.1, "least_spacing": 1.1},
               "longest": 52, "scrolls": true}],
    "cards": {"shelf": {"deck": {"packs": 1, "open": true}}}, "plans": [{"root": {"zone": "shelf"}}]})";
  const auto outcome = played(table + " --no-deal --record " + log,
                              at(640, 400) + "xdotool click 5; sleep 0.2; xdotool click 5; sleep 0.4");
  CAPTURE(outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(contents(log), "\"scroll\""));
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
  REQUIRE(played(start + " --log " + log + " --record " + again, "sleep 4.5").code == 0);
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
  const auto differs_from = [&](const std::string& picture) {
    const auto compared =
        run("sh", {"-c", "compare -metric RMSE -extract 900x540+0+0 $(ls " + shots + "/*.png | tail -1) " +
                             picture + " null: 2>&1 | sed 's/.*(\\(.*\\))/\\1/'"});
    CAPTURE(compared.out, compared.err);
    return std::stod(compared.out);
  };
  CHECK(differs_from(drawn) < 0.04);
  REQUIRE(tool({"draw", "data/trellis-start.table.json", "--window", "900x600", "--out", drawn}).code == 0);
  CHECK(differs_from(drawn) > 0.2);
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

TEST_CASE("sdl: where there is no display that is said, and what would be one") {
  const auto outcome = run("env", {"-u", "DISPLAY", "-u", "WAYLAND_DISPLAY", "-u", "SDL_VIDEODRIVER",
                                   tool_program(), "play", potting_bench, "--frames", "3"});
  CHECK(outcome.code == 1);
  CHECK(holds(outcome.err, "there is no display: one is expected, as on a desktop or under xvfb-run"));
}
