// Examples with a window: the four games, played to their ends, a program with its own loop, a widget of Qt.
#include <catch2/catch.hpp>

#include "support/display.hpp"

using namespace apsidon::test;

TEST_CASE("sdl: the four games and a program of its own open a window, by the same few lines") {
  const auto shown = [](std::vector<std::string> words) -> std::string {
    words[0] = (std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + words[0])).string();
    const auto outcome = on_a_display(words);
    CAPTURE(words[0], outcome.out, outcome.err);
    CHECK(outcome.code == 0);
    return outcome.out;
  };
  for (const std::string game : {"potting-bench", "seed-drawer", "market-stall", "trellis"})
    CHECK(
        (game == "seed-drawer") !=
        holds(shown({"game_window", game, "data/" + game + "-start.table.json", "3", "25"}), "sound: slide"));
  CHECK(shown({"sdl_program", "30"}).empty());
}

TEST_CASE("sdl: cards that are drawn by textures are seen on the screen") {
  const Scratch scratch;
  const std::string program = (std::filesystem::path(APSIDON_EXAMPLES) / "example_sdl_program").string();
  // Paper, in each of seven cards: a share of the screen that only cards fill, as soon as they have been
  // dealt.
  const std::string script =
      quoted(program) + " 100000 >/dev/null & program=$!\ncd " + quoted((scratch / "").string()) +
      "\nfor i in $(seq 25); do sleep 1; import -window root shot.png; share=$(convert shot.png -fuzz 6% "
      "-fill white "
      "-opaque '#FBF6EA' -fill black +opaque white -format '%[fx:mean > 0.03 && mean < 0.5]' info:); "
      "[ \"$share\" = 1 ] && break; done\nkill -TERM $program; wait $program; echo \"$share\"\n";
  const auto outcome = on_a_display({"sh", "-c", script});
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.out == "1\n");
}

namespace {

/// A game is played to its end in a window, by what a mouse, a finger or a keyboard sends; its last line.
std::string played_out(const std::string& game, int seed, const std::string& size, const std::string& means) {
  const std::string table = source("data/" + game + "-start.table.json").string();
  const auto outcome =
      on_a_display({"sh", "-c",
                    "openbox >/dev/null 2>&1 & sleep 0.7; exec " + quoted(APSIDON_WINDOW_PLAYER) + " " +
                        game + " " + quoted(table) + " " + std::to_string(seed) + " " + size + " " + means},
                   150);
  CAPTURE(game, size, means, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.out, "; over; "));
  CHECK(holds(outcome.out, "; the box shows"));
  return outcome.out;
}

}  // namespace

TEST_CASE("sdl: the potting bench is cleared by a mouse in a window") {
  CHECK(holds(played_out("potting-bench", 4, "1280x800", "mouse"), "52 of 52 cards in the beds"));
}

TEST_CASE("sdl: the potting bench is cleared by a finger in a window as small as a phone") {
  CHECK(holds(played_out("potting-bench", 76, "390x844", "touch"), "52 of 52 cards in the beds"));
}

TEST_CASE("sdl: the seed drawer is emptied in a window, large and small") {
  CHECK(holds(played_out("seed-drawer", 1, "1280x800", "touch"), "10 of 10 sets found"));
  CHECK(holds(played_out("seed-drawer", 2, "390x844", "mouse"), "10 of 10 sets found"));
}

TEST_CASE("sdl: a hand is sold at the market in a window, large and small") {
  CHECK(holds(played_out("market-stall", 12, "1280x800", "keys"), "you sold 9, the others 20"));
  CHECK(holds(played_out("market-stall", 11, "390x844", "touch"), "you sold 8, the others 20"));
}

TEST_CASE("sdl: the trellis is tied in a window, large and small") {
  CHECK(holds(played_out("trellis", 1, "1280x800", "mouse"), "slots are empty"));
  CHECK(holds(played_out("trellis", 1, "390x844", "keys"), "slots are empty"));
}

namespace {

/// An example that is built where its library is there: dragged in from one place of the screen to another,
/// with its window at the top left, then closed. Returns what it said, or nothing where it was not built;
/// `bytes` is how large its picture is.
std::optional<std::string> dragged_in(const std::string& example, const std::string& moves,
                                      std::size_t& bytes, const std::string& environment = "") {
  const std::filesystem::path program = std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + example);
  if (!std::filesystem::exists(program)) {
    WARN(example << ": its library is not there, and it was not built");
    return std::nullopt;
  }
  const Scratch scratch;
  const std::string shot = (scratch / "shot.png").string();
  const std::string script =
      "openbox >/dev/null 2>&1 &\nsleep 0.7\n" + environment + quoted(program.string()) +
      " &\nprogram=$!\nfor i in $(seq 100); do W=$(xdotool search --onlyvisible --pid $program | tail -1); "
      "[ -n \"$W\" ] && break; sleep 0.1; done\nsleep 1\n" +
      moves + "sleep 0.8\ntimeout 20 import -window $W " + quoted(shot) +
      "\nkill -TERM $program\nwait $program\n";
  const auto outcome = on_a_display({"sh", "-c", script});
  CAPTURE(outcome.out, outcome.err);
  REQUIRE(std::filesystem::exists(shot));
  bytes = std::filesystem::file_size(shot);
  return outcome.err;
}

/// Where the window of the example lies, moved there so that places in it are known.
const std::string at_top_left = "xdotool windowmove --sync $W 100 100\nsleep 0.3\n";

}  // namespace

// Seven cards are many colours: an empty window, or plain quads, are some hundred bytes.

TEST_CASE("sdl: a widget of Qt shows two hands and takes a drag, with two device pixels to a px") {
  std::size_t bytes = 0;
  // The hand lies below: its middle card, in px of the screen, goes up to the upper hand.
  if (const auto said = dragged_in("qt_widget", drag(640, 720, 640, 240), bytes, "QT_SCALE_FACTOR=2 ")) {
    CHECK(holds(*said, "laid on upper."));
    CHECK(bytes > 20'000);
  }
}

TEST_CASE("sdl: a hand is drawn with OpenGL, by Qt Quick and by SFML, and sorted there by a drag") {
  for (const std::string example : {"opengl", "qt_quick", "sfml"}) {
    CAPTURE(example);
    std::size_t bytes = 0;
    const auto said = dragged_in(example, at_top_left + drag(400, 350, 700, 320), bytes);
    if (!said) continue;
    CHECK(bytes > 60'000);
    if (example != "opengl") CHECK(holds(*said, "laid on hand."));
  }
}
