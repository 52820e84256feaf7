// One card more or less moves the others smoothly, and boards agree with CSS Box Alignment.
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::vector<Pose> laid(const Layout& layout, const Rect& area, Size card, std::size_t n,
                       bool scrolls = false) {
  const std::vector<LaidCard> cards(n);
  std::vector<Pose> poses(n);
  lay_out(layout, {.area = area, .card = card, .cards = cards, .scrolls = scrolls}, poses);
  return poses;
}

/// What a step from one card to the next may be, px; the bound on what one card more moves its neighbours.
float stated_bound(const Layout& layout, Size card) {
  if (const auto* l = std::get_if<ColumnLayout>(&layout)) return l->open_strip * card.height;
  if (const auto* l = std::get_if<SpreadLayout>(&layout)) return l->spacing * card.width;
  // A hand also bends further by a step: its ends sink, and turned cards reach further to the side.
  if (const auto* l = std::get_if<HandLayout>(&layout)) {
    return 1.5f * l->spacing * card.width + l->step.radians() * length({card.width, card.height});
  }
  if (const auto* l = std::get_if<PileLayout>(&layout)) return l->thickness * card.height + 1e-3f;
  return 0;
}

}  // namespace

TEST_CASE("layout: one card more moves no other by more than a step of the layout") {
  int checked = 0;
  for_all("smooth", 10, [&](Random& r) {
    Layout layout = random_layout(r);
    if (auto* pile = std::get_if<PileLayout>(&layout)) pile->untidy_angle = {}, pile->untidy_offset = 0;
    const Size card{r.uniform(20, 150), r.uniform(20, 200)};
    const float bound = stated_bound(layout, card);
    const bool bounded =
        !std::holds_alternative<GridLayout>(layout) && !std::holds_alternative<RingLayout>(layout);
    if (!bounded) return;
    const Rect area = rect_at({0, 0}, {card.width * r.uniform(1, 8), card.height * r.uniform(1, 6)});
    const std::size_t n = 1 + r.below(60);
    const auto fewer = laid(layout, area, card, n);
    const auto more = laid(layout, area, card, n + 1);
    for (std::size_t i = 0; i < n; ++i) {
      const float moved = length(more[i].centre - fewer[i].centre);
      if (moved > bound + 0.05f) {
        RC_FAIL(std::string(traits_of(layout).name) + ": a card moved by " + std::to_string(moved) + " px, " +
                std::to_string(bound) + " is stated");
      }
    }
    ++checked;
  });
  CHECK(checked > 200);
}

TEST_CASE("layout: tracks lie as CSS Box Alignment has it, to 0.01 px, overflowing ones too") {
  for_all("box alignment", 50, [](Random& r) {
    const auto how = static_cast<Distribute>(r.below(6));
    const bool safe = r.chance(0.5f);
    const std::size_t n = 1 + r.below(9);
    const double size = double{r.uniform(1, 200)};
    const double gap = double{r.uniform(0, 40)};
    const double length = double{r.uniform(1, 1500)};
    // The rows of a grid that scrolls are such tracks.
    const std::vector<LaidCard> cards(n);
    std::vector<Pose> poses(n);
    constexpr float width = 10;
    (void)lay_out(
        GridLayout{.columns = 1, .row_gap = static_cast<float>(gap) / width, .down = how, .safe = safe},
        {.area = rect_at({}, {width, static_cast<float>(length)}),
         .card = {width, static_cast<float>(size)},
         .cards = cards,
         .scrolls = true},
        poses);
    // The standard's words: what is free is put before, between and after the tracks; where nothing is free
    // the distributions fall back to start (between) or safe centre (around, evenly), and a safe alignment to
    // start.
    const double count = static_cast<double>(n);
    const double free = length - count * size - (count - 1) * gap;
    double before = 0;
    double between = 0;
    if (free >= 0) {
      if (how == Distribute::centre) before = free / 2;
      if (how == Distribute::end) before = free;
      if (how == Distribute::space_between && n > 1) between = free / (count - 1);
      if (how == Distribute::space_around) between = free / count, before = between / 2;
      if (how == Distribute::space_evenly) between = before = free / (count + 1);
    } else if (!safe) {
      if (how == Distribute::centre) before = free / 2;
      if (how == Distribute::end) before = free;
    }
    for (std::size_t i = 0; i < n; ++i) {
      const double expected = before + static_cast<double>(i) * (size + gap + between);
      RC_ASSERT(std::abs(double{poses[i].centre.y} - size / 2 - expected) < 0.01);
    }
  });
}

TEST_CASE("layout: a board's cards lie on its tracks, and a scrolling one goes on below its area") {
  const GridLayout grid{.columns = 3,
                        .gap = 0.1f,
                        .row_gap = 0.2f,
                        .across = Distribute::space_evenly,
                        .down = Distribute::start};
  const auto board = laid(grid, {{0, 0}, {500, 400}}, {100, 140}, 12, true);
  // 500 - 320 = 180 are free: 45 before and between.
  CHECK(board[0].centre.x == Approx(95));
  CHECK(board[1].centre.x == Approx(250));
  CHECK(board[3].centre.y - board[0].centre.y == Approx(160));
  CHECK(board[11].centre.y == Approx(70 + 3 * 160));
  LayoutReport report;
  std::vector<Pose> poses(12);
  const std::vector<LaidCard> cards(12);
  report = lay_out(
      grid, {.area = {{0, 0}, {500, 400}}, .card = {100, 140}, .cards = cards, .scrolls = true, .offset = 50},
      poses);
  CHECK(report.content == Approx(3 * 160 + 140));
  CHECK_FALSE(report.crowded);
  CHECK(poses[0].centre.y == Approx(20));
}

TEST_CASE("layout: cells stay where they are when a card leaves") {
  const GridLayout grid{.columns = 3, .rows = 2, .keeps_cells = true};
  std::vector<LaidCard> cards(6);
  for (int i = 0; i < 6; ++i) cards[static_cast<std::size_t>(i)].cell = i;
  const Rect area{{0, 0}, {500, 400}};
  std::vector<Pose> six(6);
  lay_out(grid, {.area = area, .card = {100, 140}, .cards = cards}, six);
  cards.erase(cards.begin() + 1);
  std::vector<Pose> five(5);
  lay_out(grid, {.area = area, .card = {100, 140}, .cards = cards}, five);
  CHECK(five[0] == six[0]);
  CHECK(five[1] == six[2]);
  CHECK(five[4] == six[5]);
}

TEST_CASE("layout: every facing is the same picture, turned by quarters") {
  for_all("facings", 5, [](Random& r) {
    const Layout layout = random_layout(r);
    std::vector<LaidCard> cards(1 + r.below(20));
    for (LaidCard& c : cards) c = random_laid(r, true);
    const Size size{r.uniform(10, 900), r.uniform(10, 900)};
    const Size card{r.uniform(5, 150), r.uniform(5, 150)};
    std::vector<Pose> plain(cards.size());
    lay_out(layout, {.area = rect_around({0, 0}, size), .card = card, .cards = cards}, plain);
    for (const Facing facing : {Facing::left, Facing::top, Facing::right}) {
      const bool turned = facing != Facing::top;
      const Size area = turned ? Size{size.height, size.width} : size;
      std::vector<Pose> poses(cards.size());
      lay_out(layout, {.area = rect_around({0, 0}, area), .card = card, .cards = cards, .facing = facing},
              poses);
      const float angle = facing == Facing::left ? 1 : facing == Facing::top ? 2 : -1;
      for (std::size_t i = 0; i < cards.size(); ++i) {
        const float turn = angle * 3.14159265f / 2;
        const Vec2 expected =
            rotated(plain[i].centre, std::round(std::cos(turn)), std::round(std::sin(turn)));
        RC_ASSERT(length(poses[i].centre - expected) < 1e-2f);
        RC_ASSERT(std::abs(std::remainder(poses[i].rotation - plain[i].rotation - turn, 6.2831853f)) < 1e-4f);
      }
    }
  });
}

TEST_CASE(
    "layout: a spread shows its last cards, a pile lies as untidily as its seed says, a ring goes round") {
  const auto waste = laid(SpreadLayout{.spacing = 0.5f, .last = 3}, {{0, 0}, {400, 140}}, {100, 140}, 10);
  CHECK(waste[0].centre == waste[7].centre);
  CHECK(waste[8].centre.x == Approx(100));
  CHECK(waste[9].centre.x == Approx(150));

  const PileLayout untidy{.untidy_angle = 10_deg, .untidy_offset = 0.1f, .seed = 4};
  const auto few = laid(untidy, {{0, 0}, {300, 300}}, {100, 140}, 5);
  const auto many = laid(untidy, {{0, 0}, {300, 300}}, {100, 140}, 6);
  for (std::size_t i = 0; i < 5; ++i) {
    CHECK(few[i].rotation == many[i].rotation);
    CHECK(std::abs(few[i].rotation) <= (10_deg).radians());
    CHECK(few[i].centre.x == many[i].centre.x);
  }
  CHECK(few[0].rotation != few[1].rotation);
  CHECK(
      laid(PileLayout{.untidy_angle = 10_deg, .seed = 5}, {{0, 0}, {300, 300}}, {100, 140}, 1)[0].rotation !=
      few[0].rotation);

  PileLayout discarded = untidy;
  discarded.last = 2;
  const auto squared = laid(PileLayout{}, {{0, 0}, {300, 300}}, {100, 140}, 5);
  const auto thrown = laid(discarded, {{0, 0}, {300, 300}}, {100, 140}, 5);
  for (std::size_t i = 0; i < 5; ++i) {
    CHECK(thrown[i].rotation == (i < 3 ? 0 : few[i].rotation));
    CHECK(thrown[i].centre.x == (i < 3 ? squared[i] : few[i]).centre.x);
  }

  const auto ring = laid(RingLayout{}, {{0, 0}, {800, 800}}, {100, 140}, 4);
  CHECK(ring[0].centre.x == Approx(400));
  CHECK(ring[0].centre.y < 100);
  CHECK(ring[1].centre.y == Approx(400).margin(1e-2));
  CHECK(ring[1].centre.x > 700);
  CHECK(ring[1].rotation == Approx(1.5707963));
  // One place is no ring: all lie there, and it needs no more room than one card.
  CHECK(least_size(RingLayout{.cells = 1}, {.cards = 5}, {100, 140}) == Size{100, 140});
}

TEST_CASE("layout: a free card comes back to the point where it was let go") {
  for_all("free", 20, [](Random& r) {
    const LaidCard card = random_laid(r, true);
    LayoutInput in{.area = rect_at({r.uniform(-100, 100), 0}, {r.uniform(200, 900), r.uniform(200, 900)}),
                   .card = {r.uniform(10, 150), r.uniform(10, 150)},
                   .cards = {&card, 1},
                   .facing = static_cast<Facing>(r.below(4))};
    Pose pose;
    lay_out(FreeLayout{}, in, {&pose, 1});
    const Vec2 at = free_position(in, card, pose.centre);
    RC_ASSERT(length(at - card.at) < 1e-3f);
  });
}

TEST_CASE("layout: an insertion index is stable while a hand trembles, and each gap has its own") {
  const HandLayout hand;
  const std::vector<LaidCard> cards(7);
  const LayoutInput in{.area = {{0, 0}, {900, 300}}, .card = {100, 140}, .cards = cards};
  std::vector<Pose> neutral(7);
  lay_out(hand, in, neutral);
  for (std::size_t i = 0; i <= 7; ++i) {
    const float x = i == 0 ? 0 : i == 7 ? 900 : (neutral[i - 1].centre.x + neutral[i].centre.x) / 2;
    CHECK(insertion_index(hand, in, neutral, {x, 150}) == i);
  }
  const Vec2 edge = neutral[3].centre;
  CHECK(insertion_index(hand, in, neutral, edge + Vec2{3, 0}, 3) == 3);
  CHECK(insertion_index(hand, in, neutral, edge + Vec2{3, 0}) == 4);
  CHECK(insertion_index(hand, in, neutral, edge + Vec2{15, 0}, 3) == 4);
  CHECK(insertion_index(PileLayout{}, in, neutral, edge) == 7);
  const GridLayout grid{.columns = 3};
  lay_out(grid, in, neutral);
  CHECK(insertion_index(grid, in, neutral, neutral[4].centre + Vec2{-20, 10}) == 4);
  CHECK(insertion_index(grid, in, neutral, neutral[4].centre + Vec2{20, 10}) == 5);
}

TEST_CASE("layout: a layout of one's own is a function of the same shape") {
  const auto functions = std::make_shared<CustomFunctions>();
  functions->lay_out = [](const LayoutInput& in, std::span<Pose> poses) {
    for (std::size_t i = 0; i < poses.size(); ++i)
      poses[i] = {.centre = in.area.min + Vec2{10.0f * static_cast<float>(i), 0}};
    if (!poses.empty()) poses[0].centre.x = NAN;
    return LayoutReport{.crowded = true};
  };
  functions->least_size = [](const LayoutNeed& need, Size card) {
    return card * static_cast<float>(need.cards);
  };
  const Layout layout = CustomLayout{.name = "stairs", .functions = functions};
  check(layout);
  CHECK(traits_of(layout).name == "stairs");
  CHECK(least_size(layout, {3}, {10, 20}) == Size{30, 60});
  const auto poses = laid(layout, {{5, 5}, {105, 105}}, {10, 10}, 3);
  CHECK(poses[0].centre == Vec2{55, 55});  // what is not finite lies in the middle
  CHECK(poses[2].centre == Vec2{25, 5});
  CHECK_THROWS_WITH(check(Layout{CustomLayout{.functions = std::make_shared<const CustomFunctions>()}}),
                    Catch::Contains("a function is missing"));
}

TEST_CASE("layout: a layout of one's own inserts as it says, and by its traits where that throws") {
  const auto stones = [](Inserts inserts, bool throws) {
    return Layout{CustomLayout{
        .functions = std::make_shared<const CustomFunctions>(CustomFunctions{
            .lay_out = [](const LayoutInput&, std::span<Pose>) { return LayoutReport{}; },
            .least_size = [](const LayoutNeed&, Size card) { return card; },
            .traits = {.axis = LayoutAxis::down, .inserts = inserts, .strips = true},
            .insertion = [throws](const LayoutInput& in, std::span<const Pose>, Vec2 at) -> std::size_t {
              if (throws) throw std::runtime_error("no stone there");
              return at.x > in.area.centre().x ? 99 : 1;
            }})}};
  };
  const std::vector<LaidCard> cards(3);
  const LayoutInput in{.area = {{0, 0}, {100, 300}}, .card = {50, 70}, .cards = cards};
  const std::vector<Pose> neutral{{.centre = {50, 50}}, {.centre = {50, 150}}, {.centre = {50, 250}}};
  const Layout says = stones(Inserts::on_top, false);
  CHECK(insertion_index(says, in, neutral, {10, 10}) == 1);
  CHECK(insertion_index(says, in, neutral, {90, 10}) == 3);  // no further than to the top
  CHECK(insertion_index(stones(Inserts::on_top, true), in, neutral, {10, 10}) == 3);
  CHECK(insertion_index(stones(Inserts::in_line, true), in, neutral, {10, 200}) == 2);
  CHECK(traits_of(says).strips);
  CHECK(traits_of(says).axis == LayoutAxis::down);
}

TEST_CASE("layout: an outline is where its zone says, whatever chance does to the cards of a pile") {
  const Rect area{{0, 0}, {300, 300}};
  for (const Angle angle : {Angle{}, Angle::degrees(20)}) {
    const PileLayout untidy{.most_thickness = 0, .untidy_angle = angle, .untidy_offset = 0.4f, .seed = 5};
    const Pose outline = lone_pose(untidy, area, {100, 140});
    CHECK(outline.centre == area.centre());
    CHECK(outline.rotation == 0);
  }
}
