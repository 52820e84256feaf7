// Art that is wrong in every way that is known, found by the tool with the value that mends it.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"

using namespace apsidon::test;

namespace {

using Json = nlohmann::ordered_json;

/// A good deck with its sheet, and what the tool finds when something of it is changed.
class Workshop {
 public:
  Workshop() {
    deck_ = Json::parse(contents(source("data/glasshouse.deck.json")));
    write("deck.json", deck_);
    REQUIRE(faces({"--compose", path("sheet.png"), "--card", "100x140"}).code == 0);
    good_ = Json::parse(contents(scratch_ / "sheet.art.json"));
  }

  [[nodiscard]] Json good() const { return good_; }
  [[nodiscard]] std::string path(const std::string& name) const { return (scratch_ / name).string(); }
  void write(const std::string& name, const Json& json) const {
    std::ofstream(scratch_ / name) << json.dump(2);
  }
  [[nodiscard]] Ran faces(std::vector<std::string> words) const {
    words.insert(words.begin(), {"faces", path("deck.json")});
    return tool(words);
  }
  /// What is found in this art.
  [[nodiscard]] std::string found(const Json& art) const {
    write("wrong.art.json", art);
    const auto outcome = faces({"--art", path("wrong.art.json"), "--out", path("proof.png")});
    CAPTURE(outcome.err);
    CHECK(outcome.code <= 1);
    CHECK((outcome.code == 1) == holds(outcome.out, "["));
    return outcome.out;
  }
  /// A picture of its own for each face, by a name.
  template <class Name>
  void single_pictures(apsidon::Size size, const Name& name) const {
    const apsidon::Deck deck = *apsidon::load_deck(scratch_ / "deck.json");
    for (const apsidon::FaceId face : deck.faces()) {
      apsidon::paint_card(deck, {.face = face, .box = {{0, 0}, {size.width, size.height}}})
          .write_png(scratch_ / name(deck, face));
    }
  }
  Json deck() const { return deck_; }

 private:
  Scratch scratch_;
  Json deck_;
  Json good_;
};

std::string words_turned(const apsidon::Deck& deck, apsidon::FaceId face) {
  const std::string text = deck.text(face);
  const auto dash = text.find('-');
  return text.substr(dash + 1) + "_" + text.substr(0, dash) + ".png";
}

}  // namespace

TEST_CASE("art: what is good is not blamed: the demo decks, drawn, composed and in pixels") {
  const Scratch scratch;
  const auto sheet = (scratch / "s.png").string();
  const auto art = (scratch / "s.art.json").string();
  const std::string glasshouse = "data/glasshouse.deck.json";
  const std::vector<std::vector<std::string>> makes{
      {glasshouse, "--card", "200x280"},
      {glasshouse, "--card", "57x80"},
      {glasshouse, "--recipe", "data/drawings/glasshouse.recipe.json"},
      {glasshouse, "--recipe", "data/drawings/seedling/seedling.recipe.json"},
      {"data/seed-drawer.deck.json", "--card", "150x210"}};
  for (std::vector<std::string> make : makes) {
    make.insert(make.begin(), "faces");
    make.insert(make.end(), {"--compose", sheet});
    REQUIRE(tool(make).code == 0);
    const auto outcome = tool({"faces", make[1], "--art", art, "--out", (scratch / "p.png").string()});
    CAPTURE(make, outcome.out);
    CHECK(outcome.code == 0);
  }
}

TEST_CASE("art: broken names are found by the tool, each with what mends it") {
  const Workshop shop;
  // 1: a back that is not there, under the same words in another order.
  Json art = shop.good();
  art["back"] = "deck-back.png";
  std::filesystem::copy(shop.path("sheet.png"), shop.path("back_deck.png"));
  CHECK(holds(shop.found(art), "'deck-back.png' is not there: the nearest that is there is 'back_deck.png'"));
  // 2: backs by suit that never show.
  art = shop.good();
  art["backs"] = {{"fern", "sheet.png"}};
  CHECK(holds(shop.found(art), "\"backs\": \"by-suit\" in the deck shows them [backs-alike]"));
  // 3: a suit, a rank, a face and a joker that the deck does not have.
  art["backs"] = {{"fren", "sheet.png"}};
  CHECK(holds(shop.found(art), "did it mean 'fern'? [unknown-suit]"));
  art = shop.good();
  art["parts"] = {{"fern-01", "sheet.png"}};
  CHECK(holds(shop.found(art), "did it mean 'fern-1'? [unknown-face]"));
  art = shop.good();
  art["names"] = {{"popy", "poppies"}};
  CHECK(holds(shop.found(art), "did it mean 'poppy'? [unknown-name]"));
  // 4: pictures of their own, named by other words: those are found, and names for words mend it.
  shop.single_pictures({50, 70}, words_turned);
  const Json pattern{{"apsidon", "art"}, {"version", 1}, {"pattern", "{face}.png"}};
  const std::string turned = shop.found(pattern);
  CHECK(holds(turned,
              "fern-7: the picture 'fern-7.png' is not there: the nearest that is there is '7_fern.png'"));
  CHECK(holds(turned, "pictures that are there and that nothing names: "));
  const Json mended{{"apsidon", "art"}, {"version", 1}, {"pattern", "{rank}_{suit}.png"}};
  CHECK_FALSE(holds(shop.found(mended), "no-picture"));
}

TEST_CASE("art: larger pictures that are missing, of other proportions or no larger are found by the tool") {
  const Workshop shop;
  shop.single_pictures({60, 84}, words_turned);
  Json art{{"apsidon", "art"},
           {"version", 1},
           {"pattern", "{rank}_{suit}.png"},
           {"detail_pattern", "large/{face}.png"}};
  CHECK(holds(shop.found(art), "of 52 larger pictures 52 are not there, the first is 'large/fern-1.png'"));
  std::filesystem::create_directory(shop.path("large"));
  const auto plain = [](const apsidon::Deck& deck, apsidon::FaceId face) {
    return "large/" + deck.text(face) + ".png";
  };
  shop.single_pictures({200, 200}, plain);
  CHECK(holds(shop.found(art),
              "the larger picture has 200x200 px, that of the card 60x84: it would be stretched"));
  shop.single_pictures({50, 70}, plain);
  CHECK(holds(shop.found(art), "a larger one is expected, or no 'detail_pattern' [small-detail]"));
  shop.single_pictures({120, 168}, plain);
  CHECK(shop.found(art).find('[') == std::string::npos);
}

TEST_CASE("art: sheets whose description is off are found by the tool, with the values that fit") {
  const Workshop shop;
  const auto sheet = [&](const auto& change) {
    Json art = shop.good();
    change(art["sheets"][0]);
    return shop.found(art);
  };
  // 5: columns.
  CHECK(holds(sheet([](Json& s) { s["columns"] = 12; }),
              "room for 13 columns of 100 px, its description says 12"));
  // 6: where the first card lies, and how far the cards are apart.
  CHECK(holds(sheet([](Json& s) {
                s["margin"] = {0, 2};
              }),
              "\"cell\": {\"width\": 100, \"height\": 140}, \"margin\": [2, 2], \"spacing\": [2, 2] would "
              "fit [gutters]"));
  CHECK(holds(sheet([](Json& s) { s["spacing"] = {2, 1}; }), "\"spacing\": [2, 2] would fit [gutters]"));
  CHECK(holds(sheet([](Json& s) {
                s["cell"] = {{"width", 96}, {"height", 140}};
              }),
              "across, 100 px every 102 from 2 on: \"cell\": {\"width\": 100, \"height\": 140}"));
  // 7: the suits of a rank in the place of the ranks of a suit: the cells of the last rows are empty.
  CHECK(holds(sheet([](Json& s) {
                s["order"] = "by-rank";
                s["columns"] = 13;
                s["suits"] = {"fern", "reed", "poppy", "marigold", "a", "b"};
              }),
              "has nothing in the cells of "));
  // 8: a row of other things comes first.
  CHECK(holds(sheet([](Json& s) {
                s["margin"] = {2, 144};
              }),
              "has nothing in the cells of marigold-2, marigold-3, marigold-4, marigold-5, marigold-6, "
              "marigold-7 and 6 more: draw them"));
  // 9: ranks that begin with another.
  CHECK(holds(sheet([](Json& s) {
                s["ranks"] = {"13", "1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12"};
              }),
              "its suits begin with 1, not with 13: \"ranks\": [\"1\", \"2\", \"3\", \"4\", \"5\", \"6\", "
              "\"7\", \"8\", "
              "\"9\", \"10\", \"11\", \"12\", \"13\"] would fit [rank-off]"));
  // 10: parts of other sizes than the first.
  Json art = shop.good();
  art["parts"] = {
      {"fern-2", {{"picture", "sheet.png"}, {"x", 104}, {"y", 2}, {"width", 90}, {"height", 140}}}};
  CHECK(holds(shop.found(art), "its part has 90x140 px, that of the first face 100x140"));
}

TEST_CASE("art: cells that cut drawings, and a row that is a rank off, are found by the tool") {
  const Workshop shop;
  // Drawings of many sizes on nothing, as pictures without paper are.
  const apsidon::Deck deck = *apsidon::load_deck(shop.path("deck.json"));
  REQUIRE(shop.faces({"--recipe", source("data/drawings/seedling/seedling.recipe.json").string(), "--compose",
                      shop.path("small.png")})
              .code == 0);
  Json bare = Json::parse(contents(source("data/drawings/seedling/seedling.recipe.json")));
  for (const auto& entry : std::filesystem::directory_iterator(source("data/drawings/seedling"))) {
    if (entry.path().extension() == ".png")
      std::filesystem::copy(entry.path(), shop.path(entry.path().filename().string()));
  }
  // A frame of nothing.
  apsidon::Picture({13, 19}).write_png(shop.path("nothing.png"));
  bare["frame"] = "nothing.png";
  bare["card"] = {{"width", 26}, {"height", 38}};
  shop.write("bare.recipe.json", bare);
  REQUIRE(shop.faces({"--recipe", shop.path("bare.recipe.json"), "--compose", shop.path("bare.png")}).code ==
          0);
  Json art = Json::parse(contents(shop.path("bare.art.json")));
  CHECK(shop.found(art).find('[') == std::string::npos);
  Json& s = art["sheets"][0];
  // Cells that begin too late by as much as the gap between them grows.
  s["cell"] = {{"width", 14}, {"height", 38}};
  s["margin"] = {12, 2};
  s["spacing"] = {14, 2};
  const std::string cut = shop.found(art);
  CAPTURE(cut);
  CHECK((holds(cut, "[cuts]") || holds(cut, "[gutters]")));
  CHECK(holds(cut, "would "));
  // One suit begins with another rank than the others.
  art = shop.good();
  Json row = art["sheets"][0];
  row["suits"] = {"fern"};
  row["ranks"] = {"2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13", "1"};
  Json rest = art["sheets"][0];
  rest["suits"] = {"none", "reed", "poppy", "marigold"};
  art["sheets"] = {row, rest};
  const std::string off = shop.found(art);
  CAPTURE(off);
  CHECK(holds(off, "its suits begin with 1, not with 2"));
  CHECK_FALSE(holds(off, "not with 1:"));
  // In the sheet itself, one row is a rank on.
  shop.single_pictures({100, 140}, [](const apsidon::Deck& d, apsidon::FaceId face) {
    const int rank = d.suit_of(face) == 0 ? (d.rank_of(face) + 12) % 13 : d.rank_of(face);
    return d.text(d.face(d.suit_of(face), rank)) + ".png";
  });
  shop.write("single.art.json", {{"apsidon", "art"}, {"version", 1}, {"pattern", "{face}.png"}});
  REQUIRE(shop.faces({"--art", shop.path("single.art.json"), "--card", "100x140", "--compose",
                      shop.path("rows.png")})
              .code == 0);
  const std::string rows = shop.found(Json::parse(contents(shop.path("rows.art.json"))));
  CAPTURE(rows);
  CHECK(holds(rows, "the row of fern begins with 2, not with 1: \"ranks\": [\"2\", \"3\""));
  CHECK(holds(rows, "would fit, in a sheet entry of its own [rank-off]"));
}

TEST_CASE(
    "art: a key colour that no picture has, and pixels that would not be alike, are found by the tool") {
  const Workshop shop;
  Json art = shop.good();
  art["key_colour"] = "#FF00FF";
  // The sheet has transparent pixels between its cards already: nothing is said.
  CHECK(shop.found(art).find('[') == std::string::npos);
  shop.single_pictures({40, 56}, words_turned);
  const Scratch scratch;
  const auto opaque = (scratch / "o.png").string();
  REQUIRE(tool({"draw", "data/trellis.table.json", "--window", "40x56", "--out", opaque}).code <= 1);
  std::filesystem::copy(opaque, shop.path("o.png"));
  Json plain{{"apsidon", "art"}, {"version", 1}, {"pattern", "o.png"}, {"key_colour", "#FF00FF"}};
  CHECK(holds(shop.found(plain), "no picture has the key colour #FF00FF: the first one's corner is #"));
  REQUIRE(run("convert", {"-size", "40x56", "xc:#102030", shop.path("o.png")}).code == 0);
  CHECK(holds(shop.found(plain), "the first one's corner is #102030; state that"));

  REQUIRE(shop.faces({"--recipe", source("data/drawings/seedling/seedling.recipe.json").string(), "--compose",
                      shop.path("small.png")})
              .code == 0);
  const auto uneven = tool({"check", "data/potting-bench.table.json", "--art", shop.path("small.art.json")});
  CHECK(uneven.code == 1);
  CHECK(holds(uneven.out, "pictures of 13x19 px 8.46 times as large"));
  CHECK(holds(uneven.out,
              "\"whole_multiples\": true in the plan, and a factor of 1, make it 8 [uneven-scale]"));
  // And so it is.
  Json table = Json::parse(contents(source("data/potting-bench.table.json")));
  table["deck"] = shop.deck();
  table["art"] = {{"width", 13}, {"height", 19}};
  for (auto& plan : table["plans"]) plan["whole_multiples"] = true;
  shop.write("pixel.table.json", table);
  const auto even = tool({"check", shop.path("pixel.table.json"), "--art", shop.path("small.art.json")});
  CAPTURE(even.out);
  CHECK(even.code == 0);
}
