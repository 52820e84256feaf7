#include "support/allocations.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct RandomPlan {
  std::vector<ZoneLayout> places;
  Plan plan;
};

PlanNode random_node(Random& r, std::vector<ZoneLayout>& places, int depth) {
  if (depth == 0 || r.chance(0.4f)) {
    if (r.chance(0.15f)) return space(r.uniform(0, 1));
    places.push_back(
        {.kind = random_layout(r), .longest = r.chance(0.05f) ? r.between(0, 10'000) : r.between(0, 14)});
    return zone({static_cast<std::uint32_t>(places.size())}, r.chance(0.3f) ? r.uniform(0, 2) : 0.0f);
  }
  std::vector<PlanNode> parts;
  const int n = r.between(1, 4);
  for (int i = 0; i < n; ++i) parts.push_back(random_node(r, places, depth - 1));
  PlanNode node = r.chance(0.5f) ? across(parts, r.uniform(0, 0.5f)) : down(parts, r.uniform(0, 0.5f));
  node.justify = static_cast<Justify>(r.below(4));
  return node;
}

RandomPlan random_plan(Random& r) {
  RandomPlan out;
  while (out.places.empty())
    out.plan = {
        .root = random_node(r, out.places, 3), .margin = r.uniform(0, 30), .aspect = r.uniform(0.4f, 1.2f)};
  out.plan.mirrored = r.chance(0.3f);
  check(out.plan, out.places);
  return out;
}

PlanResult solved(const RandomPlan& p, Size window, std::vector<Rect>* areas = nullptr) {
  std::vector<Rect> own(p.places.size());
  const PlanResult result = solve(p.plan, p.places, {.size = window}, own);
  if (areas) *areas = own;
  return result;
}

}  // namespace

TEST_CASE("plan: a window smaller in neither direction never gives smaller cards") {
  for_all("larger windows", 20, [](Random& r) {
    const RandomPlan p = random_plan(r);
    const Size small = r.chance(0.05f) ? Size{1, 1} : Size{r.uniform(0, 1500), r.uniform(0, 1500)};
    const auto more = [&] { return r.chance(0.5f) ? r.uniform(0, 300) : 0; };
    const Size large{small.width + more(), small.height + more()};
    RC_ASSERT(solved(p, large).unsnapped_card.width >= solved(p, small).unsnapped_card.width);
  });
}

TEST_CASE("plan: areas lie in the window, apart from one another, and hold their zone at its longest") {
  for_all("areas", 20, [](Random& r) {
    const RandomPlan p = random_plan(r);
    const Size window{r.uniform(50, 2000), r.uniform(50, 2000)};
    std::vector<Rect> areas;
    const PlanResult result = solved(p, window, &areas);
    if (!result.fits) return;
    const Rect room = grown(rect_at({0, 0}, window), 0.1f - p.plan.margin);
    for (std::size_t i = 0; i < areas.size(); ++i) {
      RC_ASSERT(areas[i].min.x >= room.min.x && areas[i].min.y >= room.min.y);
      RC_ASSERT(areas[i].max.x <= room.max.x && areas[i].max.y <= room.max.y);
      const Size least =
          least_size(p.places[i].kind, {static_cast<std::size_t>(p.places[i].longest)}, result.card);
      RC_ASSERT(areas[i].width() >= least.width - 0.1f && areas[i].height() >= least.height - 0.1f);
      for (std::size_t j = 0; j < i; ++j)
        RC_ASSERT(overlap(grown(areas[i], -0.05f), grown(areas[j], -0.05f)) == 0);
    }
  });
}

TEST_CASE("plan: the card is the largest that fits, to 0.01 px") {
  // Two slots side by side: 2 w + 0.5 w = 1000 - 2 * 20, so w = 384; height is plenty.
  const std::vector<ZoneLayout> places(2);
  const Plan plan{.root = across({zone({1}), zone({2})}, 0.5f), .margin = 20};
  std::vector<Rect> areas(2);
  const PlanResult wide = solve(plan, places, {.size = {1000, 5000}}, areas);
  CHECK(wide.unsnapped_card.width == Approx(384).margin(0.01));
  CHECK(wide.card.height == std::floor(384 * 7.0f / 5));
  CHECK(areas[0].min.x == Approx(20));
  CHECK(areas[1].max.x == Approx(980));
  // By height: h = 460, w = 460 * 5 / 7.
  const PlanResult low = solve(plan, places, {.size = {5000, 500}}, areas);
  CHECK(low.unsnapped_card.height == Approx(460).margin(0.02));
  Plan limited = plan;
  limited.largest_width = 100;
  CHECK(solve(limited, places, {.size = {1000, 5000}}, areas).card.width == 100);
}

TEST_CASE("plan: equal shares and gaps differ by a device pixel at most, and end where their list ends") {
  for_all("filling", 10, [](Random& r) {
    const int count = r.between(2, 12);
    const float ratios[] = {1, 1.5f, 2, 3};
    const float ratio = ratios[r.below(4)];
    const std::vector<ZoneLayout> places(static_cast<std::size_t>(count));
    const bool shares = r.chance(0.5f);
    std::vector<PlanNode> parts;
    for (int i = 1; i <= count; ++i)
      parts.push_back(zone({static_cast<std::uint32_t>(i)}, shares ? 1.0f : 0.0f));
    Plan plan{.root = across(parts, r.uniform(0, 0.4f)), .margin = 12, .largest_width = r.uniform(20, 60)};
    plan.root.justify = Justify::spread;
    const float width = static_cast<float>(r.between(900, 2400)) / ratio * 1.0f;
    std::vector<Rect> areas(places.size());
    (void)solve(plan, places, {.size = {width, 500}, .pixel_ratio = ratio}, areas);
    RC_ASSERT(areas.front().min.x == 12);
    RC_ASSERT(std::abs(areas.back().max.x - (width - 12)) < 2e-3f);
    float narrowest = 1e9f;
    float widest = 0;
    for (std::size_t i = 0; i < areas.size(); ++i) {
      const float gap = i + 1 < areas.size() ? areas[i + 1].min.x - areas[i].max.x : 0;
      if (!shares && i + 1 == areas.size()) break;
      narrowest = std::min(narrowest, shares ? areas[i].width() : gap);
      widest = std::max(widest, shares ? areas[i].width() : gap);
      RC_ASSERT(std::abs(areas[i].max.x * ratio - std::round(areas[i].max.x * ratio)) < 5e-3f);
    }
    RC_ASSERT((widest - narrowest) * ratio < 1.01f);
  });
}

TEST_CASE("plan: mirrored it has left and right exchanged, down to the device pixel") {
  for_all("mirrored", 10, [](Random& r) {
    RandomPlan p = random_plan(r);
    const Size window{static_cast<float>(r.between(1, 1500)), r.uniform(0, 1500)};
    std::vector<Rect> areas;
    std::vector<Rect> mirrored;
    p.plan.mirrored = false;
    const PlanResult result = solved(p, window, &areas);
    p.plan.mirrored = true;
    RC_ASSERT(solved(p, window, &mirrored) == result);
    for (std::size_t i = 0; i < areas.size(); ++i) {
      RC_ASSERT(mirrored[i].min.x == window.width - areas[i].max.x);
      RC_ASSERT(mirrored[i].max.x == window.width - areas[i].min.x);
      RC_ASSERT(mirrored[i].min.y == areas[i].min.y);
      RC_ASSERT(mirrored[i].max.y == areas[i].max.y);
    }
  });
}

TEST_CASE("plan: shares divide what is left, and without shares the parts are justified") {
  const std::vector<ZoneLayout> places(2);
  std::vector<Rect> areas(2);
  Plan plan{.root = across({zone({1}, 1), zone({2}, 3)}, 0), .margin = 0, .largest_width = 100};
  (void)solve(plan, places, {.size = {600, 400}}, areas);
  CHECK(areas[0] == Rect{{0, 0}, {200, 400}});
  CHECK(areas[1] == Rect{{200, 0}, {600, 400}});
  plan.root = across({zone({1}), zone({2})}, 0);
  const auto first_x = [&](Justify justify) {
    plan.root.justify = justify;
    (void)solve(plan, places, {.size = {600, 400}}, areas);
    return areas[0].min.x;
  };
  CHECK(first_x(Justify::start) == 0);
  CHECK(first_x(Justify::centre) == 200);
  CHECK(first_x(Justify::end) == 400);
  CHECK(first_x(Justify::spread) == 0);
  CHECK(areas[1].max.x == 600);
}

TEST_CASE("plan: laying out and solving take nothing from the heap") {
  for_all("no allocation", 5, [](Random& r) {
    const RandomPlan p = random_plan(r);
    std::vector<Rect> areas(p.places.size());
    const PlanWindow window{.size = {r.uniform(0, 2000), r.uniform(0, 2000)}};
    RC_ASSERT(allocations_in([&] { (void)solve(p.plan, p.places, window, areas); }) == 0);
    RC_ASSERT(allocations_in([&] { (void)best_plan({&p.plan, 1}, p.places, window); }) == 0);
    const Layout layout = random_layout(r);
    const std::vector<LaidCard> cards(r.below(60));
    std::vector<Pose> poses(cards.size());
    RC_ASSERT(allocations_in([&] {
                lay_out(layout, {.area = {{0, 0}, {500, 400}}, .card = {50, 70}, .cards = cards}, poses);
              }) == 0);
  });
  // That it would be noticed; kept, for one that nobody sees may be left out.
  std::vector<int> kept;
  CHECK(allocations_in([&] { kept.resize(1); }) == 1);
  CHECK(kept.size() == 1);
}

TEST_CASE("plan: empty, tiny and broken windows give a defined, finite result") {
  const std::vector<ZoneLayout> places(1);
  const Plan plan{.root = zone({1}), .margin = 16};
  std::vector<Rect> areas(1);
  for (const Size window :
       {Size{0, 0}, Size{1, 1}, Size{33, 1}, Size{NAN, 100}, Size{INFINITY, INFINITY}, Size{-5, 9}}) {
    const PlanResult result = solve(plan, places, {.size = window, .pixel_ratio = NAN}, areas);
    CHECK_FALSE(result.fits);
    CHECK(std::isfinite(result.card.width));
    CHECK((is_finite(areas[0].min) && is_finite(areas[0].max)));
  }
}

TEST_CASE("plan: of several plans the one with the larger card is taken") {
  const std::vector<ZoneLayout> places(2);
  const std::vector<Plan> plans{{.root = across({zone({1}), zone({2})})},
                                {.root = down({zone({1}), zone({2})})}};
  CHECK(best_plan(plans, places, {.size = {1200, 400}}) == 0);
  CHECK(best_plan(plans, places, {.size = {400, 1200}}) == 1);
}

TEST_CASE("plan: mistakes are refused with what is expected") {
  const std::vector<ZoneLayout> places(2);
  CHECK_THROWS_WITH(check(Plan{.root = zone({1})}, places),
                    "plan: zone 2 has no place: every zone of the table is expected in the plan");
  CHECK_THROWS_WITH(check(Plan{.root = across({zone({1}), zone({1})})}, places),
                    Catch::Contains("named twice"));
  CHECK_THROWS_WITH(check(Plan{.root = zone({3})}, places),
                    Catch::Contains("zone 3 is not on the table: 1 to 2"));
  CHECK_THROWS_WITH(check(Plan{.root = across({})}, places), Catch::Contains("no parts"));
  CHECK_THROWS_WITH(check(Plan{.root = across({zone({1}), zone({2})}), .aspect = 0}, places),
                    Catch::Contains("aspect is 0"));
}

TEST_CASE("plan: areas begin and end on device pixels wherever the card leaves room for that") {
  int all = 0;
  int whole = 0;
  for (std::uint64_t seed = 1; seed <= 300; ++seed) {
    Random r(seed);
    const RandomPlan p = random_plan(r);
    const float ratio = r.chance(0.5f) ? 1.0f : 1.5f;
    std::vector<Rect> areas(p.places.size());
    const PlanResult result =
        solve(p.plan, p.places, {.size = {r.uniform(200, 2000), r.uniform(200, 2000)}, .pixel_ratio = ratio},
              areas);
    if (!result.fits) continue;
    ++all;
    const auto on_pixel = [&](float px) { return std::abs(px * ratio - std::round(px * ratio)) < 0.01f; };
    whole += std::all_of(areas.begin(), areas.end(), [&](const Rect& area) {
      return on_pixel(area.min.x) && on_pixel(area.min.y) && on_pixel(area.max.x) && on_pixel(area.max.y);
    });
  }
  CHECK(all > 100);
  CHECK(whole > all * 3 / 4);
}

TEST_CASE("plan: a zone off the table lies beyond its edge, in a mirrored plan beyond the opposite side") {
  for_all("off the table", 10, [](Random& r) {
    RandomPlan p = random_plan(r);
    const auto edge = static_cast<Facing>(r.below(4));
    p.places.push_back({.longest = 3, .factor = r.uniform(0.3f, 3), .off_table = edge});
    const PlanWindow window{.size = {r.uniform(50, 2500), r.uniform(50, 2500)}, .insets = {5, 40, 10, 30}};
    std::vector<Rect> areas(p.places.size());
    const PlanResult result = solve(p.plan, p.places, window, areas);
    if (!result.fits) return;
    const Rect& area = areas.back();
    const bool left = edge == (p.plan.mirrored ? Facing::right : Facing::left);
    const bool right = edge == (p.plan.mirrored ? Facing::left : Facing::right);
    RC_ASSERT((area.max.x <= 0) == left);
    RC_ASSERT((area.min.x >= window.size.width) == right);
    RC_ASSERT((area.max.y <= 0) == (edge == Facing::top));
    RC_ASSERT((area.min.y >= window.size.height) == (edge == Facing::bottom));
    RC_ASSERT(std::abs(area.width() - result.card.width * p.places.back().factor) < 0.01f);
  });
}

TEST_CASE("plan: cards of pixel art are the largest whole multiple that fits, in device pixels") {
  for_all("whole multiples", 20, [](Random& r) {
    RandomPlan p = random_plan(r);
    const Size art{static_cast<float>(r.between(5, 60)), static_cast<float>(r.between(5, 90))};
    const float ratio = r.chance(0.5f) ? 1.0f : 2.0f;
    p.plan.aspect = art.width / art.height;
    p.plan.whole_multiples_of = art;
    std::vector<Rect> areas(p.places.size());
    const PlanWindow window{.size = {r.uniform(50, 2500), r.uniform(50, 2500)}, .pixel_ratio = ratio};
    const PlanResult result = solve(p.plan, p.places, window, areas);
    const float exact = result.unsnapped_card.width * ratio / art.width;
    const float times = result.card.width * ratio / art.width;
    if (exact < 1) return RC_ASSERT(result.card.width <= result.unsnapped_card.width);
    RC_ASSERT(std::abs(times - std::round(times)) < 1e-3f);
    RC_ASSERT(times >= 1 && times <= exact + 1e-2f && times > exact - 1.01f);
    RC_ASSERT(std::abs(result.card.height * ratio - art.height * times) < 1e-2f);
  });
  CHECK_THROWS_WITH(check(Plan{.root = zone({1}), .whole_multiples_of = {0, 5}}, std::vector<ZoneLayout>(1)),
                    Catch::Contains("multiples of width is 0"));
}
