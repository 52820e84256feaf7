#include <algorithm>
#include <cmath>
#include <numbers>

#include "motion/random_glide.hpp"
#include "support/allocations.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

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

TEST_CASE("motion: a card moves among others as it would alone, and the same is told of it") {
  for_all("cards", 1, [](Random& r) {
    constexpr std::size_t n = 40;
    // Few, so that many cards move alike.
    std::vector<Glide> glides;
    for (int i = 0; i < 3; ++i) glides.push_back(random_glide(r));
    Motion all;
    all.resize(n);
    std::vector<Motion> alone(n);
    for (Motion& motion : alone) motion.resize(1);
    double time = 0;
    for (int step = 0; step < 40; ++step) {
      for (std::size_t i = 0; i < n; ++i) {
        if (!r.chance(step == 0 ? 1 : 0.1f)) continue;
        const Pose goal = random_pose(r);
        const Glide& glide = glides[r.below(glides.size())];
        const double delay = r.chance(0.5f) ? 0 : double{r.uniform(0, 0.4f)};
        if (r.chance(0.3f)) {
          all.shift(i, goal, glide);
          alone[i].shift(0, goal, glide);
        } else {
          all.travel(i, goal, glide, delay);
          alone[i].travel(0, goal, glide, delay);
        }
      }
      time += double{r.uniform(0, 0.2f)};
      all.advance_to(time);
      std::vector<std::vector<Passage>> told(n);
      for (const Passage& p : all.passages()) told[p.slot].push_back({p.kind, 0, p.time});
      for (std::size_t i = 0; i < n; ++i) {
        alone[i].advance_to(time);
        RC_ASSERT(all.pose(i) == alone[i].pose(0));
        RC_ASSERT(all.awake(i) == alone[i].awake(0));
        RC_ASSERT(std::equal(told[i].begin(), told[i].end(), alone[i].passages().begin(),
                             alone[i].passages().end()));
        alone[i].forget_passages();
      }
      RC_ASSERT(std::is_sorted(all.passages().begin(), all.passages().end(),
                               [](const Passage& a, const Passage& b) { return a.time < b.time; }));
      all.forget_passages();
    }
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
    motion.put(0, random_pose(r));
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
  motion.put(0, {.centre = {100, 0}});
  const Pose goal{.centre = {300, 50}, .rotation = 1};
  motion.travel(0, goal, {.seconds = 2, .curve = ease});
  CHECK(motion.settles_at() == 2);
  motion.advance_to(0.5);
  CHECK(motion.pose(0).centre.x == Approx(100 + 200 * Easing(ease).at(0.25f).value));
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
  CHECK(motion.awake(0));
  CHECK(motion.pose(0).centre.x == 0);
  CHECK(motion.passages().empty());
  motion.advance_to(1);
  REQUIRE(motion.passages().size() == 1);
  CHECK(motion.passages()[0] == Passage{Passage::Kind::departed, 0, 0.5});
  CHECK(motion.pose(0).lift == Approx(0.5f));
  CHECK(motion.pose(0).centre.x == Approx(50));
}

TEST_CASE("motion: rotation takes the short way and ends on the goal's own number") {
  Motion motion;
  motion.resize(1);
  motion.put(0, {.rotation = 3});
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

TEST_CASE("motion: after the first frame nothing is taken from the heap, landings and all") {
  for_all("no allocation", 2, [](Random& r) {
    Motion motion;
    motion.resize(200);
    for (std::size_t i = 0; i < 200; ++i)
      motion.travel(i, random_pose(r), random_glide(r), double{r.uniform(0, 0.5f)});
    for (std::size_t i = 0; i < 20; ++i) {
      motion.start(i, {.kind = EffectKind::kick, .seconds = r.uniform(0.1f, 1), .most = {.rotation = 1}});
    }
    motion.advance_to(0.01);
    const std::size_t taken = allocations_in([&] {
      for (double time = 0.02; time < 20; time += 0.05) {
        motion.advance_to(time);
        motion.forget_passages();
      }
    });
    RC_ASSERT(taken == 0);
    RC_ASSERT(motion.awake_count() == 0);
  });
}

TEST_CASE("motion: a way can bend, go through points, and turn the card over in a part of its time") {
  Motion motion;
  motion.resize(3);
  for (std::size_t i = 0; i < 3; ++i) motion.put(i, {.centre = {0, 100}});
  const Glide straight{.seconds = 1, .curve = {}};
  Glide bent = straight;
  bent.bend = 0.25f;
  motion.travel(0, {.centre = {400, 100}}, bent);
  const std::vector<Vec2> through{{100, 300}, {300, 300}};
  motion.travel(1, {.centre = {400, 100}}, straight, 0, 0, through);
  Glide turning = straight;
  turning.flip_from = 0.25f;
  turning.flip_to = 0.5f;
  motion.travel(2, {.centre = {400, 100}, .flip = std::numbers::pi_v<float>}, turning);
  motion.advance_to(0.2);
  CHECK(motion.pose(2).flip == 0);
  motion.advance_to(0.5);
  CHECK(motion.pose(0).centre.x == Approx(200).margin(0.01));
  CHECK(motion.pose(0).centre.y ==
        Approx(200).margin(0.01));  // to the right of the way, a quarter of its length
  CHECK(motion.pose(1).centre.y > 290);
  CHECK(motion.pose(2).flip == std::numbers::pi_v<float>);
  REQUIRE(motion.passages().size() == 1);
  CHECK(motion.passages()[0].kind == Passage::Kind::edge_on);
  CHECK(motion.passages()[0].time == Approx(0.375));
  double nearest = 1e9;
  Motion again;
  again.resize(1);
  again.put(0, {.centre = {0, 100}});
  again.travel(0, {.centre = {400, 100}}, straight, 0, 0, through);
  Vec2 last = again.pose(0).centre, step{};
  for (int i = 0; i <= 1000; ++i) {
    again.advance_to(i / 1000.0);
    // It turns little by little, also where it comes by a point.
    const Vec2 next = again.pose(0).centre - std::exchange(last, again.pose(0).centre);
    if (const Vec2 before = std::exchange(step, next); length(before) > 0.01f && length(next) > 0.01f)
      CHECK(dot(before, next) > 0.99f * length(before) * length(next));
    nearest = std::min(nearest, double{length(again.pose(0).centre - through[0])});
  }
  CHECK(nearest < 1);
  // Half of a way shorter than a pixel through its middle is that, and not half of a longer one.
  Motion small;
  small.resize(1);
  small.put(0, {});
  small.travel(0, {.centre = {0.4f, 0}}, straight, 0, 0, std::vector<Vec2>{{0.2f, 0}});
  small.advance_to(0.5);
  CHECK(length(small.pose(0).centre - Vec2{0.2f, 0}) < 0.001f);
  motion.advance_to(2);
  for (std::size_t i = 0; i < 3; ++i) CHECK(motion.pose(i).centre == Vec2{400, 100});
}

TEST_CASE("motion: a lean stays beside the way until it is taken back, and effects do not end it") {
  Motion motion;
  motion.resize(1);
  motion.put(0, {.centre = {50, 50}});
  motion.lean(0, {.move = {0, -30}, .scale = 0.5f}, {0.2f, 1});
  CHECK(motion.awake(0));
  motion.advance_to(2);
  CHECK_FALSE(motion.awake(0));
  CHECK(motion.pose(0).centre.y == Approx(20));
  CHECK(motion.pose(0).scale == Approx(1.5));
  motion.travel(0, {.centre = {100, 50}}, {.seconds = 1, .curve = {}});
  motion.start(0, {.kind = EffectKind::pulse, .seconds = 0.5f, .most = {.brightness = 0.4f}});
  motion.advance_to(2.25);
  CHECK(motion.pose(0).centre.x == Approx(62.5));
  CHECK(motion.pose(0).centre.y == Approx(20));
  CHECK(motion.pose(0).brightness == Approx(1.4));
  motion.lean(0, {}, {0.2f, 1});
  motion.advance_to(9);
  CHECK(motion.pose(0) == Pose{.centre = {100, 50}});
  CHECK(motion.settles_at() == 9);
}

TEST_CASE("motion: a flip has turned at its share of the way, also one that begins with the way") {
  for (const float begins : {0.0f, 0.25f}) {
    Motion motion;
    motion.resize(1);
    Glide glide{.seconds = 1, .curve = {}};
    glide.flip_from = begins;
    glide.flip_to = 0.5f;
    motion.travel(0, {.flip = std::numbers::pi_v<float>}, glide);
    motion.advance_to(double{begins + 0.5f} / 2);
    CHECK(motion.pose(0).flip == Approx(std::numbers::pi / 2));
    motion.advance_to(0.5);
    CHECK(motion.pose(0).flip == std::numbers::pi_v<float>);
  }
}
