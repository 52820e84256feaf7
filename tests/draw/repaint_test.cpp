// What a renderer of one's own is given: atlases, sprites, shadows, weights; and painting only what has
// changed.
#include <set>

#include "apsidon/draw/atlas.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/draw/sprites.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/session.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr std::chrono::seconds plenty{60};

std::size_t differing(const Picture& a, const Picture& b, int tolerance) {
  const Pixels x = a.pixels(), y = b.pixels();
  if (x.all.size() != y.all.size()) return x.all.size();
  std::size_t n = 0;
  for (std::size_t i = 0; i < x.all.size(); ++i) {
    int most = 0;
    for (std::size_t c = 0; c < 4; ++c) most = std::max(most, std::abs(int{x.all[i][c]} - int{y.all[i][c]}));
    n += most > tolerance ? 1u : 0u;
  }
  return n;
}

}  // namespace

TEST_CASE("geometry: under perspective a point of a card shows where its own projection has it") {
  for_all("points of cards", 20, [](Random& r) {
    const Size card{r.uniform(20, 200), r.uniform(20, 300)};
    const Pose pose{.centre = {r.uniform(0, 900), r.uniform(0, 900)},
                    .rotation = r.uniform(-4, 4),
                    .flip = r.uniform(-1.4f, 1.4f),
                    .flip_axis = r.uniform(-2, 2)};
    const Quad quad = corners(pose, card);
    for (const Vec2 share : {Vec2{0, 0}, Vec2{1, 0}, Vec2{1, 1}, Vec2{0, 1}}) {
      const std::size_t i = share.y < 0.5f ? (share.x < 0.5f ? 0u : 1u) : (share.x < 0.5f ? 3u : 2u);
      RC_ASSERT(length(point_in(quad, share) - quad.corners[i]) < 0.01f);
    }
    // The middle, about which it flips, is as far as if it lay flat.
    const Vec2 middle = point_in(quad, {0.5f, 0.5f});
    RC_ASSERT(length(middle - pose.centre) < 0.01f);
    const auto weights = corner_weights(quad);
    for (const float w : weights) RC_ASSERT(w > 0.3f && w < 3);
  });
  const auto flat = corner_weights(corners({.centre = {50, 50}, .rotation = 1}, {30, 40}));
  for (const float w : flat) CHECK(w == Approx(1).margin(1e-4));
  for (const float w : corner_weights(Quad{})) CHECK(w == 1);
}

TEST_CASE("play: shadows fall straight down, are wider the higher a card is, and do not add up in a pile") {
  TableSetup setup(glasshouse());
  const ZoneId pile = setup.add({.name = "pile", .layout = {.kind = PileLayout{}, .longest = 52}});
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 3, .facing = Facing::top},
                                 .cards = {{.face = {1}}, {.face = {2}}}});
  setup.add_deck(pile);
  setup.plans = {{.root = across(
                      {
                          zone(pile),
                          zone(hand, 1),
                      },
                      0.3f)}};
  const Playfield field(setup, {.window = {700, 300}});
  std::vector<Shadow> shadows;
  shadows_of(field.frame(), shadows);
  REQUIRE(shadows.size() == field.frame().items.size());
  float in_pile = 0;
  for (std::size_t i = 0; i < shadows.size(); ++i) {
    const FrameItem& item = field.frame().items[i];
    CHECK(shadows[i].offset.x == 0);
    CHECK(shadows[i].offset.y > 0);
    if (item.zone == pile) in_pile += shadows[i].opacity;
    if (item.zone == hand) CHECK(shadows[i].opacity > 0.3f);
  }
  CHECK(in_pile > 0.4f);
  CHECK(in_pile < 1);
  Frame lifted{.items = {FrameItem{.size = {100, 140}}, FrameItem{.size = {100, 140}, .lift = 1},
                         FrameItem{.kind = FrameKind::outline, .size = {100, 140}}}};
  shadows_of(lifted, shadows);
  CHECK(shadows[1].blur > 3 * shadows[0].blur);
  CHECK(shadows[1].opacity < shadows[0].opacity);
  CHECK(shadows[2].opacity == 0);
}

TEST_CASE("draw: an atlas is built in slices, what a frame shows first, and has each card as it is painted") {
  DeckOptions options = glasshouse().options();
  options.suit_backs = true;
  const Deck deck(options);
  Atlas atlas(deck, {50, 70}, 2);
  CHECK_FALSE(atlas.whole());
  Frame frame;
  frame.items.push_back({.face = {40}, .size = {50, 70}});
  frame.items.push_back({.back = true, .back_suit = 2, .size = {50, 70}});
  CHECK_FALSE(atlas.build(frame, std::chrono::nanoseconds(0)));
  REQUIRE(atlas.fresh().size() == 1);
  CHECK(atlas.has(frame.items[0]));
  CHECK_FALSE(atlas.has(frame.items[1]));
  std::set<std::pair<int, int>> drawn{{atlas.fresh()[0].x, atlas.fresh()[0].y}};
  int calls = 0;
  while (!atlas.build(frame, std::chrono::nanoseconds(0))) {
    ++calls;
    for (const PixelBox& box : atlas.fresh()) CHECK(drawn.insert({box.x, box.y}).second);
  }
  CHECK(atlas.whole());
  CHECK(calls > 50);
  const PixelBox cell = atlas.cell(frame.items[0]);
  CHECK(cell.width == 100);
  const Picture alone = paint_card(deck, {.face = {40}, .box = {{0, 0}, {50, 70}}}, 2);
  CHECK(differing(Picture::of(atlas.pixels(cell)), alone, 40) < 40);
  CHECK(atlas.pixels().all.size() ==
        static_cast<std::size_t>(atlas.width()) * static_cast<std::size_t>(atlas.height()));
  CHECK(atlas.cell({.back = true, .back_suit = 1}) != atlas.cell({.back = true}));
  // Each side has a place of its own in the picture.
  std::vector<PixelBox> cells;
  for (const FaceId face : deck.faces()) cells.push_back(atlas.cell({.face = face}));
  cells.push_back(atlas.cell({.back = true}));
  for (const PixelBox& box : cells) {
    CHECK((box.width == 100 && box.height == 140));
    CHECK((box.x >= 0 && box.y >= 0 && box.x + box.width <= atlas.width() &&
           box.y + box.height <= atlas.height()));
    CHECK(std::count_if(cells.begin(), cells.end(), [&](const PixelBox& other) {
            return box.x < other.x + other.width && other.x < box.x + box.width &&
                   box.y < other.y + other.height && other.y < box.y + box.height;
          }) == 1);
  }
  CHECK_THROWS_AS(Atlas(deck, {0, 5}, 1), Error);
  CHECK(Atlas(deck, {3000, 4000}, 8).pixel_ratio() < 8);
}

TEST_CASE("draw: sprites reach as far beyond their thing as they say") {
  CHECK(paint_panel({.area = {{10, 10}, {110, 40}}, .kind = PanelKind::button, .text = "go"}, 2).width() ==
        216);
  const Picture ring = paint_marks({50, 70}, 4, {.focus = true});
  CHECK(ring.width() == 58);
  CHECK(ring.pixel(29, 3)[3] > 100);
  CHECK(ring.pixel(29, 35)[3] == 0);
  CHECK(paint_marks({50, 70}, 4, {}, true).pixel(29, 35)[3] > 30);
  // How wide each ring is, at four device pixels to a px.
  const auto width = [](const Marks& marks) {
    const Picture big = paint_marks({50, 70}, 4, marks, false, 4);
    float covered = 0;
    for (int x = 0; x < big.width() / 4; ++x)
      covered += static_cast<float>(big.pixel(x, big.height() / 2)[3]) / 255;
    return covered / 4;
  };
  CHECK(width({.focus = true}) == Approx(3).margin(0.2));
  CHECK(width({.refused = true}) == Approx(3).margin(0.2));
  CHECK(width({.legal_target = true}) == Approx(2).margin(0.2));
  CHECK(width({.locked = true}) == Approx(0.75).margin(0.2));  // half transparent
  const Picture shadow = paint_shadow({50, 70}, 4, 10);
  CHECK(shadow.width() == 62);
  CHECK(shadow.pixel(31, 41)[3] == Approx(255 * painted_shadow_opacity).margin(4));
  CHECK(shadow.pixel(0, 0)[3] < 10);
  CHECK(paint_background({40, 30}, 2).height() == 60);
}

TEST_CASE("draw: what is painted anew after each frame is the whole frame, whatever happens") {
  for_all("repainting", 1, [](Random& r) {
    Playfield field(random_setup(r), {.window = {360, 260}});
    const Deck deck = field.table().deck();
    Painter painter(deck);
    std::optional<Picture> picture;
    field.performances().deal();
    double time = 0;
    for (int step = 0; step < 6; ++step) {
      time += double{r.uniform(0.01f, 0.25f)};
      if (r.chance(0.4f)) {
        const Vec2 at = some_card_point(r, field);
        field.pointer(
            {.phase = r.chance(0.5f) ? PointerPhase::down : PointerPhase::up, .at = at, .time = time});
      } else if (r.chance(0.6f)) {
        field.pointer({.phase = PointerPhase::move, .at = some_card_point(r, field), .time = time});
      } else if (r.chance(0.2f)) {
        field.resize({r.uniform(200, 400), r.uniform(200, 300)}, 1, time);
      }
      field.advance_to(time);
      std::size_t painted = 0;
      for (const PixelBox& box : painter.repaint(picture, field.frame(), plenty))
        painted += static_cast<std::size_t>(box.width) * static_cast<std::size_t>(box.height);
      RC_ASSERT(painter.complete());
      RC_ASSERT(painted <= 2 * picture->pixels().all.size());
      // Sizes are kept in steps, so that edges may differ by a little.
      RC_ASSERT(differing(*picture, Painter(deck).paint(field.frame()), 60) < 60);
    }
    // At rest nothing is painted.
    field.advance_to(time + 60);
    (void)painter.repaint(picture, field.frame(), plenty);
    RC_ASSERT(painter.repaint(picture, field.frame(), plenty).empty());
  });
}

TEST_CASE("draw: cards that change in many places are painted anew, each of them") {
  TableSetup setup(glasshouse());
  const ZoneId board =
      setup.add({.name = "board", .layout = {.kind = GridLayout{.columns = 13}, .longest = 52}});
  setup.add_deck(board, {.face_up = true});
  setup.plans = {{.root = zone(board)}};
  Playfield field(setup, {.window = {900, 500}});
  Painter painter(setup.table.deck());
  std::optional<Picture> picture;
  (void)painter.repaint(picture, field.frame(), plenty);
  for (std::size_t i = 0; i < 52; i += 3)
    CHECK(field.edits().flip(field.table().zone(board)->cards[i], false));
  field.advance_to(10);
  (void)painter.repaint(picture, field.frame(), plenty);
  CHECK(differing(*picture, Painter(setup.table.deck()).paint(field.frame()), 60) == 0);
}

TEST_CASE("draw: what changes of a panel is painted anew") {
  TableSetup setup(glasshouse());
  const ZoneId pile = setup.add({.name = "pile", .layout = {.kind = PileLayout{}}});
  const PanelId score = setup.add_panel({.name = "score", .kind = PanelKind::counter, .text = "7"});
  setup.plans = {{.root = across({zone(pile), panel(score, {.px = 80}, {.px = 40})})}};
  Playfield field(setup, {.window = {300, 200}});
  Painter painter(setup.table.deck());
  std::optional<Picture> picture;
  (void)painter.repaint(picture, field.frame(), plenty);
  CHECK(field.edits().set_panel(score, "88"));
  CHECK_FALSE(painter.repaint(picture, field.frame(), plenty).empty());
  CHECK(differing(*picture, Painter(setup.table.deck()).paint(field.frame()), 10) == 0);
}

TEST_CASE("draw: a frame never waits for more cards than there is time, and comes to have all of them") {
  TableSetup setup(glasshouse());
  const ZoneId board =
      setup.add({.name = "board", .layout = {.kind = GridLayout{.columns = 13}, .longest = 52}});
  setup.add_deck(board, {.face_up = true});
  setup.plans = {{.root = zone(board)}};
  const Playfield field(setup, {.window = {900, 500}});
  Painter painter(setup.table.deck());
  std::optional<Picture> picture;
  int calls = 0;
  do {
    (void)painter.repaint(picture, field.frame(), std::chrono::nanoseconds(1));
    ++calls;
  } while (!painter.complete() && calls < 1000);
  CHECK(calls > 40);
  CHECK(calls < 60);
  CHECK(differing(*picture, Painter(setup.table.deck()).paint(field.frame()), 8) == 0);
}

TEST_CASE("draw: a card that is all but edge-on leaves the rest of its frame as it is") {
  const Deck deck = glasshouse();
  Frame frame{.revision = 1, .window = {300, 200}, .card = {60, 84}};
  for (const float flip : {1.5707963f, 1.57f, 1.569f, 1.5f, 0.0f}) {
    const Pose pose{.centre = {40 + 60 * static_cast<float>(frame.items.size()), 100}, .flip = flip};
    frame.items.push_back({.face = {3},
                           .size = {60, 84},
                           .order = frame.items.size() + 1,
                           .matrix = matrix_of(pose),
                           .corners = corners(pose, {60, 84})});
  }
  const Picture picture = paint(frame, deck);
  CHECK(picture.pixel(280, 90)[0] > 200);  // the last one's paper
  const Scratch scratch;
  CHECK_NOTHROW(picture.write_png(scratch / "p.png"));
}
