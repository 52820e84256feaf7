#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "support/process.hpp"

using namespace apsidon::test;

namespace {

/// A table with one thing wrong, written next to the deck that it names.
struct Wrong {
  Scratch scratch;
  std::string file = (scratch / "wrong.table.json").string();

  Wrong(const std::string& zones, const std::string& cards, const std::string& root) {
    std::ofstream(file)
        << R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern", "colour": "green"}],
      "ranks": ["1", "2", "3", "4", "5"], "copies": 9}, "zones": )"
        << zones << R"(, "cards": )" << cards << R"(, "plans": [{"root": )" << root << "}]}\n";
  }

  [[nodiscard]] std::vector<std::string> codes(const std::string& window = "1280x800") const {
    const auto outcome = tool({"check", file, "--window", window, "--format", "json"});
    std::vector<std::string> codes;
    const auto printed = nlohmann::json::parse(outcome.out);
    for (const auto& finding : printed["findings"]) {
      codes.push_back(std::string(finding["code"]) + " " + std::string(finding["of"]));
    }
    CHECK(outcome.code == (codes.empty() ? 0 : 1));
    return codes;
  }
};

}  // namespace

TEST_CASE("tool: fit says which windows work, the card in each, and what leaves it no larger") {
  const auto outcome = tool({"fit", "data/seed-drawer.table.json"});
  CHECK(outcome.code == 1);
  const auto lines = lines_of(outcome.out);
  REQUIRE(lines.size() == 16);
  CHECK(holds(lines[1], "small phone, upright"));
  CHECK(holds(lines[1], "NO"));
  CHECK(holds(lines[8], "small laptop"));
  CHECK(holds(lines[8], "yes"));
  CHECK(holds(lines[8], "drawer"));
  CHECK(holds(lines[14], "Smallest that works, with cards of at least 44 px: "));
  CHECK(holds(lines[15],
              "Too small: 320x480, by the height of drawer. What helps: fewer rows in it, or smaller gaps."));
}

TEST_CASE("tool: fit finds the zone that needs the room, and the smallest window is where it says") {
  const Wrong hand(
      R"([{"name": "hand", "layout": {"kind": "hand", "least_spacing": 0.6}, "longest": 40, "drop": "anything"},
                       {"name": "bed", "drop": "anything"}])",
      "{}", R"({"down": [{"zone": "bed"}, {"zone": "hand"}]})");
  const auto json =
      nlohmann::json::parse(tool({"fit", hand.file, "--window", "1280x800", "--format", "json"}).out);
  CHECK(json["windows"][0]["limit"]["by"] == "width");
  CHECK(json["windows"][0]["limit"]["what"] == "hand");
  CHECK(holds(json["windows"][0]["limit"]["change"], "a smaller longest than 40"));
  CHECK(json["windows"][0]["works"] == true);
  const int width = json["smallest_wide"]["width"];
  const auto window = [](double w) {
    return std::to_string(static_cast<int>(w)) + "x" + std::to_string(static_cast<int>(w * 10 / 16));
  };
  CHECK(tool({"fit", hand.file, "--window", window(width + 2)}).code == 0);
  CHECK(tool({"fit", hand.file, "--window", window(width - 2)}).code == 1);
  const auto csv =
      lines_of(tool({"fit", hand.file, "--window", "400x300", "--window", "800x600", "--format", "csv"}).out);
  CHECK(csv.size() == 3);
  const Scratch scratch;
  const auto drawn = tool({"fit", hand.file, "--window", "400x300", "--window", "1280x800", "--out",
                           (scratch / "f.png").string()});
  CHECK(drawn.code == 1);
  CHECK(holds(drawn.out, "f.png: 2 windows"));
  CHECK(contents(scratch / "f.png").substr(1, 3) == "PNG");
}

TEST_CASE("tool: check finds nothing wrong with the demo tables in a window of 1280x800") {
  for (const auto& entry : std::filesystem::directory_iterator(source("data"))) {
    const std::string name = entry.path().filename().string();
    if (!name.ends_with(".table.json")) continue;
    const auto outcome = tool({"check", "data/" + name});
    CAPTURE(name, outcome.out);
    CHECK(outcome.code == 0);
    CHECK(holds(outcome.out, "nothing found"));
  }
}

TEST_CASE("tool: check names the culprit on tables made wrong on purpose") {
  const std::string two =
      R"([{"name": "a", "layout": {"kind": "column", "least_open_strip": 0.3}, "longest": 5, "drop": "anything"},
          {"name": "b", "drop": "anything"}])";
  const std::string side_by_side = R"({"across": [{"zone": "a", "share": 1}, {"zone": "b", "share": 1}]})";
  CHECK(Wrong(two, R"({"a": ["fern-1"]})", side_by_side).codes().empty());
  // Too many for what the plan keeps room for.
  CHECK(Wrong(two, R"({"a": ["fern-1", "fern-2", "fern-1", "fern-2", "fern-1", "fern-2"]})", side_by_side)
            .codes() == std::vector<std::string>{"over-longest a"});
  // Strips that no corner mark fits.
  CHECK(
      Wrong(
          R"([{"name": "a", "layout": {"kind": "column", "least_open_strip": 0.01}, "longest": 80, "drop": "anything"},
                  {"name": "b", "drop": "anything"}])",
          "{}", side_by_side)
          .codes() == std::vector<std::string>{"thin-strip a"});
  // A zone that nothing can reach.
  CHECK(
      Wrong(
          R"([{"name": "a", "layout": {"kind": "column", "least_open_strip": 0.3}, "longest": 5, "drop": "anything"},
                  {"name": "b"}])",
          "{}", side_by_side)
          .codes() == std::vector<std::string>{"unreachable b"});
  // A box out of sight, into which the game puts what was sold.
  CHECK(
      Wrong(R"([{"name": "a", "drop": "anything"}, {"name": "sold", "layout": "pile", "off_table": "top"}])",
            "{}", R"({"zone": "a"})")
          .codes()
          .empty());
  // Targets smaller than a finger, and a window that shows nothing.
  CHECK(Wrong(two, "{}", side_by_side).codes("90x60").front() == "small-target a, b");
  CHECK(Wrong(two, "{}", side_by_side).codes("20x20") == std::vector<std::string>{"too-small "});
  const Scratch scratch;
  const auto drawn = tool({"draw", Wrong(two, "{}", side_by_side).file, "--window", "20x20", "--out",
                           (scratch / "t.png").string()});
  CHECK(drawn.err.find("the window 20x20 is too small to show a card") != std::string::npos);
  // A panel whose pixels leave no room for the zone beside it.
  const Wrong pushed(
      R"([{"name": "a", "drop": "anything"}], "panels": [{"name": "sign"}])", "{}",
      R"({"across": [{"panel": "sign", "width": {"px": 600}, "height": {"px": 20}}, {"zone": "a"}]})");
  CHECK(pushed.codes().empty());
  CHECK(pushed.codes("400x300") == std::vector<std::string>{"off-window a", "off-window sign", "too-small "});
  // One face that is nowhere, of all of a deck.
  const std::string suit =
      R"("deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"]})";
  const auto faces = [&](const std::string& cards) {
    const Scratch folder;
    std::ofstream(folder / "f.table.json")
        << R"({"apsidon": "table", "version": 1, )" + suit +
               R"(, "zones": [{"name": "a", "layout": "hand", "longest": 3, "drop": "anything"}], "plans": [{"root": {"zone": "a"}}], "cards": {"a": [)" +
               cards + "]}}";
    return tool({"check", (folder / "f.table.json").string()}).out;
  };
  CHECK(
      faces(R"("fern-1", "fern-3")")
          .find(
              "all faces of the deck are on the table but fern-2: add it where it belongs [missing-face]") !=
      std::string::npos);
  CHECK(faces(R"("fern-1")").find("missing-face") == std::string::npos);
  CHECK(faces(R"("fern-1", "fern-2", "fern-3")").find("missing-face") == std::string::npos);
  const auto beyond = tool({"check", pushed.file, "--window", "400x300"});
  CHECK(beyond.out.find("a: it lies from 616,16 to 616,284, beyond the window") != std::string::npos);
  CHECK(beyond.out.find("sign: it lies from 16,16 to 616,284, beyond the window") != std::string::npos);
  const auto text = tool({"check", Wrong(two, "{}", side_by_side).file + ".gone"});
  CHECK(text.code == 3);
}

TEST_CASE("tool: check says what to change") {
  const Wrong wrong(
      R"([{"name": "a", "layout": {"kind": "column", "least_open_strip": 0.01}, "longest": 80, "drop": "anything"}])",
      "{}", R"({"zone": "a"})");
  const auto outcome = tool({"check", wrong.file});
  CHECK(holds(outcome.out, "with 80 cards an open strip is "));
  CHECK(holds(outcome.out, "raise its least strip, or say a smaller longest [thin-strip]"));
  CHECK(holds(outcome.out, "1 finding in a window of 1280x800"));
  const auto csv = lines_of(tool({"check", wrong.file, "--format", "csv"}).out);
  REQUIRE(csv.size() == 2);
  CHECK(csv[1].starts_with("thin-strip,a,"));
}

TEST_CASE("tool: plans take the proportions of the art, and check finds one that would stretch it") {
  const Scratch scratch;
  const auto written = [&](const std::string& aspect) {
    const std::string file = (scratch / "art.table.json").string();
    std::ofstream(file) << R"({"apsidon": "table", "version": 1, "art": {"width": 600, "height": 900},
      "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"]},
      "zones": [{"name": "a", "drop": "anything"}], "plans": [{"name": "wide", )" +
                               aspect + R"("root": {"zone": "a"}}]})";
    return file;
  };
  const auto placed = nlohmann::json::parse(tool({"place", written(""), "--format", "json"}).out);
  CHECK(std::abs(double{placed["card"]["width"]} / double{placed["card"]["height"]} - 2.0 / 3) < 0.005);
  CHECK(tool({"check", written("")}).code == 0);
  const auto outcome = tool({"check", written("\"aspect\": 0.75, ")});
  CHECK(outcome.code == 1);
  CHECK(holds(outcome.out,
              "plan 'wide' makes cards 0.75 times as wide as high, the art of 600x900 px is 0.67: leave out "
              "the plan's aspect to take the art's [proportions]"));
}

TEST_CASE("tool: fit names what decides: a largest width, a row of zones, or a panel") {
  const auto limit = [](const std::string& zones, const std::string& plan, const std::string& window) {
    const Scratch scratch;
    const auto file = (scratch / "t.table.json").string();
    std::ofstream(file)
        << R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern", "colour": "green"}],
      "ranks": ["1", "2", "3"]}, )"
        << zones << R"(, "plans": [)" << plan << "]}";
    const auto outcome = tool({"fit", file, "--window", window, "--format", "json"});
    return nlohmann::json::parse(outcome.out)["windows"][0]["limit"];
  };
  const std::string columns = R"("zones": [{"name": "column", "repeat": 7}, {"name": "stock"}])";
  const std::string root = R"("root": {"down": [{"zone": "stock"}, {"across": [{"each": "column"}]}]})";
  const auto wide = limit(columns, "{" + root + "}", "700x2000");
  CHECK(wide["by"] == "width");
  CHECK(wide["what"] == "7 zones 'column'");
  CHECK(wide["change"] == "fewer of them in a row in a plan of that shape, or smaller gaps");
  const auto largest = limit(columns, R"({"largest_width": 50, )" + root + "}", "700x2000");
  CHECK(largest["by"] == "largest_width");
  CHECK(largest["change"] == "a larger 'largest_width' of the plan than 50");
  const auto panel =
      limit(R"("zones": [{"name": "a"}], "panels": [{"name": "sign"}])",
            R"({"root": {"across": [{"panel": "sign", "width": {"px": 500}}, {"zone": "a"}]}})", "560x600");
  CHECK(panel["by"] == "width");
  CHECK(panel["what"] == "panel 'sign'");
  CHECK(panel["change"] == "a smaller width of it");
}

TEST_CASE("tool: check knows what a round, a stock or a match fills, and what an undealt pack is") {
  const Wrong dealt(
      R"([{"name": "stock", "layout": "pile"}, {"name": "hand", "layout": "hand", "longest": 3},
          {"name": "found", "layout": "pile", "longest": 9},
          {"name": "grid", "layout": "grid", "longest": 4, "flip": "anything", "match": {"open": 2, "to": "found"}},
          {"name": "lost"}], "round": {"stock": "stock", "zones": [{"zone": "hand", "open": 3}, {"zone": "grid", "covered": 2}]})",
      R"({"stock": {"deck": {"packs": 1}}})",
      R"({"across": [{"zone": "stock"}, {"zone": "hand", "share": 1}, {"zone": "found"}, {"zone": "grid"}, {"zone": "lost"}]})");
  CHECK(dealt.codes() == std::vector<std::string>{"unreachable lost"});
}

TEST_CASE("tool: check wants strips in which suits can be read, not only ranks") {
  const auto codes = [](const std::string& strip) {
    return Wrong(R"([{"name": "a", "layout": {"kind": "column", "open_strip": )" + strip +
                     R"(, "least_open_strip": )" + strip + R"(}, "longest": 5, "drop": "anything"}])",
                 "{}", R"({"zone": "a"})")
        .codes();
  };
  // Of the width, a rank takes 0.25 and a suit 0.37; strips are shares of the height.
  CHECK(codes("0.21") == std::vector<std::string>{"thin-strip a"});
  CHECK(codes("0.28").empty());
}
