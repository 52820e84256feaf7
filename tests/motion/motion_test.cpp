#include <cmath>
#include <numbers>

#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

Pose random_pose(Random& r) {
  return {.centre = {r.uniform(0, 1000), r.uniform(0, 1000)},
          .rotation = r.uniform(-4, 4),
          .scale = r.uniform(0.5f, 2),
          .flip = r.chance(0.5f) ? 0 : std::numbers::pi_v<float>};
}

Glide random_glide(Random& r) {
  Glide glide{.seconds = r.uniform(0.05f, 1),
              .curve = {r.uniform(0.1f, 0.9f), r.uniform(0, 1), r.uniform(0.1f, 0.9f), r.uniform(0, 1)},
              .lift = r.uniform(0, 1)};
  if (r.chance(0.5f)) {
    const float dampings[] = {r.uniform(0.2f, 0.95f), 1, r.uniform(1.05f, 2)};
    glide.spring = Spring{r.uniform(0.2f, 1), dampings[r.below(3)]};
  }
  if (r.chance(0.3f)) glide.bend = r.uniform(-0.5f, 0.5f);
  if (r.chance(0.3f)) {
    glide.flip_from = r.uniform(0, 0.4f);
    glide.flip_to = r.uniform(0.6f, 1);
  }
  check(glide, "glide");
  return glide;
}

/// The same timed orders for one card, whatever the steps between them.
void command(Motion& motion, Random& r) {
  const Pose goal = random_pose(r);
  const Glide glide = random_glide(r);
  switch (r.below(6)) {
    case 0:
      motion.travel(0, goal, glide, double{r.uniform(0, 0.3f)});
      break;
    case 3:
      motion.lean(0, {.move = {r.uniform(-20, 20), 0}, .rotation = r.uniform(-0.2f, 0.2f)}, {0.3f, 0.7f});
      break;
    case 4: {
      const std::vector<Vec2> through{{r.uniform(0, 900), r.uniform(0, 900)}, {r.uniform(0, 900), 40}};
      motion.travel(0, goal, glide, 0, 0, through);
      break;
    }
    case 1:
      motion.shift(0, goal, glide);
      break;
    case 2:
      motion.start(0, {.kind = EffectKind::swing, .seconds = 0.4f, .swings = 3, .most = {.move = {10, 0}}});
      break;
    default:
      motion.travel(0, goal, glide);
      break;
  }
}

}  // namespace

TEST_CASE("motion: poses do not depend on how time is cut into steps") {
  for_all("steps", 5, [](Random& r) {
    Motion coarse;
    Motion fine;
    coarse.resize(1);
    fine.resize(1);
    double time = 0;
    for (int i = 0; i < 6; ++i) {
      const std::uint64_t seed = r.below(1u << 30);
      Random a(seed);
      Random b(seed);
      command(coarse, a);
      command(fine, b);
      const double next = time + double{r.uniform(0.01f, 0.5f)};
      for (double t = time; t < next; t += double{r.uniform(0.001f, 0.03f)}) fine.advance_to(t);
      fine.advance_to(next);
      coarse.advance_to(next);
      RC_ASSERT(fine.pose(0) == coarse.pose(0));
      time = next;
    }
    RC_ASSERT(fine.settles_at() == coarse.settles_at());
  });
}

TEST_CASE("motion: neither position nor velocity jumps at a retarget") {
  // Long enough that in one step acceleration alone moves a card by less than what is allowed, while a
  // velocity of some hundred px a second that jumped would move it by more.
  const auto glide = [](Random& r) {
    Glide g = random_glide(r);
    g.seconds = r.uniform(0.5f, 2);
    if (g.spring) g.spring->period = r.uniform(0.6f, 2);
    return g;
  };
  for_all("retargets", 10, [&](Random& r) {
    Motion motion;
    motion.resize(1);
    motion.place(0, random_pose(r));
    motion.travel(0, random_pose(r), glide(r));
    motion.advance_to(double{r.uniform(0.05f, 0.4f)});
    const double at = motion.now();
    constexpr double step = 2e-4;
    Motion earlier = motion;
    const Pose before = earlier.pose(0);
    if (r.chance(0.5f)) {
      motion.travel(0, random_pose(r), glide(r));
    } else {
      motion.shift(0, random_pose(r), glide(r));
    }
    motion.advance_to(at + 1e-9);
    RC_ASSERT(length(motion.pose(0).centre - before.centre) < 0.02f);
    motion.advance_to(at + step);
    earlier.advance_to(at + step);
    if (earlier.settles_at() < at + step) return;
    RC_ASSERT(length(motion.pose(0).centre - earlier.pose(0).centre) < 0.05f);
    RC_ASSERT(std::abs(motion.pose(0).flip - earlier.pose(0).flip) < 5e-4f);
  });
}

TEST_CASE("motion: from rest a tween follows its curve exactly, and ends exactly at its goal") {
  Motion motion;
  motion.resize(1);
  motion.place(0, {.centre = {100, 0}});
  const Pose goal{.centre = {300, 50}, .rotation = 1};
  motion.travel(0, goal, {.seconds = 2, .curve = ease});
  CHECK(motion.settles_at() == 2);
  motion.advance_to(0.5);
  CHECK(motion.pose(0).centre.x == Approx(100 + 200 * evaluate(ease, 0.25f).value));
  motion.advance_to(5);
  CHECK(motion.pose(0) == goal);
  CHECK(motion.awake_count() == 0);
  REQUIRE(motion.passages().size() == 1);
  CHECK(motion.passages()[0] == Passage{Passage::Kind::landed, 0, 2});
  CHECK(motion.settles_at() == 5);
}

TEST_CASE("motion: a delayed card waits where it is, and a lifted one is highest half way") {
  Motion motion;
  motion.resize(1);
  motion.travel(0, {.centre = {100, 0}}, {.seconds = 1, .curve = linear, .lift = 0.5f}, 0.5);
  motion.advance_to(0.4);
  CHECK(motion.waiting(0));
  CHECK(motion.pose(0).centre.x == 0);
  motion.advance_to(1);
  CHECK_FALSE(motion.waiting(0));
  CHECK(motion.pose(0).lift == Approx(0.5f));
  CHECK(motion.pose(0).centre.x == Approx(50));
}

TEST_CASE("motion: rotation takes the short way and ends on the goal's own number") {
  Motion motion;
  motion.resize(1);
  motion.place(0, {.rotation = 3});
  motion.travel(0, {.rotation = -3}, {.seconds = 1, .curve = linear});
  motion.advance_to(0.5);
  CHECK(std::abs(std::cos(motion.pose(0).rotation) - std::cos(std::numbers::pi)) < 1e-3);
  motion.advance_to(1);
  CHECK(motion.pose(0).rotation == -3);
}

TEST_CASE("motion: a shake is added to the way, keeps its own clock, and dies away") {
  Motion plain;
  Motion shaken;
  for (Motion* m : {&plain, &shaken}) {
    m->resize(1);
    m->travel(0, {.centre = {100, 0}}, {.seconds = 1, .curve = linear});
  }
  shaken.start(0, {.kind = EffectKind::swing, .seconds = 0.5f, .swings = 2, .most = {.move = {10, 0}}});
  double most = 0;
  for (int i = 1; i <= 60; ++i) {
    plain.advance_to(i / 60.0);
    shaken.advance_to(i / 60.0);
    const double off = double{shaken.pose(0).centre.x - plain.pose(0).centre.x};
    most = std::max(most, std::abs(off));
    if (i > 30) CHECK(off == 0);
    if (i == 10) shaken.shift(0, {.centre = {100, 0}}, {.seconds = 0.1f});  // a new goal does not end it
  }
  CHECK(most > 4);
  CHECK(most <= 10);
}

TEST_CASE("motion: time never runs backward") {
  Motion motion;
  motion.resize(1);
  motion.travel(0, {.centre = {100, 0}}, {.seconds = 1, .curve = linear});
  motion.advance_to(0.5);
  const Pose half = motion.pose(0);
  motion.advance_to(0.2);
  motion.advance_to(NAN);
  CHECK(motion.pose(0) == half);
  CHECK(motion.now() == 0.5);
}
