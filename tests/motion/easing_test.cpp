#include <cmath>

#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The curve by halving the parameter's range, in double: slow and plain.
double reference(const CubicBezier& c, double x) {
  const auto at = [](double p1, double p2, double t) {
    const double s = 1 - t;
    return 3 * s * s * t * p1 + 3 * s * t * t * p2 + t * t * t;
  };
  double low = 0;
  double high = 1;
  for (int i = 0; i < 100; ++i) {
    const double t = (low + high) / 2;
    (at(double{c.x1}, double{c.x2}, t) < x ? low : high) = t;
  }
  return at(double{c.y1}, double{c.y2}, (low + high) / 2);
}

}  // namespace

TEST_CASE("motion: cubic-bezier agrees with its definition") {
  for_all("cubic-bezier", 50, [](Random& r) {
    const CubicBezier c{r.uniform(0, 1), r.uniform(-1, 2), r.uniform(0, 1), r.uniform(-1, 2)};
    const float x = r.uniform(0, 1);
    const EasedValue at = Easing(c).at(x);
    const double y = reference(c, double{x});
    // Where the curve is nearly upright, a tiny step of x is a long way in y.
    const double steep = std::abs(reference(c, double{x} + 2e-7) - reference(c, double{x} - 2e-7));
    RC_ASSERT(std::abs(double{at.value} - y) <= 1e-5 + steep);
  });
}

TEST_CASE("motion: a curve's slope is the change of its value") {
  for_all("slope", 20, [](Random& r) {
    const CubicBezier c{r.uniform(0.1f, 0.9f), r.uniform(0, 1), r.uniform(0.1f, 0.9f), r.uniform(0, 1)};
    const float x = r.uniform(0.02f, 0.98f);
    const double change = (reference(c, double{x} + 1e-4) - reference(c, double{x} - 1e-4)) / 2e-4;
    RC_ASSERT(std::abs(double{Easing(c).at(x).slope} - change) < 0.02 * (1 + std::abs(change)));
  });
}

TEST_CASE("motion: curves begin at 0, end at 1, and go on along their tangents") {
  for (const CubicBezier& c : {linear, ease, ease_in, ease_out, ease_in_out, CubicBezier{0, 1, 0, 1}}) {
    CHECK(Easing(c).at(0).value == 0);
    CHECK(Easing(c).at(1).value == 1);
  }
  CHECK(Easing(linear).at(-2).value == -2);
  CHECK(Easing(linear).at(3).value == 3);
  CHECK(Easing(ease_in).at(-1).value == 0);                    // starts level
  CHECK(Easing(ease_in).at(2).value == Approx(1 + 1 / 0.58));  // ends with the slope (1 - 0) / (1 - 0.42)
  CHECK(Easing(0.5f, 1, 0.5f, 1).at(-1).value == Approx(-2));
  CHECK(Easing(0, 1, 0.5f, 1).at(-1).value == 0);         // starts upright: stays level before
  CHECK(Easing(0.3f, 1.9f, 0.7f, 1).at(0.5f).value > 1);  // beyond 1 on the way
}

TEST_CASE("motion: where stops lie at one point the value jumps there, and is a number") {
  const Easing jump = Easing::parse("linear(0, 0.25 50%, 0.75 50%, 1)");
  CHECK(jump.value(0.49999f) == Approx(0.25f).margin(0.001));
  CHECK(jump.value(0.5f) == 0.75f);
  CHECK(jump.value(0.50001f) == Approx(0.75f).margin(0.001));
  const Easing at_end = Easing::parse("linear(0, 0.5 100%, 1 100%)");
  CHECK(at_end.value(1) == 1);
  CHECK(Easing::parse("linear(0 0%, 0.5 0%, 1)").value(0) == 0.5f);
}

TEST_CASE("motion: a curve that is no function of time is refused") {
  CHECK_THROWS_WITH(
      Easing(1.5f, 0, 0, 1),
      "cubic-bezier(1.5, 0, 0, 1): each x from 0 to 1 and each y from -1000 to 1000 is expected");
  CHECK_THROWS_AS(Easing(0, NAN, 0, 1), Error);
  CHECK_THROWS_WITH(check(Feel{.move = {.glide = {.seconds = -1}}}),
                    "feel: move: seconds is -1: 0 to 60 is expected");
}
