// One number on its way, against a card that goes the same way.
#include <catch2/catch.hpp>
#include <cmath>

#include "apsidon/motion/gliding.hpp"
#include "apsidon/motion/motion.hpp"
#include "motion/random_glide.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("motion: a number on its way is where a card is that goes the same way") {
  for_all("gliding", 10, [](Random& r) {
    Motion motion(0);
    motion.resize(1);
    motion.put(0, {});
    Gliding number(0, 0.01f);
    double time = 0;
    for (int i = 0; i < 6; ++i) {
      Glide glide = random_glide(r);
      glide.bend = glide.lift = glide.flip_from = 0;
      glide.flip_to = 1;
      // What rests begins a curve from rest: both have to be of one mind about it.
      if (motion.awake(0) != (time < number.ends_at())) return;
      const float goal = r.uniform(-500, 500);
      motion.travel(0, {.centre = {goal, 0}}, glide);
      number.go(goal, glide, time);
      const double until = time + double{r.uniform(0, 0.6f)};
      while (time < until) {
        time = std::min(time + double{r.uniform(0, 0.1f)}, until);
        motion.advance_to(time);
        // Of a thousand px; a card's spring is at rest a little sooner.
        RC_ASSERT(std::abs(motion.pose(0).centre.x - number.at(time)) < 1);
      }
    }
    RC_ASSERT(number.at(number.ends_at()) == number.goal());
    RC_ASSERT(number.velocity_at(number.ends_at()) == 0);
    RC_ASSERT(number.passed_at(number.ends_at()) == 1);
  });
}

TEST_CASE(
    "motion: a number keeps value and velocity when it is sent elsewhere, and follows its curve from rest") {
  for_all("gliding", 10, [](Random& r) {
    Gliding number(r.uniform(-2, 2));
    const float from = number.at(0);
    const Glide first{.seconds = r.uniform(0.1f, 1), .curve = {0.3f, r.uniform(0, 1), 0.6f, r.uniform(0, 1)}};
    number.go(3, first, 0);
    for (const float u : {0.0f, 0.2f, 0.7f, 1.0f}) {
      const float expected = from + (3 - from) * first.curve.value(u);
      RC_ASSERT(std::abs(number.at(double{u * first.seconds}) - expected) < 1e-4f);
    }
    double time = 0;
    for (int i = 0; i < 5; ++i) {
      time += double{r.uniform(0, 0.3f)};
      const float value = number.at(time);
      const float velocity = number.velocity_at(time);
      Glide glide{.seconds = r.uniform(0.2f, 1), .curve = {0.3f, r.uniform(0, 1), 0.6f, r.uniform(0, 1)}};
      if (r.chance(0.5f))
        glide.spring = Spring{.period = r.uniform(0.2f, 1), .damping = r.uniform(0.3f, 1.5f)};
      const bool rests = !(time < number.ends_at());
      number.go(r.uniform(-2, 2), glide, time);
      RC_ASSERT(std::abs(number.at(time) - value) < 1e-4f);
      if (!rests) RC_ASSERT(std::abs(number.velocity_at(time) - velocity) < 1e-2f);
      // The velocity is the change of the value.
      const double h = 1e-3;
      const double at = time + double{glide.seconds} / 3;
      const float change = (number.at(at + h) - number.at(at - h)) / static_cast<float>(2 * h);
      RC_ASSERT(std::abs(change - number.velocity_at(at)) < 0.05f + std::abs(change) * 0.02f);
    }
  });
}
