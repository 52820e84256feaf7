// The picture of one card: which part, and where it lies; and pixel art that stays crisp.
#include "apsidon/art/card_picture.hpp"

#include <set>

#include "apsidon/draw/paint.hpp"
#include "apsidon/play/lone_card.hpp"
#include "apsidon/studio/compose.hpp"
#include "apsidon/studio/recipe.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

PictureSize only(const std::set<std::string>& there) {
  return [there](const std::string& name) {
    return there.contains(name) ? Result<Size>(Size{40, 60}) : Result<Size>(Problem{.message = "not there"});
  };
}

bool near(const Quad& a, const Quad& b) {
  for (std::size_t i = 0; i < 4; ++i) {
    if (length(a.corners[i] - b.corners[i]) > 1e-3f) return false;
  }
  return true;
}

}  // namespace

TEST_CASE("art: a card's picture lies where a lone card of the same box, fit and orientation lies") {
  for_all("pictures of cards", 20, [](Random& r) {
    const Deck deck = glasshouse();
    const Rect box =
        rect_at({r.uniform(-50, 500), r.uniform(-50, 500)}, {r.uniform(5, 300), r.uniform(5, 300)});
    const FaceId face{static_cast<std::uint32_t>(r.between(1, 52))};
    const bool face_up = r.chance(0.5f);
    const bool sideways = r.chance(0.5f);
    const Fit fit = r.chance(0.5f) ? Fit::contain : Fit::fill;
    const CardPicture picture =
        picture_of({.card = {100, 140}}, deck,
                   ShownCard{.face = face, .face_up = face_up, .sideways = sideways, .box = box, .fit = fit});
    const LoneCard lone(deck,
                        {.face = face, .face_up = face_up, .sideways = sideways, .box = box, .fit = fit});
    const FrameItem item = lone.item();
    RC_ASSERT(std::abs(item.size.width - picture.size.width) < 1e-3f);
    RC_ASSERT(near(picture.corners, item.corners));
    RC_ASSERT(picture.back == !face_up);
    RC_ASSERT(picture.name == (face_up ? deck.text(face) : ""));
    // The same of the item itself, which says where it is.
    const CardPicture of_item = picture_of(Art{}, deck, item);
    RC_ASSERT(of_item.corners == item.corners);
    RC_ASSERT(of_item.name == picture.name);
  });
}

TEST_CASE("art: what is not there gives way to the next, and a part is never empty") {
  const Deck deck(
      {.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "K"}, .suit_backs = true});
  Art art{.pattern = "{face}.png", .detail_pattern = "large/{face}.png", .back = {.picture = "back.png"}};
  art.backs["poppy"].picture = "poppy-back.png";
  const FaceId king = *deck.find("poppy-K");
  const auto name = [&](const ShownCard& view, const std::set<std::string>& there) {
    const auto part = picture_of(art, deck, view, only(there)).part;
    if (part) CHECK(part->part == Rect{{0, 0}, {40, 60}});
    return part ? part->picture : "none";
  };
  CHECK(name({.face = king, .larger = true}, {"large/poppy-K.png", "poppy-K.png"}) == "large/poppy-K.png");
  CHECK(name({.face = king, .larger = true}, {"poppy-K.png"}) == "poppy-K.png");
  CHECK(name({.face = king}, {"large/poppy-K.png"}) == "none");
  CHECK(name({.face = king, .face_up = false}, {"back.png", "poppy-back.png"}) == "poppy-back.png");
  CHECK(name({.face = king, .face_up = false}, {"back.png"}) == "back.png");
  CHECK(name({.face_up = false}, {"back.png", "poppy-back.png"}) == "back.png");
  CHECK(name({}, {"back.png"}) == "back.png");
  // A card whose proportions are not stated has those of its picture.
  const CardPicture own =
      picture_of(art, deck, ShownCard{.face = king, .box = {{0, 0}, {200, 60}}}, only({"poppy-K.png"}));
  CHECK(own.size == Size{40, 60});
}

TEST_CASE("art: words of the deck have names in patterns, and jokers their parts") {
  const Deck deck(
      {.suits = {{"fern", "green"}}, .ranks = {"1", "K"}, .jokers = {{"moth", "green"}, {"newt", ""}}});
  Art art{.pattern = "{suit}/{rank}|{face}.png",
          .names = {{"K", "king"}, {"fern", "f"}, {"fern-1", "first"}}};
  art.jokers["moth"] = {.suit = "green", .rank = "joker"};
  const auto picture = [&](const char* face) { return part_of(art, deck, *deck.find(face))->picture; };
  CHECK(picture("fern-K") == "f/king|f-king.png");
  CHECK(picture("fern-1") == "f/1|first.png");
  CHECK(picture("moth") == "green/joker|moth.png");
  CHECK(picture("newt") == "/newt|newt.png");
}

TEST_CASE("draw: one card is painted on nothing, in any orientation, the same but for a quarter turn") {
  const Deck deck = glasshouse();
  const Picture upright = paint_card(deck, {.face = {7}, .box = {{10, 20}, {110, 160}}});
  const Picture sideways = paint_card(deck, {.face = {7}, .sideways = true, .box = {{0, 0}, {140, 100}}});
  CHECK(upright.width() == 100);
  CHECK(sideways.width() == 140);
  CHECK(upright.pixel(0, 0)[3] < 40);  // a round corner
  CHECK(sideways.pixel(139, 0)[3] < 40);
  // Clockwise: what was at the top left is at the top right. Lettering is set a little otherwise.
  int differing = 0;
  for (int y = 0; y < 140; ++y) {
    for (int x = 0; x < 100; ++x) {
      const Pixel a = upright.pixel(x, y);
      const Pixel b = sideways.pixel(139 - y, x);
      differing += std::abs(a[0] - b[0]) > 60 ? 1 : 0;
    }
  }
  CHECK(differing < 100 * 140 / 50);
}

TEST_CASE("studio: a deck composed of pixel art has the drawings' pixels and tints, and no others") {
  const Deck deck = glasshouse();
  const auto folder = source("data/drawings/seedling");
  const auto recipe = load_recipe(folder / "seedling.recipe.json");
  REQUIRE(recipe.has_value());
  std::set<Pixel> known{{0, 0, 0, 0}, {0x15, 0x5E, 0x46, 255}, {0xC4, 0x50, 0x1D, 255}};
  const Gallery drawings({}, folder);
  for (const std::string& name : drawings.pictures()) {
    for (const Pixel& p : drawings.pixels(name).all) known.insert(p);
  }
  for (const float times : {1.0f, 3.0f}) {
    Recipe larger = *recipe;
    larger.card = {13 * times, 19 * times};
    const ComposedSheet sheet = compose_sheet(deck, larger, folder, "s.png");
    CHECK(sheet.whole());
    CHECK(sheet.art.sampling == Sampling::nearest);
    std::set<Pixel> others;
    for (const Pixel& p : sheet.picture.pixels().all) {
      if (!known.contains(p)) others.insert(p);
    }
    CHECK(others.empty());
  }
  // The marks of a suit are in its colour, wherever their picture is black.
  const ComposedSheet sheet = compose_sheet(deck, *recipe, folder, "s.png");
  const Rect poppy = part_of(sheet.art, deck, *deck.find("poppy-7"))->part;
  CHECK(sheet.picture.pixel(static_cast<int>(poppy.min.x) + 3, static_cast<int>(poppy.min.y) + 2) ==
        Pixel{0xC4, 0x50, 0x1D, 255});
}

TEST_CASE("art: a key colour becomes transparent") {
  const Scratch scratch;
  Picture picture({4, 4});
  picture.write_png(scratch / "p.png");
  const Deck deck = glasshouse();
  paint_card(deck, {.face_up = false, .box = {{0, 0}, {50, 70}}}).write_png(scratch / "back.png");
  const Gallery plain({}, scratch / "");
  const Pixel middle = plain.pixels("back.png").at(25, 3);
  const Gallery keyed({.key_colour = Rgb{middle[0], middle[1], middle[2]}}, scratch / "");
  const Pixels without = keyed.pixels("back.png");
  CHECK(middle[3] == 255);
  CHECK(without.at(25, 3)[3] == 0);
  CHECK(without.width == 50);
  CHECK(keyed.pixels("gone.png").empty());
}

TEST_CASE("studio: composing says which faces have no picture, whatever it is made from") {
  const Deck deck = glasshouse();
  const Scratch scratch;
  paint_card(deck, {.face = {1}, .box = {{0, 0}, {50, 70}}}).write_png(scratch / "fern-1.png");
  const Gallery gallery({.pattern = "{face}.png"}, scratch / "");
  const ComposedSheet packed = compose_sheet(deck, {25, 35}, "s.png", &gallery);
  CHECK(packed.nameless.size() == 51);
  CHECK_FALSE(packed.whole());
  CHECK(compose_sheet(deck, {25, 35}, "s.png").whole());
  // Backs that differ come out as they went in.
  DeckOptions options = deck.options();
  options.suit_backs = true;
  const ComposedSheet backs = compose_sheet(Deck(options), {25, 35}, "s.png");
  CHECK(backs.art.backs.size() == 4);
}

TEST_CASE("draw: many frames painted by one painter are as each by itself, but for what nobody sees") {
  TableSetup setup(glasshouse());
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 52}});
  const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 5}});
  setup.add_deck(stock);
  setup.plans = {{.root = across({zone(stock), zone(hand, 1)}, 0.3f)}};
  setup.deal_from = stock;
  Playfield field(setup, {.window = {500, 260}});
  Painter painter(setup.table.deck());
  field.performances().perform(draw(stock, hand, 3));
  for (const double time : {0.0, 0.2, 0.35, 5.0}) {
    field.advance_to(time);
    const Pixels kept = painter.paint(field.frame()).pixels();
    const Pixels anew = paint(field.frame(), setup.table.deck()).pixels();
    REQUIRE(kept.all.size() == anew.all.size());
    std::size_t differing = 0;
    for (std::size_t i = 0; i < kept.all.size(); ++i) {
      int most = 0;
      for (std::size_t c = 0; c < 4; ++c)
        most = std::max(most, std::abs(int{kept.all[i][c]} - int{anew.all[i][c]}));
      differing += most > 40 ? 1u : 0u;
    }
    CAPTURE(time);
    CHECK(differing < kept.all.size() / 100);
  }
}

TEST_CASE("draw: a frame is an SVG and a PDF too, with and without its background") {
  const Deck deck = glasshouse();
  LoneCard card(deck, {.face = {7}, .box = {{20, 20}, {120, 160}}});
  card.flip();
  card.advance_to(0.1);  // under perspective
  const Frame frame = frame_of({&card, 1}, {140, 180});
  const std::string svg = paint_svg(frame, deck);
  CHECK(svg.starts_with("<?xml"));
  CHECK(svg.find("width=\"140px\" height=\"180px\"") != std::string::npos);
  CHECK(svg.ends_with("</svg>\n"));
  CHECK(paint_svg(frame, deck, nullptr, Ground::transparent).size() < svg.size());
  const std::string pdf = paint_pdf(frame, deck);
  CHECK(pdf.starts_with("%PDF-"));
  CHECK(pdf.find("%%EOF") != std::string::npos);
  CHECK_THROWS_AS(paint_svg({}, deck), Error);
}

TEST_CASE("draw: ranks that are numbers show as many sprigs, from none to thirty") {
  const Deck deck(
      {.suits = {{"fern", "green"}}, .ranks = {"0", "1", "2", "10", "11", "15", "20", "30", "x", "y", "z"}});
  std::vector<int> ink;
  for (const std::string rank : {"0", "2", "10", "11", "15", "20", "30"}) {
    const Picture p = paint_card(deck, {.face = *deck.find("fern-" + rank), .box = {{0, 0}, {200, 280}}});
    int green = 0;
    for (int y = 60; y < 220; ++y) {
      for (int x = 50; x < 150; ++x) green += p.pixel(x, y)[0] < 120 ? 1 : 0;
    }
    ink.push_back(green);
  }
  CHECK(ink[0] == 0);
  CHECK(ink[1] > 50);
  // Smaller ones, but more of them.
  CHECK(ink[4] > ink[3]);
  CHECK(ink[5] > ink[4]);
  CHECK(ink[6] > ink[5]);
}
