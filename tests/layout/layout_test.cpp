#include <numbers>
#include <set>

#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::vector<Pose> poses_of(const Layout& layout, const Rect& area, Size card,
                           const std::vector<LaidCard>& cards, Room room = {},
                           LayoutReport* report = nullptr) {
  std::vector<Pose> poses(cards.size());
  const LayoutReport r = lay_out(layout, {.area = area, .card = card, .cards = cards, .room = room}, poses);
  if (report) *report = r;
  return poses;
}

std::vector<LaidCard> open_cards(std::size_t n) { return std::vector<LaidCard>(n); }

bool inside(const Rect& area, const Pose& pose, Size card, float tolerance) {
  const Rect b = bounds(corners(pose, card));
  const Rect a = grown(area, tolerance);
  return b.min.x >= a.min.x && b.min.y >= a.min.y && b.max.x <= a.max.x && b.max.y <= a.max.y;
}

/// How wide a card is that lies turned.
float turned_extent(Size card, float angle) {
  return card.width * std::cos(angle) + card.height * std::sin(angle);
}

}  // namespace

TEST_CASE("layout: every neutral pose is finite, and inside its area when the area can hold a card") {
  for_all("inside the area", 20, [](Random& r) {
    const Layout layout = random_layout(r);
    check(layout);
    const Size card{r.uniform(1, 200), r.uniform(1, 200)};
    const Vec2 corner{r.uniform(-300, 300), r.uniform(-300, 300)};
    const bool tiny = r.chance(0.1f);
    const Rect area =
        rect_at(corner, {tiny ? r.uniform(0, 2) : r.uniform(1, 1500), tiny ? 1 : r.uniform(1, 1000)});
    const std::size_t n = r.chance(0.02f) ? 10'000 : r.below(70);
    const bool sideways = r.chance(0.4f);
    std::vector<LaidCard> cards(n);
    for (LaidCard& c : cards) c = random_laid(r, sideways);
    const LayoutInput in{
        .area = area, .card = card, .cards = cards, .room = {}, .facing = static_cast<Facing>(r.below(4))};
    std::vector<Pose> poses(n);
    lay_out(layout, in, poses);
    // Whether the area can hold each of the cards, as it lies there.
    const float longer = std::max(card.width, card.height);
    const bool turned = in.facing == Facing::left || in.facing == Facing::right;
    const Size own = sideways ? Size{longer, longer} : turned ? Size{card.height, card.width} : card;
    const bool holds = area.width() >= own.width && area.height() >= own.height;
    for (const Pose& pose : poses) {
      RC_ASSERT(is_finite(pose));
      if (holds) RC_ASSERT(inside(area, pose, card, 0.05f));
    }
  });
}

TEST_CASE("layout: at its least size a zone is not crowded, and what it needs grows with the card") {
  for_all("least size", 20, [](Random& r) {
    const Layout layout = random_layout(r);
    const std::size_t n = 1 + r.below(20);
    const Size card{r.uniform(10, 200), r.uniform(10, 200)};
    const Size least = least_size(layout, {n}, card);
    LayoutReport report;
    const Rect area = rect_at({0, 0}, {least.width * 1.0001f + 0.01f, least.height * 1.0001f + 0.01f});
    (void)poses_of(layout, area, card, open_cards(n), {}, &report);
    if (!std::holds_alternative<GridLayout>(layout) && !std::holds_alternative<HandLayout>(layout)) {
      RC_ASSERT(!report.crowded);
    }
    const Size twice = least_size(layout, {n}, card * 2);
    RC_ASSERT(std::abs(twice.width - 2 * least.width) <= 1e-3f * least.width);
    RC_ASSERT(std::abs(twice.height - 2 * least.height) <= 1e-3f * least.height);
  });
}

TEST_CASE("layout: a column's strips narrow evenly, then it is crowded, and it never leaves its area") {
  const ColumnLayout column{
      .open_strip = 0.3f, .covered_strip = 0.1f, .least_open_strip = 0.15f, .least_covered_strip = 0.05f};
  const Size card{100, 100};
  std::vector<LaidCard> cards(4);
  cards[0].face_up = false;
  LayoutReport report;
  const auto wide = poses_of(column, {{0, 0}, {100, 1000}}, card, cards, {}, &report);
  CHECK(wide[0].centre.y == Approx(50));
  CHECK(wide[1].centre.y == Approx(60));
  CHECK(wide[3].centre.y == Approx(120));
  CHECK_FALSE(report.crowded);
  // Room for 52.5 px of strips, half way between 35 (least) and 70 (preferred).
  const auto narrow = poses_of(column, {{0, 0}, {100, 152.5f}}, card, cards, {}, &report);
  CHECK(narrow[1].centre.y - narrow[0].centre.y == Approx(7.5f));
  CHECK(narrow[2].centre.y - narrow[1].centre.y == Approx(22.5f));
  CHECK_FALSE(report.crowded);
  (void)poses_of(column, {{0, 0}, {100, 120}}, card, cards, {}, &report);
  CHECK(report.crowded);
}

TEST_CASE("layout: a hand is symmetric about its middle and bends down toward its ends") {
  const auto hand = poses_of(HandLayout{}, {{0, 0}, {1200, 400}}, {100, 140}, open_cards(9));
  for (std::size_t i = 0; i < 9; ++i) {
    CHECK(hand[i].centre.x + hand[8 - i].centre.x == Approx(1200).margin(0.01));
    CHECK(hand[i].rotation == Approx(-hand[8 - i].rotation).margin(1e-5));
    CHECK(hand[i].centre.y == Approx(hand[8 - i].centre.y).margin(0.01));
  }
  CHECK(hand[0].rotation < 0);
  CHECK(hand[0].centre.y > hand[4].centre.y);
}

TEST_CASE("layout: a hand in a low area lies straight, and with many cards keeps its ends") {
  const auto low = poses_of(HandLayout{}, {{0, 0}, {800, 140}}, {100, 140}, open_cards(9));
  CHECK(low[0].rotation == Approx(0).margin(1e-3));
  LayoutReport report;
  const auto many = poses_of(HandLayout{}, {{0, 0}, {800, 400}}, {100, 140}, open_cards(200), {}, &report);
  CHECK(report.crowded);
  CHECK(many.front().centre.x < many.back().centre.x);
}

TEST_CASE("layout: a raised card comes out and its neighbours step aside, and an insertion leaves a gap") {
  const Rect area{{0, 0}, {1200, 500}};
  const auto neutral = poses_of(HandLayout{}, area, {100, 140}, open_cards(7));
  const auto raised = poses_of(HandLayout{}, area, {100, 140}, open_cards(7), {.raised = 3});
  CHECK(raised[3].centre.y < neutral[3].centre.y - 20);
  CHECK(raised[2].centre.x < neutral[2].centre.x);
  CHECK(raised[4].centre.x > neutral[4].centre.x);
  const auto open = poses_of(HandLayout{}, area, {100, 140}, open_cards(7), {.insert_at = 3});
  const float gap = open[3].centre.x - open[2].centre.x;
  CHECK(gap > 1.5f * (open[1].centre.x - open[0].centre.x));
  const auto eight = poses_of(HandLayout{}, area, {100, 140}, open_cards(8));
  CHECK(open[3] == eight[4]);
  // As many as would come.
  const auto wide =
      poses_of(HandLayout{}, area, {100, 140}, open_cards(7), {.insert_at = 3, .insert_count = 2});
  CHECK(wide[3] == poses_of(HandLayout{}, area, {100, 140}, open_cards(9))[5]);
  // Places that no card has make no room.
  CHECK(poses_of(HandLayout{}, area, {100, 140}, open_cards(7), {.raised = 7, .insert_at = 9}) == neutral);
}

TEST_CASE("layout: the neighbours of a raised card step aside no further than their area") {
  for_all("raised", 100, [](Random& r) {
    const Size card{100, 140};
    const std::size_t n = 2 + r.below(12);
    const Rect area = rect_at({r.uniform(-50, 50), 0}, {r.uniform(160, 1600), 600});
    const HandLayout hand{.align = r.chance(0.5f) ? Align::start : Align::centre};
    const auto at = static_cast<std::ptrdiff_t>(r.below(static_cast<std::uint32_t>(n)));
    const auto neutral = poses_of(hand, area, card, open_cards(n));
    const auto raised = poses_of(hand, area, card, open_cards(n), {.raised = at});
    for (std::size_t i = 0; i < n; ++i) {
      if (static_cast<std::ptrdiff_t>(i) == at) continue;
      // They step aside as they lie: what stood inside still does, with a hundredth of a px.
      const float reach = turned_extent(card, std::abs(raised[i].rotation)) / 2;
      RC_ASSERT(raised[i].centre.x - reach > area.min.x - 0.01f);
      RC_ASSERT(raised[i].centre.x + reach < area.max.x + 0.01f);
      const float aside = raised[i].centre.x - neutral[i].centre.x;
      RC_ASSERT((static_cast<std::ptrdiff_t>(i) > at ? aside : -aside) >= -0.01f);
    }
  });
}

TEST_CASE("layout: the top card of a pile keeps its place as cards come and go") {
  const Rect area{{0, 0}, {100, 200}};
  const Pose lone = lone_pose(PileLayout{}, area, {100, 140});
  for (const std::size_t n : {1u, 2u, 10u, 500u}) {
    const auto pile = poses_of(PileLayout{}, area, {100, 140}, open_cards(n));
    CHECK(pile.back() == lone);
    CHECK(pile.front().centre.y >= pile.back().centre.y);
  }
}

TEST_CASE("layout: a grid is filled by rows, centred, and overlaps where it does not fit") {
  const auto grid = poses_of(GridLayout{.columns = 3, .gap = 0.1f, .row_gap = 0.1f}, {{0, 0}, {400, 400}},
                             {100, 100}, open_cards(5));
  CHECK(grid[0].centre == Vec2{90, 145});
  CHECK(grid[2].centre == Vec2{310, 145});
  CHECK(grid[3].centre == Vec2{90, 255});
  LayoutReport report;
  const auto tight =
      poses_of(GridLayout{.columns = 3}, {{0, 0}, {110, 100}}, {100, 100}, open_cards(3), {}, &report);
  CHECK(tight[1].centre.x - tight[0].centre.x == Approx(5));
  CHECK(report.crowded);
}

TEST_CASE("layout: covered cards lie with their back up, sideways ones turned by a quarter") {
  const auto poses =
      poses_of(SlotLayout{}, {{0, 0}, {100, 100}}, {50, 70}, {{.face_up = false}, {.sideways = true}});
  CHECK_FALSE(shows_face(poses[0].flip));
  CHECK(poses[1].rotation == Approx(std::numbers::pi / 2));
}

TEST_CASE("layout: snapping puts the corners of upright cards on device pixels and leaves others alone") {
  for_all("snapping", 20, [](Random& r) {
    const float ratio = static_cast<float>(1 + r.below(3));
    const Size card{std::floor(r.uniform(1, 200)), std::floor(r.uniform(1, 200))};
    const Pose pose{.centre = {r.uniform(0, 500), r.uniform(0, 500)}};
    const float corner = (snapped(pose, card, ratio).centre.x - card.width / 2) * ratio;
    RC_ASSERT(std::abs(corner - std::round(corner)) < 1e-2f);
    RC_ASSERT(length(snapped(pose, card, ratio).centre - pose.centre) <= 0.75f / ratio);
  });
  const Pose turned{.centre = {0.3f, 0.3f}, .rotation = 0.1f};
  CHECK(snapped(turned, {10, 10}, 1) == turned);
}

TEST_CASE("layout: an option out of its range is refused by name") {
  CHECK_THROWS_WITH(check(ColumnLayout{.open_strip = 0.1f}),
                    Catch::Contains("least_open_strip is 0.18: 0 to 0.1 is expected"));
  CHECK_THROWS_WITH(check(HandLayout{.spacing = -1}), Catch::Contains("hand layout: spacing is -1"));
  CHECK_THROWS_WITH(check(PileLayout{.thickness = NAN}), Catch::Contains("pile layout: thickness is nan"));
  CHECK_THROWS_WITH(check(GridLayout{.columns = -1}), Catch::Contains("grid layout: columns is -1"));
  CHECK_THROWS_WITH(check(RingLayout{.sweep = Angle::degrees(-1)}),
                    Catch::Contains("ring layout: sweep_deg is -1: 0 to 360 is expected"));
  CHECK_THROWS_WITH(check(SpreadLayout{.spacing = 5}), Catch::Contains("spread layout: spacing is 5"));
  CHECK_NOTHROW(check(Layout{SlotLayout{}}));
  CHECK(traits_of(HandLayout{}).name == "hand");
}

TEST_CASE("layout: looked at, a card of a column moves those above it aside, and the last moves nothing") {
  const ColumnLayout column{.look_strip = 0.9f};
  for (const Facing facing : {Facing::bottom, Facing::left, Facing::top, Facing::right}) {
    for (const float room : {2000.0f, 400.0f}) {  // enough, and squeezed
      for (const bool uneven : {false, true}) {
        std::vector<LaidCard> cards(6);
        if (uneven) cards[2].sideways = true;
        const bool on_side = facing == Facing::left || facing == Facing::right;
        LayoutInput in{.area = rect_at({0, 0}, on_side ? Size{room, 200} : Size{200, room}),
                       .card = {100, 140},
                       .cards = cards,
                       .facing = facing};
        std::vector<Pose> neutral(6), looked(6);
        lay_out(column, in, neutral);
        for (std::ptrdiff_t raised = 0; raised < 6; ++raised) {
          in.room.raised = raised;
          lay_out(column, in, looked);
          CAPTURE(static_cast<int>(facing), room, uneven, raised);
          CHECK(looked[0] == neutral[0]);
          if (raised == 5) CHECK(looked == neutral);
          if (room > 1000 && raised < 5) {
            const auto r = static_cast<std::size_t>(raised);
            const auto own = [&](std::size_t i) { return cards[i].sideways ? 100.0f : 140.0f; };
            // From top to top a strip, so from middle to middle that and half of what they differ.
            CHECK(length(looked[r + 1].centre - looked[r].centre) ==
                  Approx(0.9f * own(r) + (own(r + 1) - own(r)) / 2).margin(0.01));
            for (std::size_t i = 0; i <= r; ++i) CHECK(looked[i] == neutral[i]);
          }
        }
      }
    }
  }
}

TEST_CASE("layout: neighbours of a raised card step aside by exact distances, as far as the area has room") {
  const HandLayout straight{
      .spacing = 0.5f, .least_spacing = 0.1f, .step = 0_deg, .raise = 0.3f, .part = 0.2f};
  constexpr float w = 100;
  for (const Align align : {Align::start, Align::centre, Align::end}) {
    for (const Facing facing : {Facing::bottom, Facing::left, Facing::top, Facing::right}) {
      HandLayout hand = straight;
      hand.align = align;
      const bool on_side = facing == Facing::left || facing == Facing::right;
      const std::vector<LaidCard> cards(5);
      LayoutInput in{.area = rect_at({0, 0}, on_side ? Size{200, 1000} : Size{1000, 200}),
                     .card = {w, 140},
                     .cards = cards,
                     .facing = facing};
      std::vector<Pose> neutral(5), roomy(5);
      lay_out(hand, in, neutral);
      const Vec2 right =
          (neutral[1].centre - neutral[0].centre) * (1 / length(neutral[1].centre - neutral[0].centre));
      for (std::ptrdiff_t raised : {0, 2, 4}) {
        in.room.raised = raised;
        lay_out(hand, in, roomy);
        for (std::ptrdiff_t i = 0; i < 5; ++i) {
          const auto k = static_cast<std::size_t>(i);
          CAPTURE(static_cast<int>(align), static_cast<int>(facing), raised, i);
          const Vec2 gone = roomy[k].centre - neutral[k].centre;
          if (i == raised) {
            CHECK(length(gone) == Approx(0.3f * 140));
            CHECK(dot(gone, right) == Approx(0).margin(1e-3));
            continue;
          }
          float aside = 0.2f * w / static_cast<float>(i - raised);
          // At the start there is no room to the left of the first card, at the end none to the right of the
          // last.
          const float before = static_cast<float>(i) * 0.5f * w, after = static_cast<float>(4 - i) * 0.5f * w;
          if (align == Align::start) aside = std::max(aside, -before);
          if (align == Align::end) aside = std::min(aside, after);
          CHECK(dot(gone, right) == Approx(aside).margin(0.01));
        }
      }
    }
  }
}

TEST_CASE("layout: every kind that there is is among those that properties try") {
  const std::vector<std::string> kinds = layout_kinds();
  std::set<std::string> tried;
  Random random(1);
  for (int i = 0; i < 1000; ++i) tried.emplace(traits_of(random_layout(random)).name);
  CHECK(tried == std::set<std::string>(kinds.begin(), kinds.end()));
}
