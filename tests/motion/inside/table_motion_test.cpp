// What comes to pass on the way, each at its own time.
#include <algorithm>
#include <optional>
#include <tuple>

#include "motion/inside.hpp"
#include "motion/random_glide.hpp"
#include "motion/table_motion.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::motion_detail;
using namespace apsidon::test;

TEST_CASE(
    "motion: from one due time to the next each passage comes at its own time, as it does in one step") {
  for_all("due times", 10, [](Random& r) {
    constexpr std::size_t cards = 40;
    TableMotion stepped;
    stepped.resize(cards);
    const ClockIndex slow = stepped.add_clock();
    stepped.set_speed(slow, double{r.uniform(0.3f, 3)});
    for (std::size_t i = 0; i < cards; ++i) {
      stepped.travel(i, random_pose(r), random_glide(r), double{r.uniform(0, 1)},
                     r.chance(0.5f) ? slow : ClockIndex{0});
    }
    TableMotion whole = stepped;
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
    TableMotion motion;
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
    TableMotion before;
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
    TableMotion sent;
    sent.resize(1);
    sent.put(0, start);
    TableMotion moved = sent;
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

TEST_CASE("motion: a card that is finished arrives now, and a clock of its own can be slowed and stopped") {
  TableMotion motion;
  motion.resize(2);
  const ClockIndex own = motion.add_clock();
  motion.travel(0, {.centre = {100, 0}}, {.seconds = 1, .curve = {}}, 0, own);
  motion.travel(1, {.centre = {100, 0}}, {.seconds = 1, .curve = {}});
  motion.advance_to(0.25);
  motion.set_speed(own, 0.5);
  motion.advance_to(0.75);
  CHECK(motion.pose(0).centre.x == Approx(50));
  CHECK(motion.settles_at() == Approx(1.75));
  motion.set_speed(own, 0);
  motion.advance_to(5);
  CHECK(motion.pose(0).centre.x == Approx(50));
  CHECK(std::isinf(motion.settles_at()));
  motion.finish(0);
  motion.finish(0);
  CHECK(motion.pose(0).centre.x == 100);
  REQUIRE(motion.passages().size() == 2);
  CHECK(motion.passages()[0] == Passage{Passage::Kind::landed, 1, 1});
  CHECK(motion.passages()[1] == Passage{Passage::Kind::landed, 0, 5});
  motion.remove_clock(own);
  CHECK(motion.add_clock() == own);
}

TEST_CASE("motion: a clock is not given out again while a card still goes by it") {
  TableMotion motion;
  motion.resize(1);
  const ClockIndex own = motion.add_clock();
  motion.travel(0, {.centre = {100, 0}}, {.seconds = 1, .curve = {}}, 0, own);
  motion.set_speed(own, 0.25);
  motion.remove_clock(own);
  motion.advance_to(2);
  CHECK(motion.pose(0).centre.x == Approx(50));
  const ClockIndex other = motion.add_clock();
  CHECK(other != own);
  motion.advance_to(2.4);
  CHECK(motion.pose(0).centre.x == Approx(60));
  motion.advance_to(5);
  CHECK(motion.add_clock() == own);
  // Nor while an effect does, although no card travels by it.
  motion.advance_to(100);
  motion.start(0, {.kind = EffectKind::pulse, .seconds = 60, .most = {.move = {9, 0}}}, 0, other);
  motion.remove_clock(other);
  CHECK(motion.add_clock() != other);
}

TEST_CASE("motion: an effect that is replaced by none leaves nothing in the pose of its card") {
  TableMotion motion;
  motion.resize(1);
  motion.put(0, {.centre = {100, 100}});
  const Effect shake{.seconds = 1, .swings = 1, .most = {.move = {20, 0}}};
  motion.start(0, shake);
  motion.advance_to(0.2);
  REQUIRE(motion.pose(0).centre.x != 100);
  const std::uint64_t before = motion.revision();
  motion.start(0, {.seconds = 0});
  CHECK(motion.pose(0) == Pose{.centre = {100, 100}});
  CHECK(motion.revision() > before);
  CHECK_FALSE(motion.awake(0));
}

TEST_CASE("motion: the shape of every effect begins and ends at rest with nothing added") {
  for (const EffectKind kind : {EffectKind::swing, EffectKind::pulse, EffectKind::kick}) {
    for (const float swings : {1.0f, 3.0f}) {
      const Effect effect{.kind = kind, .seconds = 1, .swings = swings, .most = {.rotation = 1}};
      float most = 0;
      for (int i = 0; i <= 1000; ++i)
        most = std::max(most, std::abs(share_of(effect, static_cast<float>(i) / 1000)));
      CHECK(most > 0.6f);
      CHECK(most <= 1.0001f);
      for (const float end : {0.0f, 1.0f}) {
        CHECK(share_of(effect, end) == 0);
        const float inside = end == 0 ? 1e-3f : 1 - 1e-3f;
        CHECK(std::abs(share_of(effect, inside)) < 1e-3f);
      }
      CHECK(share_of(effect, -1) == 0);
      CHECK(share_of(effect, 2) == 0);
    }
  }
}

TEST_CASE("motion: cards of a choreography leave in order, and all within its longest") {
  for_all("departures", 200, [](Random& r) {
    const Choreography how{.stagger = r.uniform(0, 2),
                           .by = r.chance(0.5f) ? StaggerBy::order : StaggerBy::distance,
                           .longest = r.uniform(0, 10)};
    const std::size_t of = static_cast<std::size_t>(r.between(1, 10'000));
    double before = 0;
    for (std::size_t i = 0; i < of; ++i) {
      const float distance = static_cast<float>(i) / static_cast<float>(of) * 100;
      const double leaves = departure(how, {i, of, distance, 100});
      RC_ASSERT(leaves >= before);
      RC_ASSERT(leaves <= double{how.longest} * (1 + 1e-12));
      before = leaves;
    }
  });
}
