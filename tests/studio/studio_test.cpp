// Which picture shows a face, what is wrong with a deck's art, and a sheet composed and read again.
#include <catch2/catch.hpp>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/studio/check_art.hpp"
#include "apsidon/studio/compose.hpp"
#include "support/process.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

Deck small() {
  return Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
               .ranks = {"1", "2", "3"},
               .jokers = {{"moth", ""}}});
}

/// Pictures of one size, but for one that is not there.
PictureSize all_but_one(Size size) {
  return [size](const std::string& name) {
    return name == "gone.png" ? Result<Size>(Problem{.message = "not there"}) : Result<Size>(size);
  };
}

std::vector<std::string> codes(const Art& art, const Deck& deck, Size picture,
                               const std::vector<std::string>& others = {}) {
  std::vector<std::string> out;
  for (const ArtFinding& f : check_art(art, deck, {.size_of = all_but_one(picture), .there = others}))
    out.push_back(f.code + " " + f.face);
  return out;
}

Art sheet_of(int columns) {
  return {
      .card = {10, 14},
      .sheets =
          {{.picture = "s.png", .columns = columns, .cell = {10, 14}, .margin = {1, 2}, .spacing = {3, 4}}},
      .parts = {{"moth", {.picture = "s.png", .part = {{0, 40}, {10, 54}}}}}};
}

}  // namespace

TEST_CASE("art: a named part comes before a sheet's cell, and that before a picture of its own") {
  const Deck deck = small();
  Art art = sheet_of(3);
  const auto part = [&](const char* face) { return part_of(art, deck, *deck.find(face)); };
  CHECK(part("fern-1")->part == Rect{{1, 2}, {11, 16}});
  CHECK(part("poppy-3")->part == Rect{{27, 20}, {37, 34}});
  CHECK(part("moth")->part == Rect{{0, 40}, {10, 54}});
  art.sheets[0].order = SheetOrder::by_rank;
  art.sheets[0].columns = 2;
  CHECK(part("poppy-3")->part == Rect{{14, 38}, {24, 52}});
  art.sheets[0].suits = {"poppy"};
  art.sheets[0].ranks = {"3", "1"};
  CHECK(part("poppy-1")->part == Rect{{14, 2}, {24, 16}});
  CHECK_FALSE(part("fern-1").has_value());
  art.pattern = "faces/{suit}/{rank}-{face}.png";
  art.detail_pattern = "large/{face}.png";
  CHECK(part("fern-1")->picture == "faces/fern/1-fern-1.png");
  const auto shown = [&](ShownCard card) {
    card.box = {{0, 0}, {50, 70}};
    return picture_of(art, deck, card).part;
  };
  CHECK(shown({.face = *deck.find("fern-1"), .larger = true})->picture == "large/fern-1.png");
  CHECK_FALSE(part_of(art, deck, hidden_face).has_value());
  CHECK_FALSE(shown({.face_up = false}).has_value());
  art.back.picture = "back.png";
  art.backs["poppy"].picture = "poppy-back.png";
  CHECK(shown({.face = *deck.find("poppy-1"), .face_up = false})->picture == "back.png");
  DeckOptions telling = deck.options();
  telling.suit_backs = true;
  const Deck told(telling);
  const auto back = [&](const char* face) {
    return picture_of(art, told, ShownCard{.face = *told.find(face), .face_up = false}).part->picture;
  };
  CHECK(back("poppy-1") == "poppy-back.png");
  CHECK(back("fern-1") == "back.png");
  CHECK(back("moth") == "back.png");
}

TEST_CASE("studio: check finds the sheet that is off by one, and each other thing that is wrong") {
  const Deck deck = small();
  CHECK(codes(sheet_of(3), deck, {40, 60}).empty());
  // One column too few: the last rows are below the picture.
  CHECK(codes(sheet_of(2), deck, {40, 40}) ==
        std::vector<std::string>{"columns ", "outside poppy-2", "outside poppy-3", "outside moth"});
  Art art = sheet_of(3);
  art.parts["moth"].part = {{1, 2}, {11, 16}};
  CHECK(codes(art, deck, {40, 60}) == std::vector<std::string>{"shared-part moth"});
  art.parts["moth"].part = {{0, 40}, {10, 55}};
  CHECK(codes(art, deck, {40, 60}) == std::vector<std::string>{"unequal-parts moth"});
  art = sheet_of(3);
  art.parts.clear();
  CHECK(codes(art, deck, {40, 60}) == std::vector<std::string>{"no-part moth"});
  art = sheet_of(3);
  art.card = {10, 20};
  CHECK(codes(art, deck, {40, 60}) == std::vector<std::string>{"proportions "});
  art.card = {};
  art.parts["moth"].picture = "gone.png";
  const auto found =
      check_art(art, deck, {.size_of = all_but_one({40, 60}), .there = {"gone2.png", "other.png"}});
  REQUIRE(found.size() == 2);
  CHECK(found[0].message == "the picture 'gone.png' is not there: the nearest that is there is 'gone2.png'");
  CHECK(found[1].message == "pictures that are there and that nothing names: gone2.png, other.png");
}

TEST_CASE(
    "studio: check looks at all that an art names: backs, larger pictures, names of the deck, columns") {
  const Deck deck = small();
  const auto only = [&](const Art& art, const std::vector<std::string>& there) {
    const auto size = [&](const std::string& name) {
      const bool is = std::find(there.begin(), there.end(), name) != there.end();
      return is ? Result<Size>(Size{40, 60}) : Result<Size>(Problem{.message = "not there"});
    };
    std::vector<std::string> out;
    for (const ArtFinding& f : check_art(art, deck, {.size_of = size, .there = there}))
      out.push_back(f.code + ": " + f.message);
    return out;
  };
  const auto told = [](const std::vector<std::string>& found, const std::string& what) {
    return std::any_of(found.begin(), found.end(),
                       [&](const std::string& f) { return f.find(what) != std::string::npos; });
  };
  Art art = sheet_of(3);
  CHECK(only(art, {"s.png"}).empty());
  art.back.picture = "back.png";
  art.backs["poppy"].picture = "back-poppy.png";
  const auto backs = only(art, {"s.png", "poppy_back.png", "bakc.png"});
  CHECK(told(backs,
             "no-picture: the picture 'back.png' is not there: the nearest that is there is 'bakc.png'"));
  // The same words in another order come before what is written alike.
  CHECK(told(backs, "'back-poppy.png' is not there: the nearest that is there is 'poppy_back.png'"));
  CHECK(told(backs, "unused: pictures that are there and that nothing names: poppy_back.png, bakc.png"));
  art.back.part = {{30, 50}, {50, 70}};
  CHECK(told(only(art, {"s.png", "back.png", "back-poppy.png"}), "outside: its part from 30,50"));
  art = sheet_of(3);
  art.backs["popy"].picture = "s.png";
  CHECK(told(only(art, {"s.png"}),
             "unknown-suit: 'backs' names the suit 'popy', which the deck does not have"));
  art = sheet_of(3);
  art.parts["mothh"] = art.parts["moth"];
  CHECK(told(only(art, {"s.png"}),
             "unknown-face: 'parts' names the face 'mothh', which the deck does not have: "
             "did it mean 'moth'?"));
  art = sheet_of(3);
  art.sheets[0].ranks = {"1", "2", "03"};
  const auto ranks = only(art, {"s.png"});
  CHECK(
      told(ranks, "unknown-rank: the sheet 's.png' names the rank '03', which the deck does not have: did"));
  CHECK(told(ranks, "no-part: no part, sheet or pattern has it"));
  // A sheet of a larger deck is no mistake.
  art.sheets[0].ranks = {"1", "2", "3", "4"};
  art.sheets[0].columns = 3;
  CHECK_FALSE(told(only(art, {"s.png"}), "unknown-rank"));
  art = sheet_of(4);
  CHECK(
      told(only(art, {"s.png"}), "columns: 's.png' has room for 3 columns of 10 px, its description says 4"));
  art = sheet_of(3);
  art.detail_pattern = "large/{face}.png";
  const auto details = only(art, {"s.png", "large/1-fern.png"});
  CHECK(told(details,
             "no-detail: of 7 larger pictures 7 are not there, the first is 'large/fern-1.png'; the "
             "nearest that is there is 'large/1-fern.png'"));
}

TEST_CASE("art: files are read as they are written, valid by the schema, and say what is wrong with them") {
  const Schema schema("art");
  Art art = sheet_of(3);
  art.sheets[0].suits = {"poppy", "fern"};
  art.sheets[0].order = SheetOrder::by_rank;
  art.pattern = "{face}.png";
  art.back = {.picture = "back.png"};
  art.backs["fern"] = {.picture = "s.png", .part = {{1, 1}, {5, 9}}};
  art.sampling = Sampling::nearest;
  art.names = {{"K", "king"}};
  art.jokers["moth"] = {.suit = "red", .rank = "joker"};
  art.key_colour = Rgb{255, 0, 170};
  CHECK(*parse_art(write_art(art), "x") == art);
  CHECK(*parse_art(write_art(Art{}), "x") == Art{});
  CHECK(schema.accepts(nlohmann::json::parse(write_art(art))));
  const auto problem = [](const std::string& inside) {
    const auto read = parse_art(R"({"apsidon": "art", "version": 1, )" + inside + "}", "x.art.json");
    REQUIRE_FALSE(read.has_value());
    return describe(read.error()[0]);
  };
  CHECK(problem(R"("sheet": [])").find("'sheets'") != std::string::npos);
  CHECK(problem(R"("sheets": [{"picture": "a.png", "columns": 0, "cell": {"width": 1, "height": 1}}])")
            .find("/sheets/0/columns") != std::string::npos);
  CHECK(problem(R"("parts": [])").find("an object with parts by name") != std::string::npos);
  CHECK(problem(R"("sampling": "cubic")").find("smooth") != std::string::npos);
  CHECK(problem(R"("key_colour": "pink")").find("a colour like \"#155E46\" is expected") !=
        std::string::npos);
  CHECK(problem(R"("names": [])").find("an object with a text for each word") != std::string::npos);
  CHECK(problem(R"("back": 3)").find("a picture, or an object with a part of one,") != std::string::npos);
}

TEST_CASE("studio: a composed sheet shows every face as it is drawn by hand, and nothing is wrong with it") {
  const Deck deck = small();
  const Scratch scratch;
  const ComposedSheet sheet = compose_sheet(deck, {80, 112}, "sheet.png");
  sheet.picture.write_png(scratch / "sheet.png");
  const Gallery gallery(sheet.art, scratch / "");
  CHECK(check_art(gallery, deck).empty());
  CHECK(gallery.pictures() == std::vector<std::string>{"sheet.png"});
  std::vector<FaceId> sides = deck.faces();
  sides.push_back(hidden_face);
  for (const FaceId face : sides) {
    const Picture drawn = paint_card(deck, {.face = face, .box = {{0, 0}, {80, 112}}});
    const Picture shown = paint_card(deck, {.face = face, .box = {{0, 0}, {80, 112}}}, 1, &gallery);
    int differing = 0;
    for (int y = 6; y < 106; ++y) {
      for (int x = 6; x < 74; ++x) {
        const Pixel a = drawn.pixel(x, y);
        const Pixel b = shown.pixel(x, y);
        for (std::size_t i = 0; i < 4; ++i) differing += std::abs(a[i] - b[i]) > 3 ? 1 : 0;
      }
    }
    CAPTURE(deck.text(face));
    CHECK(differing == 0);
  }
  CHECK_THROWS_AS(compose_sheet(deck, {0, 5}, "x.png"), Error);
  // Cards of other proportions fill their cells.
  const ComposedSheet wide = compose_sheet(deck, {160, 60}, "wide.png");
  const Vec2 first = wide.art.sheets[0].margin;
  for (const float x : {4.0f, 80.0f, 155.0f})
    CHECK(wide.picture.pixel(static_cast<int>(first.x + x), static_cast<int>(first.y + 30))[3] == 255);
}

TEST_CASE("art: a face whose picture is missing shows its name instead of nothing") {
  const Deck deck = small();
  const Scratch scratch;
  const Gallery gallery(Art{.pattern = "{face}.png"}, scratch / "");
  const Picture shown =
      paint_card(deck, {.face = *deck.find("fern-2"), .box = {{0, 0}, {80, 112}}}, 1, &gallery);
  int dark = 0;
  for (int y = 0; y < 112; ++y) {
    for (int x = 0; x < 80; ++x) dark += shown.pixel(x, y)[1] < 100 && shown.pixel(x, y)[3] > 200 ? 1 : 0;
  }
  CHECK(dark > 60);
}

TEST_CASE("art: the pictures beside an art of the working folder are found as those of any other") {
  const Scratch scratch;
  const Deck deck = small();
  std::filesystem::create_directories(scratch / "faces");
  paint_card(deck, {.face = *deck.find("fern-2"), .box = {{0, 0}, {40, 56}}})
      .write_png(scratch / "faces/2-fern.png");
  const auto before = std::filesystem::current_path();
  std::filesystem::current_path(scratch / "");
  const std::vector<std::string> there = Gallery(Art{}, "").pictures();
  std::filesystem::current_path(before);
  CHECK(there == std::vector<std::string>{"faces/2-fern.png"});
}

TEST_CASE("art: a larger picture of a card is drawn from its own, where the art has one") {
  const Deck deck = small();
  const Scratch scratch;
  std::filesystem::create_directories(scratch / "large");
  const FaceId face = *deck.find("fern-1");
  // The large one is the plum back, to be told from the paper of the face.
  paint_card(deck, {.face = face, .box = {{0, 0}, {80, 112}}}, 1).write_png(scratch / "fern-1.png");
  paint_card(deck, {.face = hidden_face, .box = {{0, 0}, {160, 224}}}, 1)
      .write_png(scratch / "large/fern-1.png");
  const auto green_of = [&](FrameKind kind, const std::string& details) {
    const Gallery gallery(Art{.pattern = "{face}.png", .detail_pattern = details}, scratch / "");
    const Pose pose{.centre = {100, 120}};
    Frame frame{.window = {200, 240}, .card = {80, 112}};
    frame.items.push_back({.kind = kind,
                           .face = face,
                           .size = {80, 112},
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, {80, 112})});
    return int{paint(frame, deck, &gallery).pixel(70, 120)[1]};
  };
  CHECK(green_of(FrameKind::card, "large/{face}.png") > 200);
  CHECK(green_of(FrameKind::zoom, "large/{face}.png") < 120);
  CHECK(green_of(FrameKind::zoom, "") > 200);
  CHECK(green_of(FrameKind::zoom, "gone/{face}.png") > 200);
}

TEST_CASE("studio: the demo recipe is read and valid by its schema, and what is wrong in one is said") {
  const auto file = source("data/drawings/glasshouse.recipe.json");
  for (const char* one :
       {"data/drawings/glasshouse.recipe.json", "data/drawings/seedling/seedling.recipe.json"}) {
    CHECK(Schema("recipe").accepts(nlohmann::json::parse(contents(source(one)))));
    CHECK(load_recipe(source(one)).has_value());
  }
  const auto recipe = load_recipe(file);
  REQUIRE(recipe.has_value());
  CHECK(recipe->suits.size() == 4);
  CHECK(recipe->spots.at("10").size() == 10);
  const auto problem = [](const std::string& inside) {
    const auto read = parse_recipe(R"({"apsidon": "recipe", "version": 1, )" + inside + "}", "x");
    REQUIRE_FALSE(read.has_value());
    return describe(read.error()[0]);
  };
  CHECK(problem(R"("suit": {})").find("'suits'") != std::string::npos);
  CHECK(problem(R"("middle": [[0.5, 0.5], [0.4, 0.9]])").find("not below and right") != std::string::npos);
  CHECK(problem(R"("rank_mark": {"width": 3})").find("/rank_mark/width") != std::string::npos);
}
