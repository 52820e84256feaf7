#include <cmath>
#include <numbers>

#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

HitShape random_shape(Random& r) {
  return {.pose = {.centre = {r.uniform(0, 400), r.uniform(0, 400)},
                   .rotation = r.uniform(-7, 7),
                   .scale = r.uniform(0.3f, 2),
                   .flip = r.chance(0.3f) ? r.uniform(0, 3.1f) : 0,
                   .flip_axis = r.chance(0.5f) ? 0 : r.uniform(-2, 2)},
          .size = {r.uniform(10, 120), r.uniform(10, 160)},
          .corner_radius = r.uniform(0, 30)};
}

/// How far outside the rounded box a point is (negative: inside), by complex arithmetic in double.
double outside_by(const HitShape& s, Vec2 point) {
  const double tilt = double{tilt_of_shown_side(s.pose.flip)};
  double x = double{point.x} - double{s.pose.centre.x};
  double y = double{point.y} - double{s.pose.centre.y};
  const auto turn = [&](double angle) {
    const double c = std::cos(angle);
    const double n = std::sin(angle);
    const double t = x * c - y * n;
    y = x * n + y * c;
    x = t;
  };
  turn(-double{s.pose.rotation});
  x /= double{s.pose.scale};
  y /= double{s.pose.scale};
  turn(-double{s.pose.flip_axis});  // now the axis is vertical
  x /= std::cos(tilt);
  turn(double{s.pose.flip_axis});
  const double hw = double{s.size.width} / 2;
  const double hh = double{s.size.height} / 2;
  const double radius = std::min({double{s.corner_radius}, hw, hh});
  const double dx = std::max(std::abs(x) - (hw - radius), 0.0);
  const double dy = std::max(std::abs(y) - (hh - radius), 0.0);
  const double box = std::max(std::abs(x) - hw, std::abs(y) - hh);
  return dx > 0 && dy > 0 ? std::hypot(dx, dy) - radius : box;
}

}  // namespace

TEST_CASE("hit: a shape has the points that an independent computation gives it") {
  int inside = 0;
  int outside = 0;
  for_all("shapes", 100, [&](Random& r) {
    const HitShape shape = random_shape(r);
    if (std::abs(std::cos(tilt_of_shown_side(shape.pose.flip))) < 0.02f) return;
    const Vec2 p = shape.pose.centre + Vec2{r.uniform(-150, 150), r.uniform(-150, 150)};
    const double d = outside_by(shape, p);
    if (std::abs(d) < 0.02) return;  // too near the edge for float
    RC_ASSERT(contains(shape, p) == (d < 0));
    ++(d < 0 ? inside : outside);
  });
  CHECK(inside > 300);
  CHECK(outside > 1000);
}

TEST_CASE("hit: left and top edges are inside, right and bottom outside, round corners cut") {
  const HitShape s{.pose = {.centre = {50, 50}}, .size = {100, 100}, .corner_radius = 20};
  CHECK(contains(s, {0, 50}));
  CHECK(contains(s, {50, 0}));
  CHECK_FALSE(contains(s, {100, 50}));
  CHECK_FALSE(contains(s, {50, 100}));
  CHECK_FALSE(contains(s, {1, 1}));
  CHECK(contains(s, {7, 7}));
  CHECK_FALSE(contains(s, {94.2f, 94.2f}));
}

TEST_CASE("hit: nothing is hit edge-on, scaled to nothing, or not finite") {
  const Size size{100, 140};
  CHECK_FALSE(contains({.pose = {.flip = std::numbers::pi_v<float> / 2}, .size = size}, {0, 0}));
  CHECK_FALSE(contains({.pose = {.scale = 0}, .size = size}, {0, 0}));
  CHECK_FALSE(contains({.pose = {.centre = {NAN, 0}}, .size = size}, {0, 0}));
  CHECK_FALSE(contains({.pose = {}, .size = size}, {NAN, 0}));
  CHECK_FALSE(contains({.pose = {}, .size = {0, 0}}, {0, 0}));
  CHECK(contains({.pose = {.flip = std::numbers::pi_v<float>}, .size = size}, {0, 0}));
}

TEST_CASE("hit: the index gives the foremost shape at a point, as a plain loop does") {
  for_all("topmost", 2, [](Random& r) {
    std::vector<HitShape> shapes(r.below(300));
    HitIndex index;
    for (std::size_t i = 0; i < shapes.size(); ++i) {
      shapes[i] = random_shape(r);
      index.add(shapes[i], static_cast<std::uint32_t>(i));
    }
    RC_ASSERT(index.size() == shapes.size());
    for (int q = 0; q < 20; ++q) {
      const Vec2 p{r.uniform(-20, 420), r.uniform(-20, 420)};
      std::optional<std::uint32_t> expected;
      for (std::size_t i = 0; i < shapes.size(); ++i) {
        if (contains(shapes[i], p)) expected = static_cast<std::uint32_t>(i);
      }
      RC_ASSERT(index.topmost(p) == expected);
    }
    index.clear();
    RC_ASSERT(!index.topmost({200, 200}).has_value());
  });
}
