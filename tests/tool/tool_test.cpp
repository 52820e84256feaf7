#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "support/process.hpp"

using namespace apsidon::test;

namespace {

/// A PNG's width and height, by its header.
std::pair<unsigned, unsigned> png_size(const std::filesystem::path& file) {
  const std::string bytes = contents(file);
  REQUIRE(bytes.size() > 24);
  REQUIRE(bytes.substr(1, 3) == "PNG");
  const auto number = [&](std::size_t at) {
    unsigned n = 0;
    for (std::size_t i = 0; i < 4; ++i) n = n << 8 | static_cast<unsigned char>(bytes[at + i]);
    return n;
  };
  return {number(16), number(20)};
}

}  // namespace

TEST_CASE("tool: help of every verb has an example, and nothing is called without a verb") {
  const auto top = tool({"--help"});
  CHECK(top.code == 0);
  for (const std::string verb : {"place", "draw", "probe", "judge", "film", "curve", "faces", "demo"}) {
    CHECK(holds(top.out, "  " + verb + " "));
    const auto help = tool({verb, "--help"});
    CHECK(help.code == 0);
    CHECK(holds(help.out, "Example: apsidon " + verb + " "));
  }
  CHECK(tool({}).code == 2);
  CHECK(holds(tool({"--version"}).out, "apsidon 0."));
}

TEST_CASE("tool: a bad call exits 2, names the nearest word, and prints nothing") {
  const std::vector<std::pair<std::vector<std::string>, std::string>> calls{
      {{"plce", potting_bench}, "unknown verb 'plce': did you mean 'place'?"},
      {{"place", potting_bench, "--windw", "10x10"}, "unknown option '--windw': did you mean '--window'?"},
      {{"draw", potting_bench, "--outlnes"}, "unknown option '--outlnes': did you mean '--outlines'?"},
      {{"judge", potting_bench, "--crd=reed-2"}, "unknown option '--crd': did you mean '--card'?"},
      {{"place", potting_bench, "extra"}, "unknown argument 'extra'"},
      {{"place", potting_bench, "--window", "wide"},
       "--window 'wide': a size like 1280x800, each 1 to 16384, is expected"},
      {{"place", potting_bench, "--window", "0x5"}, "--window '0x5'"},
      {{"place", potting_bench, "--zone", "colunm-1"}, "unknown zone 'colunm-1': did you mean 'column-1'?"},
      {{"place", potting_bench, "--format", "xml"}, "--format: 'xml': text, json or csv is expected"},
      {{"draw", potting_bench, "--layer", "strip"}, "--layer: 'strip': did you mean 'strips'?"},
      {{"film", potting_bench, "--sheet", "wide"}, "--sheet 'wide': a size like 1280x800"},
      {{"draw", potting_bench, "--pixel-ratio", "nan"}, "'nan': a number from 0.1 to 8 is expected"},
      {{"draw", potting_bench, "--out", "table.jpg"},
       "--out 'table.jpg': a name that ends in .png, .svg, .pdf is expected"},
      {{"draw", potting_bench, "--outlines", "--out", "t.svg"}, "a name that ends in .png is expected"},
      {{"curve", "ease", "--out", "curve.gif"}, "--out 'curve.gif': a name that ends in .png is expected"},
      {{"fit", potting_bench, "--out", "fit.bmp"}, "ends in .png"},
      {{"faces", "data/glasshouse.deck.json", "--out", "f"}, "ends in .png"},
      {{"faces", "data/glasshouse.deck.json", "--compose", "f.art.json"}, "ends in .png"},
      {{"replay", "data/potting-bench.log", potting_bench},
       "is an input log: the table comes first, then its log"},
      {{"probe", potting_bench, "--at", "7"}, "--at '7': a point like 640,400 is expected"},
      {{"probe", potting_bench, "--at", "nan,2"}, "--at 'nan,2'"},
      {{"probe", potting_bench}, "--at is required"},
      {{"judge", potting_bench, "--card", "reed-22"}, "unknown card 'reed-22': did you mean 'reed-2'?"},
      {{"judge", potting_bench, "--card", "999"}, "card 999 is not on the table: 1 to 52 are"},
      {{"judge", potting_bench, "--card", "bed-4:top"}, "'bed-4:top': bed-4 has 0 cards"},
      {{"judge", potting_bench, "--card", "bed-1:x"}, "a place like bed-1:0 or bed-1:top is expected"},
      {{"film", potting_bench, "--motion", "del"}, "--motion"},
      {{"film", potting_bench, "--shots", "0"}, "--shots"},
  };
  for (const auto& [words, message] : calls) {
    const auto outcome = tool(words);
    CAPTURE(message, outcome.err);
    CHECK(outcome.code == 2);
    CHECK(outcome.out.empty());
    CHECK(holds(outcome.err, message));
  }
}

TEST_CASE("tool: a file that is not there, or cannot be written, exits 3 and says which") {
  const auto missing = tool({"place", "data/nowhere.table.json"});
  CHECK(missing.code == 3);
  CHECK(missing.err ==
        "apsidon place: data/nowhere.table.json: the file cannot be read: check its path and its permissions "
        "[cannot-read]\n");
  const auto unwritable = tool({"draw", potting_bench, "--out", "/proc/x/y.png"});
  CHECK(unwritable.code == 3);
  CHECK(holds(unwritable.err, "/proc/x"));
  CHECK(tool({"faces", potting_bench}).code == 3);
  CHECK(holds(tool({"demo", "nowhere"}).err, "nowhere"));
}

TEST_CASE("tool: place tells every card's pose, zone by zone in order, alike in all formats") {
  const auto csv = lines_of(tool({"place", potting_bench, "--format", "csv"}).out);
  REQUIRE(csv.size() == 53);
  CHECK(csv[0] == "zone,index,card,face,face_up,x,y,rotation_deg,scale,width,height");
  const auto json = nlohmann::json::parse(tool({"place", potting_bench, "--format", "json"}).out);
  std::size_t row = 1;
  for (const auto& zone : json["zones"]) {
    int index = 0;
    for (const auto& card : zone["cards"]) {
      const auto cells = cells_of(csv[row++]);
      CHECK(cells[0] == zone["zone"]);
      CHECK(cells[1] == std::to_string(index++));
      CHECK(cells[3] == card["face"]);
      CHECK(std::stod(cells[5]) == Approx(double{card["x"]}));
      CHECK(std::stod(cells[6]) == Approx(double{card["y"]}));
    }
  }
  CHECK(row == 53);
  const auto text = tool({"place", potting_bench, "--zone", "bed-1"});
  CHECK(lines_of(text.out).size() == 6);
  CHECK(holds(text.out, "bed-1         3 cards"));
  CHECK(holds(text.out, "fern-3       open"));
}

TEST_CASE("tool: a window too small for a card is said, exit 1") {
  const auto outcome = tool({"place", potting_bench, "--window", "1x1"});
  CHECK(outcome.code == 1);
  CHECK(holds(outcome.err, "too small"));
  const Scratch scratch;
  CHECK(tool({"draw", potting_bench, "--window", "1x1", "--out", (scratch / "t.png").string()}).code == 1);
}

TEST_CASE("tool: draw writes a picture of the window's size at its pixel ratio") {
  const Scratch scratch;
  const std::string file = (scratch / "deep/er/t.png").string();
  const auto outcome =
      tool({"draw", potting_bench, "--window", "640x400", "--pixel-ratio", "2", "--outlines", "--out", file});
  CHECK(outcome.code == 0);
  CHECK(png_size(file) == std::pair{1280u, 800u});
  CHECK(holds(outcome.out, "1280x800 pixels, plan 'wide'"));
}

TEST_CASE("tool: draw shows what a mouse hovers and what a drag marks, and says when there is nothing") {
  const Scratch scratch;
  const auto out = (scratch / "moment.png").string();
  const auto draw = [&](const std::string& table, std::vector<std::string> more) {
    std::vector<std::string> words{"draw", table, "--out", out};
    words.insert(words.end(), more.begin(), more.end());
    return tool(words);
  };
  const std::string market = "data/market-stall.table.json";
  const auto still = draw(market, {});
  CHECK(still.code == 0);
  const std::string at_rest = contents(out);
  // Where the tool itself says that a card of the hand is.
  const auto place = tool({"place", market, "--format", "json"});
  const auto table = nlohmann::json::parse(place.out);
  std::string at;
  for (const auto& zone : table["zones"]) {
    if (zone["zone"] != "hand") continue;
    const auto& card = zone["cards"][4];
    at = std::to_string(card["x"].get<double>()) + "," + std::to_string(card["y"].get<double>());
  }
  REQUIRE_FALSE(at.empty());
  const auto hover = draw(market, {"--hover", at});
  CHECK(hover.code == 0);
  CHECK(holds(hover.out, "hovered: "));
  CHECK(contents(out) != at_rest);
  const auto drag = draw(market, {"--drag", at, "--to", "640,300"});
  CHECK(drag.code == 0);
  CHECK(holds(drag.out, "held: "));
  CHECK(holds(drag.out, "places would take it"));
  const auto none = draw(market, {"--hover", "1,1"});
  CHECK(none.code == 1);
  CHECK(holds(none.err, "nothing is hovered at 1,1"));
  const auto nowhere = draw(market, {"--drag", "1,1", "--to", "200,200"});
  CHECK(nowhere.code == 1);
  CHECK(holds(nowhere.err, "no card lies at 1,1: 'apsidon probe' tells what does"));
  const auto still_there = draw(market, {"--drag", at, "--to", at});
  CHECK(still_there.code == 1);
  CHECK(holds(still_there.err, "too near"));
  CHECK(draw(market, {"--drag", at}).code == 2);
  CHECK(draw(market, {"--hover", at, "--drag", at, "--to", at}).code == 2);
  const auto bad = draw(market, {"--hover", "here"});
  CHECK(bad.code == 2);
  CHECK(holds(bad.err, "--hover 'here': a point like 640,400 is expected"));
}

TEST_CASE("tool: the deal's film has cards leave one after another and end at rest, whatever its rate") {
  const auto film = [](const char* rate) {
    const auto lines = lines_of(tool({"film", potting_bench, "--format", "csv", "--rate", rate}).out);
    CHECK(lines[0] == "time,card,face,zone,x,y,rotation_deg,scale,flip_deg,lift,opacity");
    std::map<std::string, std::map<std::string, std::vector<std::string>>> by_time;  // time, card
    for (std::size_t i = 1; i < lines.size(); ++i) {
      const auto cells = cells_of(lines[i]);
      by_time[cells[0]][cells[1]] = cells;
    }
    return by_time;
  };
  auto slow = film("5");
  auto fast = film("60");
  // At every time that both have, every figure is the same to the last digit.
  std::size_t common = 0;
  for (const auto& [time, cards] : slow) {
    if (!fast.contains(time)) continue;
    ++common;
    for (const auto& [card, cells] : cards) CHECK(cells == fast[time][card]);
  }
  CHECK(common > 10);
  const auto places = lines_of(tool({"place", potting_bench, "--format", "csv"}).out);
  const auto& end = fast.rbegin()->second;
  for (std::size_t i = 1; i < places.size(); ++i) {
    const auto place = cells_of(places[i]);
    const auto& last = end.at(place[2]);
    CHECK(std::stod(last[4]) == Approx(std::stod(place[5])).margin(0.006));
    CHECK(std::stod(last[5]) == Approx(std::stod(place[6])).margin(0.006));
  }
  // When each card is first seen away from where it started: all at different times, at this rate in groups.
  std::map<std::string, int> leavers;
  std::map<std::string, bool> left;
  const auto& start = fast.begin()->second;
  for (const auto& [time, cards] : fast) {
    for (const auto& [card, cells] : cards) {
      if (left[card] || cells == start.at(card)) continue;
      if (cells[4] == start.at(card)[4] && cells[5] == start.at(card)[5] && cells[8] == start.at(card)[8])
        continue;
      left[card] = true;
      ++leavers[time];
    }
  }
  CHECK(leavers.size() >= 40);
  for (const auto& [time, count] : leavers) CHECK(count == 1);
}

TEST_CASE("tool: film draws a contact sheet, and json has the same poses as csv") {
  const Scratch scratch;
  const std::string file = (scratch / "film.png").string();
  const auto outcome = tool({"film", potting_bench, "--shots", "4", "--sheet", "600x400", "--out", file});
  CHECK(outcome.code == 0);
  CHECK(png_size(file) == std::pair{600u, 400u});
  CHECK(holds(outcome.out, "deal of 52 cards in "));
  const auto json =
      nlohmann::json::parse(tool({"film", potting_bench, "--format", "json", "--rate", "3"}).out)["frames"];
  const auto csv = lines_of(tool({"film", potting_bench, "--format", "csv", "--rate", "3"}).out);
  CHECK(json.size() * 52 + 1 == csv.size());
  CHECK(float{json[0]["cards"][0]["x"]} == Approx(std::stod(cells_of(csv[1])[4])));
}

TEST_CASE("tool: faces draws the deck, and the demo tells what it did and names its folder") {
  const Scratch scratch;
  const auto faces = tool({"faces", "data/glasshouse.deck.json", "--out", (scratch / "f.png").string()});
  CHECK(faces.code == 0);
  CHECK(holds(faces.out, "52 faces, 4 suits of 13 ranks"));
  CHECK(png_size(scratch / "f.png") == std::pair{1280u, 800u});
  const auto demo = tool({"demo", "data", "--out", (scratch / "demo").string()});
  CHECK(demo.code == 0);
  CHECK(demo.err.empty());
  CHECK(holds(demo.out, "The pictures are in " + (scratch / "demo").string()));
  for (int step = 1; step <= 7; ++step) CHECK(holds(demo.out, "\n" + std::to_string(step) + ". "));
  CHECK(holds(demo.out, "dropped    reed-2 bed-2"));
  CHECK(holds(demo.out, "Fern-10 and 2 on it laid on column-1."));
  for (const char* name :
       {"potting-bench.png", "potting-bench-tall.png", "market-stall.png", "deal.png", "faces.png"}) {
    CHECK(png_size(scratch / (std::string("demo/") + name)).first >= 800);
  }
}

TEST_CASE("tool: faces composes a sheet, draws from it, and finds a description that is off by one") {
  const Scratch scratch;
  const std::string sheet = (scratch / "glasshouse.png").string();
  const std::string art = (scratch / "glasshouse.art.json").string();
  const std::string deck = "data/glasshouse.deck.json";
  const auto composed = tool({"faces", deck, "--compose", sheet, "--card", "60x84"});
  CHECK(composed.code == 0);
  CHECK(composed.out.find("52 faces and a back") != std::string::npos);
  const auto proof = tool({"faces", deck, "--art", art, "--out", (scratch / "proof.png").string()});
  CHECK(proof.code == 0);
  CHECK(contents(scratch / "proof.png").substr(1, 3) == "PNG");
  CHECK(tool({"draw", "data/potting-bench.table.json", "--art", art, "--out", (scratch / "t.png").string()})
            .code == 0);
  std::string text = contents(art);
  text.replace(text.find("\"columns\": 13"), 13, "\"columns\": 12");
  std::ofstream(art) << text;
  const auto wrong = tool({"faces", deck, "--art", art, "--out", (scratch / "proof.png").string()});
  CHECK(wrong.code == 1);
  CHECK(wrong.out.find("has room for 13 columns of 60 px, its description says 12") != std::string::npos);
  CHECK(wrong.out.find("marigold-10: it shows the same part as the back") != std::string::npos);
  CHECK(tool({"faces", deck, "--art", (scratch / "none.art.json").string()}).code == 3);
}

TEST_CASE("tool: a whole deck's sheet comes of few drawings, and one that is missing is named") {
  const Scratch scratch;
  const std::string deck = "data/glasshouse.deck.json";
  const std::string sheet = (scratch / "made.png").string();
  const auto made =
      tool({"faces", deck, "--recipe", "data/drawings/glasshouse.recipe.json", "--compose", sheet});
  CHECK(made.code == 0);
  CHECK(made.out.find("made.png: 52 faces and a back, 2628x1412 pixels") != std::string::npos);
  const std::string art = (scratch / "made.art.json").string();
  CHECK(tool({"faces", deck, "--art", art, "--out", (scratch / "p.png").string()}).code == 0);
  CHECK(tool({"check", "data/potting-bench.table.json", "--art", art}).code == 0);
  // Packed again, smaller.
  const auto packed =
      tool({"faces", deck, "--art", art, "--card", "50x70", "--compose", (scratch / "small.png").string()});
  CHECK(packed.code == 0);
  CHECK(packed.out.find("678x362 pixels") != std::string::npos);
  std::ofstream(scratch / "r.recipe.json")
      << R"({"apsidon": "recipe", "version": 1, "suits": {"fern": "frn.png"}, "spots": {"2": [[0.5, 0.5]]}})";
  const auto missing =
      tool({"faces", deck, "--recipe", (scratch / "r.recipe.json").string(), "--compose", sheet});
  CHECK(missing.code == 1);
  CHECK(missing.err.find("the drawing 'frn.png' is not there or no PNG") != std::string::npos);
  CHECK(missing.err.find("no picture is there for fern-1, fern-2") != std::string::npos);
  CHECK(missing.err.find("nothing is written") != std::string::npos);
  const auto forced = tool({"faces", deck, "--recipe", (scratch / "r.recipe.json").string(), "--compose",
                            sheet, "--with-fallbacks"});
  CHECK(forced.code == 1);
  CHECK(forced.out.find("made.png: 52 faces") != std::string::npos);
  std::ofstream(scratch / "r.recipe.json")
      << R"({"apsidon": "recipe", "version": 1, "spots": {"2": [[0.5, 2]]}})";
  const auto wrong =
      tool({"faces", deck, "--recipe", (scratch / "r.recipe.json").string(), "--compose", sheet});
  CHECK(wrong.code == 3);
  CHECK(wrong.err.find("/spots/2/0/1") != std::string::npos);
}

TEST_CASE(
    "tool: check says which ranks the corners of drawn cards shorten, and is content when they are named "
    "so") {
  const Scratch scratch;
  const auto write = [&](const std::string& name, const std::string& ranks) {
    const std::string file = (scratch / name).string();
    std::ofstream(file)
        << R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": )"
        << ranks
        << R"(}, "zones": [{"name": "bed", "pick": "top", "drop": "anything"}], "plans": [{"root": {"zone": "bed"}}]})";
    return file;
  };
  const auto said = tool({"check", write("words.table.json", R"(["9", "10", "jack", "queen"])")});
  CAPTURE(said.out, said.err);
  CHECK(said.code == 1);
  CHECK(said.out.find("jack as J, queen as Q") != std::string::npos);
  CHECK(tool({"check", write("marks.table.json", R"(["9", "10", "J", "Q"])")}).out.find("rank-shortened") ==
        std::string::npos);
  // All of them words: a face of its own shows each whole.
  CHECK(tool({"check", write("stages.table.json", R"(["seed", "sprout", "bloom"])")})
            .out.find("rank-shortened") == std::string::npos);
}
