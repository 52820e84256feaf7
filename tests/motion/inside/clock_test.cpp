#include "motion/clock.hpp"

#include <catch2/catch.hpp>
#include <cmath>

using namespace apsidon::motion_detail;

TEST_CASE("motion: a clock stands still while it is held, and goes at its speed") {
  Clock clock(10, 0);
  clock.advance_to(12);
  CHECK(clock.own() == 2);
  clock.hold(true);
  clock.advance_to(20);
  clock.hold(true);
  CHECK(clock.held());
  clock.advance_to(21);
  CHECK(clock.own() == 2);
  CHECK(std::isinf(clock.when(3)));
  clock.hold(false);
  CHECK(clock.set_speed(2));
  CHECK_FALSE(clock.set_speed(-1));
  CHECK_FALSE(clock.set_speed(NAN));
  clock.advance_to(23);
  CHECK(clock.own() == 6);
  CHECK(clock.when(10) == 25);
  CHECK(clock.when(4) == 22);
  clock.advance_to(5);
  CHECK(clock.now() == 23);
}

TEST_CASE("motion: a countdown ends once, keeps its end whatever comes, and is set anew") {
  Countdown c(10);
  CHECK(c.left(99) == 10);
  CHECK(std::isinf(c.ends()));
  c.add(5, 0);
  c.start(100);
  c.start(105);
  CHECK(c.ends() == 115);
  CHECK(c.share_left(110) == 0.5);
  c.add(-3, 110);
  CHECK(c.left(110) == 2);
  CHECK_FALSE(c.run_out(111));
  CHECK(c.run_out(112));
  CHECK_FALSE(c.run_out(113));
  c.add(100, 113);
  c.start(113);
  CHECK(c.over());
  CHECK(c.left(113) == 0);
  c.set(4);
  CHECK_FALSE(c.over());
  CHECK(c.share_left(0) == 1);
  c.set(NAN);
  CHECK(c.left(0) == 0);
}
