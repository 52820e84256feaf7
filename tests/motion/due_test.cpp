// What comes to pass on the way, each at its own time.
#include <algorithm>
#include <optional>
#include <tuple>

#include "motion/random_glide.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE(
    "motion: from one due time to the next each passage comes at its own time, as it does in one step") {
  for_all("due times", 10, [](Random& r) {
    constexpr std::size_t cards = 40;
    Motion stepped;
    stepped.resize(cards);
    const ClockIndex slow = stepped.add_clock();
    stepped.set_speed(slow, double{r.uniform(0.3f, 3)});
    for (std::size_t i = 0; i < cards; ++i) {
      stepped.travel(i, random_pose(r), random_glide(r), double{r.uniform(0, 1)},
                     r.chance(0.5f) ? slow : ClockIndex{0});
    }
    Motion whole = stepped;
    std::vector<Passage> told;
    for (double due = stepped.next_due(); due < 1e9; due = stepped.next_due()) {
      RC_ASSERT(due >= stepped.now());
      stepped.advance_to(due);
      RC_ASSERT(!stepped.passages().empty());
      for (const Passage& p : stepped.passages()) {
        RC_ASSERT(p.time <= due && p.time > due - 1e-9);
        told.push_back(p);
      }
      stepped.forget_passages();
    }
    RC_ASSERT(stepped.awake_count() == 0u);
    whole.advance_to(1000);
    RC_ASSERT(told.size() == whole.passages().size());
    const auto earlier = [](const Passage& a, const Passage& b) {
      return std::tie(a.time, a.slot, a.kind) < std::tie(b.time, b.slot, b.kind);
    };
    std::sort(told.begin(), told.end(), earlier);
    RC_ASSERT(std::equal(told.begin(), told.end(), whole.passages().begin(), whole.passages().end()));
  });
}

TEST_CASE("motion: a card on a spring arrives when it is at its goal first, and lands when it rests there") {
  for (const float damping : {0.2f, 0.5f, 0.9f, 1.0f, 1.6f}) {
    CAPTURE(damping);
    Motion motion;
    motion.resize(1);
    motion.travel(0, {.centre = {300, 400}}, {.spring = Spring{0.6f, damping}});
    std::optional<double> arrived;
    while (motion.awake_count() > 0) {
      motion.advance_to(motion.next_due());
      for (const Passage& p : motion.passages()) {
        if (p.kind != Passage::Kind::arrived) continue;
        CHECK_FALSE(arrived.has_value());
        arrived = p.time;
        CHECK(length(motion.pose(0).centre - Vec2{300, 400}) < 1.01f);
      }
      motion.forget_passages();
    }
    REQUIRE(arrived);
    CHECK(*arrived < motion.rested_at());
    // Shortly before it was on its way there.
    Motion before;
    before.resize(1);
    before.travel(0, {.centre = {300, 400}}, {.spring = Spring{0.6f, damping}});
    before.advance_to(*arrived * 0.9);
    CHECK(length(before.pose(0).centre - Vec2{300, 400}) > 1);
    CHECK(before.pose(0).centre.x < 300);
  }
}

TEST_CASE(
    "motion: a goal that moves while its card waits changes where the card goes, and not when it comes") {
  for_all("moved goals", 20, [](Random& r) {
    Pose start = random_pose(r), first = random_pose(r), goal = random_pose(r);
    start.rotation = first.rotation = goal.rotation = 0;
    first.flip = goal.flip;
    const Glide glide = random_glide(r);
    Motion sent;
    sent.resize(1);
    sent.put(0, start);
    Motion moved = sent;
    sent.travel(0, goal, glide, 1);
    moved.travel(0, first, glide, 1);
    moved.advance_to(double{r.uniform(0.1f, 0.9f)});
    moved.shift(0, goal, random_glide(r));
    RC_ASSERT(moved.waiting(0));
    sent.advance_to(1000);
    moved.advance_to(1000);
    RC_ASSERT(sent.passages().size() == moved.passages().size());
    for (std::size_t i = 0; i < sent.passages().size(); ++i) {
      const Passage &one = sent.passages()[i], &other = moved.passages()[i];
      RC_ASSERT(one.kind == other.kind && std::abs(one.time - other.time) < 1e-3);
    }
    RC_ASSERT(moved.pose(0) == goal);
  });
}
