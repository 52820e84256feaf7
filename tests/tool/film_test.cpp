// Films and curves, as the tool makes them.
#include <catch2/catch.hpp>
#include <map>
#include <nlohmann/json.hpp>

#include "support/process.hpp"

using namespace apsidon::test;

namespace {

int count_of(const std::string& text, const std::string& part) {
  int count = 0;
  for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++count;
  return count;
}

}  // namespace

TEST_CASE("tool: every motion of every feel can be filmed, and ends with each card where the table has it") {
  for (const std::string motion :
       {"deal", "gather", "shuffle", "draw", "flip", "reveal", "shake", "pulse", "collect", "finale"}) {
    for (const std::string feel : {"brisk", "data/springy.feel.json", "calm", "reduced"}) {
      if (feel != "brisk" && motion != "deal" && motion != "draw") continue;
      CAPTURE(motion, feel);
      const auto film = tool(
          {"film", potting_bench, "--motion", motion, "--feel", feel, "--rate", "5", "--format", "json"});
      REQUIRE(film.code == 0);
      const auto frames = nlohmann::json::parse(film.out)["frames"];
      CHECK(frames.size() >= 2);
      CHECK(frames.back()["cards"].size() == 52);
      int landed = 0;
      for (const auto& frame : frames) {
        for (const auto& event : frame["events"]) landed += event["event"] == "landed";
      }
      const bool stays = motion == "shake" || motion == "pulse" || motion == "flip" || motion == "reveal";
      CHECK((landed > 0) == !stays);
      const std::string last = frames.back()["events"].empty() ? "" : frames.back()["events"].back()["event"];
      CHECK((last == "settled" || last == "ended" || stays));
    }
  }
}

TEST_CASE("tool: a film is a contact sheet, a moving WebP or a moving SVG, by the name of the file") {
  const Scratch scratch;
  const auto film = [&](const std::string& name) {
    const auto outcome =
        tool({"film", potting_bench, "--motion", "draw", "--window", "480x320", "--rate", "20", "--shots",
              "4", "--sheet", "640x400", "--out", (scratch / name).string()});
    CHECK(outcome.code == 0);
    // What it made is said with its length in frames, or in shots of a sheet.
    CHECK(outcome.out.find(name.ends_with(".png") ? ", 4 shots\n" : " frames\n") != std::string::npos);
    return contents(scratch / name);
  };
  CHECK(film("f.png").substr(1, 3) == "PNG");
  const std::string webp = film("f.webp");
  CHECK(webp.substr(0, 4) == "RIFF");
  CHECK(webp.substr(8, 4) == "WEBP");
  CHECK(count_of(webp, "ANMF") >= 8);
  // Each frame says how long it stays (RIFF container of WebP, "ANMF": 24 bits after four numbers of 24
  // bits): all together as long as the cards move, and the last no shorter than it is seen.
  int lasts = 0, last = 0;
  for (std::size_t at = webp.find("ANMF"); at != std::string::npos; at = webp.find("ANMF", at + 4)) {
    const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(webp[at + 8 + 12 + i]); };
    last = byte(0) | byte(1) << 8 | byte(2) << 16;
    lasts += last;
  }
  CHECK(lasts > 1000);
  CHECK(last >= 500);
  const std::string svg = film("f.svg");
  CHECK(svg.substr(0, 4) == "<svg");
  CHECK(svg.ends_with("</svg>\n"));
  CHECK(count_of(svg, "class=\"s\"") == 12);
  CHECK(count_of(svg, "<g ") == count_of(svg, "</g>"));
  for (std::size_t at = svg.find("base64,"); at != std::string::npos; at = svg.find("base64,", at + 1))
    CHECK(svg.substr(at + 7, 11) == "iVBORw0KGgo");  // how a PNG begins
  // What lies below the cards, the last picture, shows none of them.
  const std::size_t picture = svg.rfind("base64,") + 7;
  std::ofstream(scratch / "below.txt") << svg.substr(picture, svg.find('"', picture) - picture);
  const auto below =
      run("sh", {"-c", "base64 -d " + (scratch / "below.txt").string() +
                           " | convert png:- -resize 1x1! -format '%[fx:int(255*(u.r+u.g+u.b)/3)]' info:"});
  CHECK(below.code == 0);
  CHECK(std::stoi(below.out) < 60);
  // What is left over of the last byte is 0 (RFC 4648, 3.5).
  const std::string signs = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  for (std::size_t at = svg.find("=\"", svg.find("base64,")); at != std::string::npos;
       at = svg.find("=\"", at + 1)) {
    const std::size_t last_sign = svg.find_last_not_of('=', at);
    if (signs.find(svg[last_sign]) != std::string::npos && svg.rfind("base64,", at) > svg.rfind('"', at))
      CHECK(signs.find(svg[last_sign]) % (at - last_sign == 2 ? 16 : 4) == 0);
  }
  CHECK(count_of(svg, "id=\"b0\"") == 1);  // the back, once for all cards
  const auto other = tool({"film", potting_bench, "--out", (scratch / "f.gif").string()});
  CHECK(other.code == 2);
  CHECK(holds(other.err, "f.gif': a name that ends in .png, .webp, .svg is expected"));
}

TEST_CASE("tool: film refuses what is not there and says what to do") {
  CHECK(tool({"film", potting_bench, "--motion", "shuffle", "--seed", "0", "--rate", "2", "--format", "csv"})
            .code == 0);
  CHECK(holds(tool({"film", potting_bench, "--feel", "wild"}).err,
              "'wild' is no feel: brisk, springy, calm, reduced, or a feel file is expected"));
  CHECK(tool({"film", potting_bench, "--motion", "jump"}).code == 2);
  CHECK(holds(
      tool({"film", "docs/layouts/hand.table.json", "--trust", "--motion", "reveal", "--format", "csv"}).err,
      "--card"));
  const Scratch scratch;
  std::ofstream(scratch / "bad.feel.json") << R"({"apsidon": "feel", "version": 1, "deal": {"stagger": -1}})";
  const auto bad = tool({"film", potting_bench, "--feel", (scratch / "bad.feel.json").string()});
  CHECK(bad.code == 3);
  CHECK(holds(bad.err, "/deal/stagger"));
}

TEST_CASE("tool: a film's numbers are the same at every rate") {
  const auto at = [](const std::string& rate) {
    std::map<std::string, std::string> poses;
    for (const std::string& line : lines_of(tool({"film", potting_bench, "--motion", "draw", "--feel",
                                                  "springy", "--rate", rate, "--format", "csv"})
                                                .out)) {
      const auto cells = cells_of(line);
      poses[cells[0] + " " + cells[1]] = line;
    }
    return poses;
  };
  const auto slow = at("4");
  const auto fast = at("40");
  int compared = 0;
  for (const auto& [key, line] : slow) {
    if (!fast.contains(key)) continue;
    CHECK(fast.at(key) == line);
    ++compared;
  }
  CHECK(compared > 200);
}

TEST_CASE("tool: curve says how long, how far and how fast, for people and programs, and plots") {
  const Scratch scratch;
  const auto text = tool({"curve", "ease", "spring(0.5, 0.5)", "--seconds", "0.4", "--samples", "2", "--out",
                          (scratch / "c.png").string(), "--size", "640x400"});
  CHECK(text.code == 0);
  CHECK(holds(text.out, "ease\n  takes 0.400 s, overshoot 0.00 %"));
  CHECK(holds(text.out, "spring(0.5, 0.5)\n  settles in 1.172 s, overshoot 16.30 %"));
  CHECK(contents(scratch / "c.png").substr(1, 3) == "PNG");
  const auto json =
      nlohmann::json::parse(tool({"curve", "quad-in", "--samples", "4", "--format", "json"}).out)["curves"];
  REQUIRE(json.size() == 1);
  CHECK(json[0]["samples"][2]["value"] == 0.25);
  CHECK(json[0]["samples"][2]["speed"] == 1.0);
  const auto csv =
      lines_of(tool({"curve", "linear(0, 1)", "steps(2)", "--samples", "2", "--format", "csv"}).out);
  REQUIRE(csv.size() == 7);
  CHECK(csv[2] == "\"linear(0, 1)\",0.500000,0.500000,1");
  CHECK(csv[5] == "steps(2),0.500000,0.500000,0");
}

TEST_CASE("tool: curve refuses what it cannot read") {
  CHECK(holds(tool({"curve"}).err, "no curve is named"));
  CHECK(holds(tool({"curve", "easy"}).err, "easing 'easy': linear, ease"));
  CHECK(holds(tool({"curve", "spring(x)"}).err, "spring(PERIOD, DAMPING) is expected"));
  CHECK(holds(tool({"curve", "spring(0, 1)"}).err, "spring: period is 0: 0.001 to 60 is expected"));
  CHECK(tool({"curve", "easy"}).code == 2);
}
