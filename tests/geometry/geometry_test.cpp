#include <numbers>

#include "apsidon/apsidon.hpp"
#include "support/property.hpp"

using namespace apsidon;
using apsidon::test::for_all;
using apsidon::test::Random;

static_assert(Rect{{0, 0}, {1, 1}}.contains({0, 0}));
static_assert(!Rect{{0, 0}, {1, 1}}.contains({1, 0}));
static_assert(!Rect{{0, 0}, {1, 1}}.contains({0, 1}));

namespace {
constexpr float pi = std::numbers::pi_v<float>;

bool near(Vec2 a, Vec2 b, float tolerance) { return length(a - b) <= tolerance; }
}  // namespace

TEST_CASE("geometry: of two boxes side by side exactly one has a point on their edge") {
  for_all("shared edges", 20, [](Random& r) {
    const float left = r.uniform(-100, 100);
    const float middle = left + r.uniform(1, 100);
    const float right = middle + r.uniform(1, 100);
    const Vec2 on_edge{middle, r.uniform(0, 9.99f)};
    const Rect a{{left, 0}, {middle, 10}};
    const Rect b{{middle, 0}, {right, 10}};
    RC_ASSERT(a.contains(on_edge) != b.contains(on_edge));
    const Rect above{{0, left}, {10, middle}};
    const Rect below{{0, middle}, {10, right}};
    RC_ASSERT(above.contains({on_edge.y, middle}) != below.contains({on_edge.y, middle}));
  });
}

TEST_CASE("geometry: boxes overlap by the area they share") {
  CHECK(overlap({{0, 0}, {4, 4}}, {{2, 1}, {6, 3}}) == 4);
  CHECK(overlap({{0, 0}, {4, 4}}, {{4, 0}, {8, 4}}) == 0);
  CHECK(rect_around({5, 5}, {4, 2}) == Rect{{3, 4}, {7, 6}});
  CHECK(grown({{0, 0}, {2, 2}}, 1) == Rect{{-1, -1}, {3, 3}});
  CHECK(Rect{{0, 0}, {0, 5}}.empty());
  CHECK_FALSE(Rect{{0, 0}, {1, 5}}.empty());
}

TEST_CASE("geometry: an angle keeps its unit") {
  CHECK((180_deg).radians() == Approx(pi));
  CHECK(Angle::radians(0.5).degrees() == Approx(28.6479));
  CHECK(12_deg < Angle::radians(0.3));
  CHECK(Angle::degrees(90) == 90_deg);
}

TEST_CASE("geometry: a flat pose turns its corners clockwise around its middle") {
  const Quad upright = corners({.centre = {50, 70}}, {100, 140});
  CHECK(upright.corners[0] == Vec2{0, 0});
  CHECK(upright.corners[2] == Vec2{100, 140});
  const Quad turned = corners({.centre = {0, 0}, .rotation = pi / 2}, {100, 140});
  CHECK(near(turned.corners[0], {70, -50}, 1e-4f));
  CHECK(bounds(turned).width() == Approx(140).margin(1e-3));
}

TEST_CASE("geometry: the matrix of a flat pose takes the card's corners where corners() has them") {
  for_all("matrix and corners", 20, [](Random& r) {
    const Size card{r.uniform(1, 300), r.uniform(1, 300)};
    const Pose pose{.centre = {r.uniform(-500, 500), r.uniform(-500, 500)},
                    .rotation = r.uniform(-7, 7),
                    .scale = r.uniform(0.1f, 3)};
    const Matrix m = matrix_of(pose);
    const Quad q = corners(pose, card);
    RC_ASSERT(near(apply(m, {-card.width / 2, -card.height / 2}), q.corners[0], 0.01f));
    RC_ASSERT(near(apply(m, {card.width / 2, card.height / 2}), q.corners[2], 0.01f));
  });
}

TEST_CASE("geometry: the side that shows changes exactly at the edge-on moment") {
  CHECK(shows_face(0));
  CHECK(shows_face(pi / 2 - 1e-4f));
  CHECK_FALSE(shows_face(pi / 2 + 1e-4f));
  CHECK_FALSE(shows_face(pi));
  CHECK(shows_face(2 * pi));
  CHECK(tilt_of_shown_side(pi) == Approx(0).margin(1e-6));
  // A back that lies flat is upright: its own top left corner is at the top left.
  const Quad back = corners({.centre = {50, 70}, .flip = pi}, {100, 140});
  CHECK(near(back.corners[0], {0, 0}, 1e-3f));
}

TEST_CASE("geometry: a flipping card is narrow, and its nearer edge longer") {
  const Quad q = corners({.centre = {0, 0}, .flip = pi / 3}, {100, 140});
  const float left = length(q.corners[0] - q.corners[3]);
  const float right = length(q.corners[1] - q.corners[2]);
  CHECK(bounds(q).width() < 60);
  CHECK(std::abs(left - right) > 1);
  CHECK(std::abs(left - right) < 40);
  // About the horizontal axis it is low instead.
  CHECK(bounds(corners({.flip = pi / 3, .flip_axis = pi / 2}, {100, 140})).height() < 90);
}

TEST_CASE("geometry: a pose with any number that is not finite is not finite") {
  CHECK(is_finite(Pose{}));
  CHECK_FALSE(is_finite(Pose{.centre = {NAN, 0}}));
  CHECK_FALSE(is_finite(Pose{.lift = INFINITY}));
}

TEST_CASE("geometry: a sketch as text has a line for each primitive") {
  Sketch sketch;
  sketch.line("l", {0, 0}, {1.005f, 2});
  sketch.box("b", {{1, 2}, {3, 4}});
  sketch.quad("q", {{Vec2{0, 0}, Vec2{1, 0}, Vec2{1, 1}, Vec2{-0.001f, 1}}});
  sketch.point("p", {5, 6});
  sketch.label("t", {7, 8}, "bed-1");
  CHECK(text_of(sketch) ==
        "l line 0 0 1 2\nb box 1 2 3 4\nq quad 0 0 1 0 1 1 0 1\np point 5 6\nt label 7 8 bed-1\n");
}
