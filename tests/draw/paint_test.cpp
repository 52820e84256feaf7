#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <set>

#include "apsidon/draw/draw_sketch.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/play/lone_card.hpp"
#include "apsidon/studio/sheets.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// How much of a picture is about this colour, 0 to 1.
double share_of(const Picture& picture, Pixel colour, int tolerance = 24) {
  int found = 0;
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) {
      const Pixel p = picture.pixel(x, y);
      bool near = p[3] > 128;
      for (std::size_t c = 0; c < 3; ++c) near = near && std::abs(int{p[c]} - int{colour[c]}) <= tolerance;
      found += near ? 1 : 0;
    }
  }
  return found / double(picture.width() * picture.height());
}

std::string bytes_of(const Picture& picture) {
  std::string bytes;
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) {
      for (const std::uint8_t c : picture.pixel(x, y)) bytes += static_cast<char>(c);
    }
  }
  return bytes;
}

constexpr Pixel paper{0xFB, 0xF6, 0xEA, 255};
constexpr Pixel green{0x15, 0x5E, 0x46, 255};
constexpr Pixel orange{0xC4, 0x50, 0x1D, 255};
constexpr Pixel plum{0x54, 0x28, 0x4A, 255};

Playfield small_field(Size window, float ratio = 1) {
  TableSetup setup(glasshouse());
  const ZoneId a = setup.add({.name = "a", .cards = {{.face = {5}}}});
  const ZoneId b = setup.add({.name = "b", .cards = {{.face = {6}, .face_up = false}}});
  const ZoneId c = setup.add({.name = "c"});
  setup.plans = {{.root = across({zone(a), zone(b), zone(c)}, 0.3f)}};
  return Playfield(std::move(setup), {.window = window, .pixel_ratio = ratio});
}

Pixel at(const Picture& picture, Vec2 p) {
  return picture.pixel(static_cast<int>(p.x * picture.pixel_ratio()),
                       static_cast<int>(p.y * picture.pixel_ratio()));
}

int brightness(Pixel p) { return p[0] + p[1] + p[2]; }

}  // namespace

TEST_CASE("draw: every face differs from every other, at full and at compact size") {
  const Deck deck = glasshouse();
  for (const Size size : {Size{100, 140}, Size{60, 84}, Size{36, 50}}) {
    std::set<std::string> pictures;
    for (const FaceId face : deck.faces())
      pictures.insert(bytes_of(paint_card(deck, {.face = face, .box = rect_at({0, 0}, size)})));
    pictures.insert(bytes_of(paint_card(deck, {.face = hidden_face, .box = rect_at({0, 0}, size)})));
    CHECK(pictures.size() == 53);
  }
}

TEST_CASE("draw: letters that go below the line stay clear of the edge of their card") {
  const Deck deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"A", "J", "Q", "K"}});
  for (const FaceId face : deck.faces()) {
    CAPTURE(deck.text(face));
    const Picture p = paint_card(deck, {.face = face, .box = rect_at({0, 0}, {200, 280})});
    // Along the upper edge, below the rim, there is paper alone.
    for (int x = 18; x < 60; ++x) CHECK((p.pixel(x, 2)[0] > 200 && p.pixel(x, 2)[2] > 150));
  }
}

TEST_CASE("draw: a face is warm paper with its suit's colour, a back is plum, corners are round") {
  const Deck deck = glasshouse();
  for (const char* face : {"fern-7", "reed-13"}) {
    const Picture p = paint_card(deck, {.face = *deck.find(face), .box = {{0, 0}, {100, 140}}});
    CHECK(share_of(p, paper) > 0.5);
    CHECK(share_of(p, green) > 0.02);
    CHECK(share_of(p, orange) < 0.06);  // a clay pot at the most
  }
  for (const char* face : {"poppy-7", "marigold-12"}) {
    const Picture p = paint_card(deck, {.face = *deck.find(face), .box = {{0, 0}, {100, 140}}});
    CHECK(share_of(p, orange, 40) > 0.02);
    CHECK(share_of(p, green) < 0.02);
  }
  const Picture back = paint_card(deck, {.face = hidden_face, .box = {{0, 0}, {100, 140}}});
  CHECK(share_of(back, plum) > 0.4);
  CHECK(back.pixel(0, 0)[3] < 40);
  CHECK(back.pixel(50, 70)[3] == 255);
}

TEST_CASE("draw: the two suit colours are far apart in lightness") {
  CHECK(brightness(orange) - brightness(green) > 90);
  const Deck deck = glasshouse();
  const auto darkest = [&](const char* face) {
    const Picture p = paint_card(deck, {.face = *deck.find(face), .box = {{0, 0}, {40, 56}}});
    int least = 765;
    for (int y = 4; y < 52; ++y) {
      for (int x = 4; x < 36; ++x) least = std::min(least, brightness(p.pixel(x, y)));
    }
    return least;
  };
  CHECK(darkest("poppy-1") - darkest("fern-1") > 60);
}

TEST_CASE(
    "draw: a picture of a frame is as large as its window at its pixel ratio, and darker to the edges") {
  const Playfield field = small_field({500, 300}, 1.5f);
  const Picture p = paint(field.frame(), field.table().deck());
  CHECK(p.width() == 750);
  CHECK(p.height() == 450);
  CHECK(brightness(p.pixel(1, 1)) < brightness(at(p, {250, 20})));
  // The open card is paper, the covered one plum, the empty place neither.
  const auto middle = [&](std::size_t zone) {
    return field.where().area({static_cast<std::uint32_t>(zone)})->centre();
  };
  CHECK(share_of(p, paper) > 0.1);
  CHECK(share_of(p, plum) > 0.1);
  CHECK(brightness(at(p, middle(3))) < 200);
}

TEST_CASE("draw: a card throws a shadow that widens with its lift") {
  const auto shade = [](float lift) {
    Frame frame{.window = {300, 300}, .card = {100, 140}, .corner_radius = 7};
    const Pose pose{.centre = {150, 150}, .lift = lift};
    frame.items.push_back({.back = true,
                           .card = {1},
                           .size = {100, 140},
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, {100, 140}),
                           .lift = lift});
    const Picture p = paint(frame, glasshouse());
    frame.items.clear();
    const Picture bare = paint(frame, glasshouse());
    int darkened = 0;
    for (int y = 0; y < 300; ++y) {
      for (int x = 0; x < 300; ++x)
        darkened += brightness(p.pixel(x, y)) < brightness(bare.pixel(x, y)) - 6 ? 1 : 0;
    }
    return darkened;
  };
  CHECK(shade(0) > 200);
  CHECK(shade(1) > shade(0) + 1000);
}

TEST_CASE("draw: what is dimmed or names its missing picture is as large as its card, and no larger") {
  const Deck deck = glasshouse();
  const auto painted = [&](float brightness, const Gallery* gallery) {
    Frame frame{.window = {200, 240}, .card = {100, 140}, .corner_radius = 7};
    const Pose pose{.centre = {100, 120}};
    FrameItem item{
        .face = {7}, .size = {100, 140}, .matrix = matrix_of(pose), .corners = corners(pose, {100, 140})};
    item.brightness = brightness;
    frame.items.push_back(item);
    return paint(frame, deck, gallery);
  };
  const Gallery nothing(Art{.pattern = "{suit}/{rank}.png"}, "/nowhere");
  const Picture whole = painted(1, nullptr), dimmed = painted(0.4f, nullptr), missing = painted(1, &nothing);
  CHECK(brightness(dimmed.pixel(100, 120)) < brightness(whole.pixel(100, 120)) - 100);
  for (const Picture* other : {&dimmed, &missing}) {
    for (const int x : {44, 47, 153, 156})
      CHECK(brightness(other->pixel(x, 120)) == brightness(whole.pixel(x, 120)));
    for (const int x : {53, 146}) CHECK(brightness(other->pixel(x, 180)) != brightness(whole.pixel(20, 180)));
    for (const int y : {55, 185})
      CHECK(brightness(other->pixel(100, y)) > brightness(whole.pixel(20, y)) + 20);
  }
}

TEST_CASE("draw: marks show: a target is outlined, an aimed-at one filled") {
  const auto painted = [](Marks marks) {
    Frame frame{.window = {200, 240}, .card = {100, 140}, .corner_radius = 7};
    const Pose pose{.centre = {100, 120}};
    frame.items.push_back({.kind = FrameKind::outline,
                           .marks = marks,
                           .size = {100, 140},
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, {100, 140})});
    return paint(frame, glasshouse());
  };
  const Picture plain = painted({});
  const Picture target = painted({.legal_target = true});
  const Picture aimed = painted({.legal_target = true, .aimed_at = true});
  CHECK(bytes_of(target) != bytes_of(plain));
  CHECK(brightness(target.pixel(100, 120)) == brightness(plain.pixel(100, 120)));
  CHECK(brightness(aimed.pixel(100, 120)) > brightness(plain.pixel(100, 120)) + 40);
}

TEST_CASE("draw: tiny and empty frames give a picture") {
  for (const Size window : {Size{0, 0}, Size{1, 1}, Size{3, 200}}) {
    const Playfield field = small_field(window);
    const Picture p = paint(field.frame(), field.table().deck());
    CHECK(p.width() >= 1);
    CHECK(p.height() >= 1);
  }
  CHECK(paint_card(glasshouse(), {.face = {1}, .box = {{0, 0}, {1, 1}}}).width() == 1);
}

TEST_CASE("draw: a deck of other suits and ranks is drawn too, each face legible and its own") {
  const Deck deck(
      {.suits = {{"oak", "red"}, {"elm", "blue"}, {"ash", "red"}}, .ranks = {"low", "mid", "high"}});
  std::set<std::string> pictures;
  for (const FaceId face : deck.faces())
    pictures.insert(bytes_of(paint_card(deck, {.face = face, .box = {{0, 0}, {80, 112}}})));
  CHECK(pictures.size() == 9);
}

TEST_CASE("draw: pictures are written as PNG, and what cannot be made is refused") {
  const Scratch scratch;
  const Picture p({20, 10}, 2);
  CHECK(p.width() == 40);
  CHECK(p.pixel(5, 5) == Pixel{0, 0, 0, 0});
  CHECK(p.pixel(-1, 99) == Pixel{0, 0, 0, 0});
  p.write_png(scratch / "p.png");
  CHECK(contents(scratch / "p.png").substr(1, 3) == "PNG");
  CHECK_THROWS_WITH(p.write_png("/nonexistent/p.png"),
                    Catch::Contains("/nonexistent/p.png: the file cannot be written: No such file"));
  CHECK_THROWS_WITH(Picture({10, 10}, 0), "picture: pixel ratio is 0: a positive number is expected");
  CHECK_THROWS_AS(Picture({NAN, 10}), Error);
  CHECK_THROWS_WITH(contact_sheet({}, glasshouse(), "x", {100, 100}),
                    "contact sheet: no shots: at least one is expected");
}

TEST_CASE("draw: a sketch draws over a picture, each layer in its colour") {
  Picture p({100, 100});
  Sketch sketch;
  sketch.box("areas", {{10, 10}, {40, 40}});
  sketch.line("hits", {50, 80}, {90, 80});
  sketch.point("neutral", {70, 20});
  sketch.label("areas", {60, 50}, "bed-1");
  sketch.quad("hits", corners({.centre = {25, 75}}, {20, 20}));
  draw_sketch(sketch, p);
  CHECK(p.pixel(10, 25)[3] > 0);
  CHECK(p.pixel(70, 80)[3] > 0);
  CHECK(p.pixel(70, 20)[3] > 0);
  CHECK(p.pixel(15, 75)[3] > 0);
  CHECK(p.pixel(95, 5)[3] == 0);
  CHECK(p.pixel(10, 25) != p.pixel(70, 80));
}

TEST_CASE("studio: a contact sheet shows each shot, a proof sheet each face") {
  const Playfield field = small_field({300, 200});
  const std::vector<Shot> shots{{.frame = field.frame(), .caption = "0.0 s"},
                                {.frame = field.frame(), .caption = "0.1 s"}};
  const Picture sheet = contact_sheet(shots, field.table().deck(), "two", {600, 260});
  CHECK(sheet.width() == 600);
  CHECK(share_of(sheet, plum) > 0.02);
  // Both halves show the same table.
  int difference = 0;
  for (int y = 80; y < 200; ++y)
    difference += std::abs(brightness(sheet.pixel(150, y)) - brightness(sheet.pixel(450, y)));
  CHECK(difference < 120 * 60);
  const Picture proof = proof_sheet(field.table().deck(), {1280, 800});
  CHECK(share_of(proof, paper) > 0.25);
}

namespace {

Picture picture_of_card(const Deck& deck, const std::string& face) {
  const LoneCard card(deck, {.face = *deck.find(face), .box = rect_at({0, 0}, {100, 140})});
  return paint(frame_of(std::span(&card, 1), {100, 140}), deck, nullptr, Ground::transparent);
}

}  // namespace

TEST_CASE("draw: suits are drawn in the colours that are stated, the four commonest as inks") {
  const Deck deck({.suits = {{"drop", "#2040c0"},
                             {"flame", "crimson"},
                             {"leaf", "green"},
                             {"star", "no-colour-at-all"},
                             {"rose", "red"},
                             {"coal", "black"}},
                   .ranks = {"1", "2", "3", "4", "5"}});
  CHECK(share_of(picture_of_card(deck, "drop-5"), {0x20, 0x40, 0xC0, 255}) > 0.004);
  CHECK(share_of(picture_of_card(deck, "flame-5"), {0xDC, 0x14, 0x3C, 255}) > 0.004);
  CHECK(share_of(picture_of_card(deck, "leaf-5"), {0x15, 0x5E, 0x46, 255}) > 0.004);
  CHECK(share_of(picture_of_card(deck, "leaf-5"), {0, 128, 0, 255}, 8) == 0);
  CHECK(share_of(picture_of_card(deck, "rose-5"), {0xB0, 0x30, 0x2B, 255}) > 0.004);
  CHECK(share_of(picture_of_card(deck, "rose-5"), {255, 0, 0, 255}, 8) == 0);
  CHECK(share_of(picture_of_card(deck, "coal-5"), {0x23, 0x28, 0x2B, 255}) > 0.004);
  CHECK(share_of(picture_of_card(deck, "coal-5"), {0, 0, 0, 255}, 8) == 0);
  CHECK(share_of(picture_of_card(deck, "star-5"), {0x20, 0x40, 0xC0, 255}, 8) == 0);
}

TEST_CASE("draw: ranks of many letters have a mark of their own, and take nobody else's away") {
  const Deck deck({.suits = {{"fern", "green"}},
                   .ranks = {"2", "10", "jack", "queen", "king", "knave", "ace", "ärger", "kin"}});
  std::vector<std::string> marks;
  for (int rank = 0; rank < deck.rank_count(); ++rank) marks.push_back(rank_mark(deck, rank));
  CHECK(marks == std::vector<std::string>{"2", "10", "J", "Q", "Kin", "Kn", "ace", "ä", "kin"});
  const Deck plain({.suits = {{"fern", "green"}}, .ranks = {"2", "10", "j", "q"}});
  // A number keeps its corners beside words: where its mark is, is what it is without them.
  const Picture beside = picture_of_card(deck, "fern-10"), alone = picture_of_card(plain, "fern-10");
  int differ = 0;
  for (int y = 4; y < 25; ++y) {
    for (int x = 4; x < 25; ++x) differ += beside.pixel(x, y) == alone.pixel(x, y) ? 0 : 1;
  }
  CHECK(differ == 0);
}

TEST_CASE("draw: what a zone that scrolls clips shows inside of its clip, and nowhere else") {
  const Deck deck = glasshouse();
  const LoneCard card(deck, {.face = {7}, .box = rect_at({20, 20}, {100, 140})});
  Frame frame = frame_of(std::span(&card, 1), {160, 200});
  const Rect clip{{50, 60}, {90, 120}};
  frame.items[0].clip = clip;
  const Picture whole = paint(frame_of(std::span(&card, 1), {160, 200}), deck, nullptr, Ground::transparent);
  const Picture cut = paint(frame, deck, nullptr, Ground::transparent);
  for (int y = 0; y < 200; ++y) {
    for (int x = 0; x < 160; ++x) {
      const bool inside = clip.contains({static_cast<float>(x) + 0.5f, static_cast<float>(y) + 0.5f});
      if (!inside) REQUIRE(cut.pixel(x, y)[3] == 0);
      const Pixel a = cut.pixel(x, y), b = whole.pixel(x, y);
      for (std::size_t c = 0; inside && c < 4; ++c) REQUIRE(std::abs(int{a[c]} - int{b[c]}) <= 3);
    }
  }
}

TEST_CASE("draw: translucent pixels stay what they are on their way into a picture and out of it") {
  Pixels pixels{.width = 2, .height = 1, .all = {{200, 100, 0, 128}, {255, 255, 255, 0}}};
  const Picture picture = Picture::of(pixels);
  CHECK(picture.row(0)[0] == 0x80643200);  // premultiplied
  CHECK(picture.row(0)[1] == 0);
  const Pixel back = picture.pixel(0, 0);
  CHECK(std::abs(back[0] - 200) <= 1);
  CHECK(std::abs(back[1] - 100) <= 1);
  CHECK(back[2] == 0);
  CHECK(back[3] == 128);
}
