#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

#include "support/property.hpp"
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

namespace {

/// A quarter turn, so often; whole numbers stay whole.
Vec2 quarters(Vec2 v, int times) {
  for (int i = 0; i < ((times % 4) + 4) % 4; ++i) v = {-v.y, v.x};
  return v;
}

}  // namespace

TEST_CASE("hit: points exactly on edges and round corners belong where the edge rule puts them, turned too") {
  std::map<std::string, int> met;
  for_all("edges", 200, [&](Random& r) {
    const int turns = r.between(-4, 4);
    const float scale = std::array{0.5f, 1.0f, 2.0f}[r.below(3)];
    const int hw = r.between(15, 60);
    const int hh = r.between(15, 60);
    const int radius = 5 * r.between(0, 3);
    const HitShape shape{.pose = {.centre = {static_cast<float>(r.between(-400, 400)) / 4, 7.25f},
                                  .rotation = static_cast<float>(turns) * (std::numbers::pi_v<float> / 2),
                                  .scale = scale},
                         .size = {2 * static_cast<float>(hw), 2 * static_cast<float>(hh)},
                         .corner_radius = static_cast<float>(radius)};
    // In the shape's frame, whole numbers: anywhere, on an edge, or on a corner's circle, by 3, 4 and 5.
    int x = r.between(-hw - 3, hw + 3);
    int y = r.between(-hh - 3, hh + 3);
    if (r.chance(0.4f)) (r.chance(0.5f) ? x = r.chance(0.5f) ? hw : -hw : y = r.chance(0.5f) ? hh : -hh);
    if (r.chance(0.4f)) {
      const bool steep = r.chance(0.5f);
      x = (hw - radius + radius / 5 * (steep ? 3 : 4)) * (r.chance(0.5f) ? 1 : -1);
      y = (hh - radius + radius / 5 * (steep ? 4 : 3)) * (r.chance(0.5f) ? 1 : -1);
    }
    const int cx = std::max(std::abs(x) - (hw - radius), 0);
    const int cy = std::max(std::abs(y) - (hh - radius), 0);
    const bool in_box = x >= -hw && x < hw && y >= -hh && y < hh;
    const bool on_circle = cx > 0 && cy > 0 && cx * cx + cy * cy == radius * radius;
    const bool in_circle = cx == 0 || cy == 0 || cx * cx + cy * cy < radius * radius;
    const bool expected = in_box && (in_circle || (on_circle && x < 0 && y < 0));
    const Vec2 local = Vec2{static_cast<float>(x), static_cast<float>(y)} * scale;
    RC_ASSERT(contains(shape, shape.pose.centre + quarters(local, turns)) == expected);
    if (in_box && on_circle) ++met["on a round corner"];
    if (std::abs(x) == hw || std::abs(y) == hh) ++met["on an edge"];
    ++met[expected ? "inside" : "outside"];
  });
  for (const auto& [what, count] : met) {
    CAPTURE(what, count);
    CHECK(count > 1000);
  }
  CHECK(met.size() == 4);
}

TEST_CASE("hit: of shapes side by side exactly one has a point, on their edges too, however often turned") {
  for_all("side by side", 20, [](Random& r) {
    const int turns = r.between(0, 3);
    const float w = static_cast<float>(2 * r.between(5, 40));
    const float h = static_cast<float>(2 * r.between(5, 40));
    const Vec2 corner{static_cast<float>(r.between(-50, 50)), static_cast<float>(r.between(-50, 50))};
    HitIndex index;
    std::vector<HitShape> shapes;
    for (int column = 0; column < 3; ++column) {
      for (int row = 0; row < 3; ++row) {
        const Vec2 at{w * static_cast<float>(column), h * static_cast<float>(row)};
        shapes.push_back({.pose = {.centre = corner + quarters(at, turns),
                                   .rotation = static_cast<float>(turns) * (std::numbers::pi_v<float> / 2)},
                          .size = {w, h}});
        index.add(shapes.back(), static_cast<std::uint32_t>(shapes.size()));
      }
    }
    for (int i = 0; i < 60; ++i) {
      // Within the nine, in halves of the boxes: half of the points lie on edges.
      const Vec2 local{w / 2 * static_cast<float>(r.between(0, 4)),
                       h / 2 * static_cast<float>(r.between(0, 4))};
      const Vec2 p = corner + quarters(local, turns);
      const auto having =
          std::count_if(shapes.begin(), shapes.end(), [&](const HitShape& s) { return contains(s, p); });
      RC_ASSERT(having == 1);
      RC_ASSERT(index.topmost(p).has_value());
    }
  });
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

TEST_CASE("hit: at rest, with few movers and with many, the index answers as a plain loop does") {
  for_all("moving scenes", 4, [](Random& r) {
    const std::size_t n = r.chance(0.2f) ? 10'000 : r.below(600) + 1;
    const float side = 60 * std::sqrt(static_cast<float>(n));
    const auto some_pose = [&] {
      Pose pose = random_shape(r).pose;
      pose.centre = {r.uniform(0, side), r.uniform(0, side)};
      if (r.chance(0.01f)) pose.centre = {r.uniform(-1, 1) * 1e9f, NAN};
      return pose;
    };
    std::vector<HitShape> shapes(n);
    HitIndex index;
    std::vector<HitKinds> kinds;
    for (std::size_t i = 0; i < n; ++i) {
      shapes[i] = random_shape(r);
      shapes[i].pose = some_pose();
      if (r.chance(0.1f))
        shapes[i].clip = rect_at({r.uniform(0, side), r.uniform(0, side)}, {side / 2, side / 2});
      kinds.push_back(r.chance(0.8f) ? 1u : 2u);
      RC_ASSERT(index.add(shapes[i], static_cast<std::uint32_t>(i + 7), kinds[i]) == i);
    }
    const auto ask = [&](HitKinds wanted) {
      const HitShape& near = shapes[r.below(n)];
      const Vec2 p = near.pose.centre + Vec2{r.uniform(-70, 70), r.uniform(-70, 70)};
      std::vector<std::uint32_t> expected;
      for (std::size_t i = n; i-- > 0;) {
        if ((kinds[i] & wanted) != 0 && contains(shapes[i], p))
          expected.push_back(static_cast<std::uint32_t>(i + 7));
      }
      const auto topmost = index.topmost(p, wanted);
      RC_ASSERT(topmost == (expected.empty() ? std::nullopt : std::optional(expected.front())));
      std::vector<std::uint32_t> all;
      index.all(p, all, wanted);
      RC_ASSERT(all == expected);
    };
    // Long enough for a grid to be made, then with some beside it, then with so many that it goes again.
    for (const std::size_t movers : {std::size_t{0}, std::size_t{1}, n / 20, n / 2, std::size_t{0}}) {
      for (std::size_t k = 0; k < movers; ++k) {
        const std::size_t i = r.below(n);
        shapes[i].pose = some_pose();
        index.move(i, shapes[i].pose);
      }
      for (int q = 0; q < (n > 1000 ? 30 : 150); ++q) ask(r.chance(0.7f) ? all_kinds : 1u);
      for (int q = 0; q < 400; ++q) (void)index.topmost({-1e6f, -1e6f});
      for (int q = 0; q < 20; ++q) ask(all_kinds);
    }
    std::vector<Pose> poses;
    for (HitShape& shape : shapes) poses.push_back(shape.pose = some_pose());
    index.move(0, poses);
    for (int q = 0; q < 20; ++q) ask(all_kinds);
  });
}

TEST_CASE("hit: a card of a pixel's width is the nearest, too") {
  HitIndex index;
  (void)index.add({.pose = {.centre = {50, 50}}, .size = {1, 40}}, 7);
  CHECK(index.nearest({53, 50}, 3) == 7);
  CHECK_FALSE(index.nearest({53, 50}, 2).has_value());
}

TEST_CASE("hit: what touches a rectangle, and what is nearest within a slop") {
  for_all("rectangles", 20, [](Random& r) {
    HitIndex index;
    std::vector<HitShape> shapes(30);
    for (std::size_t i = 0; i < shapes.size(); ++i) {
      shapes[i] = random_shape(r);
      shapes[i].pose.flip = 0;
      shapes[i].corner_radius = 0;
      index.add(shapes[i], static_cast<std::uint32_t>(i));
    }
    // A shape that has a point of a fine raster over the rectangle touches it; one much farther away does
    // not.
    const Rect rect = rect_at({r.uniform(0, 350), r.uniform(0, 350)}, {r.uniform(1, 60), r.uniform(1, 60)});
    std::vector<std::uint32_t> touching;
    index.in_rect(rect, touching);
    RC_ASSERT(std::is_sorted(touching.rbegin(), touching.rend()));
    for (std::size_t i = 0; i < shapes.size(); ++i) {
      bool has = false;
      double nearest = 1e9;
      for (int x = 0; x <= 40; ++x) {
        for (int y = 0; y <= 40; ++y) {
          const Vec2 p{rect.min.x + rect.width() * static_cast<float>(x) / 40,
                       rect.min.y + rect.height() * static_cast<float>(y) / 40};
          has = has || contains(shapes[i], p);
          nearest = std::min(nearest, outside_by(shapes[i], p) * double{shapes[i].pose.scale});
        }
      }
      const bool listed =
          std::find(touching.begin(), touching.end(), static_cast<std::uint32_t>(i)) != touching.end();
      if (has) RC_ASSERT(listed);
      if (nearest > 4) RC_ASSERT(!listed);
    }
    const Vec2 point{r.uniform(-30, 430), r.uniform(-30, 430)};
    const float slop = r.uniform(1, 40);
    const auto found = index.nearest(point, slop);
    const auto beyond = [&](std::size_t i) {
      return outside_by(shapes[i], point) * double{shapes[i].pose.scale};
    };
    if (index.topmost(point)) {
      RC_ASSERT(found == index.topmost(point));
    } else if (found) {
      // No other is nearer than what is measured along the frame's axes allows.
      for (std::size_t i = 0; i < shapes.size(); ++i) RC_ASSERT(beyond(i) >= -1e-3);
      RC_ASSERT(beyond(*found) <= double{slop} + 1e-3);
    } else {
      for (std::size_t i = 0; i < shapes.size(); ++i) RC_ASSERT(beyond(i) > double{slop} / 1.5 - 1e-3);
    }
  });
}
