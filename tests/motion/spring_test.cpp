// Springs against their differential equation, easings against the standard's words, clocks.
#include <cmath>

#include "motion/spring_shares.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;
using namespace apsidon::motion_detail;

namespace {

/// x'' = -w² x - 2 d w x', by Runge and Kutta in small steps.
struct Integrated {
  double x;
  double v;

  void go_on(double w, double d, double seconds) {
    const auto pull = [&](double at, double speed) { return -w * w * at - 2 * d * w * speed; };
    const int steps = 1 + static_cast<int>(seconds * w * (1 + d) * 60);
    const double h = seconds / steps;
    for (int i = 0; i < steps; ++i) {
      const double k1 = v, l1 = pull(x, v);
      const double k2 = v + h / 2 * l1, l2 = pull(x + h / 2 * k1, v + h / 2 * l1);
      const double k3 = v + h / 2 * l2, l3 = pull(x + h / 2 * k2, v + h / 2 * l2);
      const double k4 = v + h * l3, l4 = pull(x + h * k3, v + h * l3);
      x += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
      v += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
    }
  }
};

}  // namespace

TEST_CASE("motion: a spring agrees with its differential equation to 1e-5 of the distance") {
  for_all("springs", 10, [](Random& r) {
    const float dampings[] = {r.uniform(0.05f, 0.99f), 1, r.uniform(0.9995f, 1.0005f), r.uniform(1.01f, 4)};
    const Spring spring{r.uniform(0.1f, 2), dampings[r.below(4)]};
    check(spring);
    const double w = 2 * 3.14159265358979 / double{spring.period};
    const float seconds = r.uniform(0, 3) * spring.period;
    const float velocity = r.uniform(-2, 2) * static_cast<float>(w);
    Integrated exact{1, double{velocity}};
    exact.go_on(w, double{spring.damping}, double{seconds});
    const SpringShares s = shares_of(spring, seconds);
    const double x = double{s.of_distance} + double{velocity} * double{s.of_velocity};
    const double v = double{s.velocity_of_distance} + double{velocity} * double{s.velocity_of_velocity};
    RC_ASSERT(std::abs(x - exact.x) < 1e-5 * (1 + std::abs(double{velocity}) / w));
    RC_ASSERT(std::abs(v - exact.v) < 3e-5 * w * (1 + std::abs(double{velocity}) / w));
  });
}

TEST_CASE("motion: after its settle time a spring stays near its goal, and not much earlier") {
  for_all("settling", 10, [](Random& r) {
    const Spring spring{r.uniform(0.1f, 1), r.chance(0.2f) ? 1 : r.uniform(0.1f, 3)};
    const float distance = r.uniform(-900, 900);
    const float velocity = r.uniform(-3000, 3000);
    const float settled = settle_seconds(spring, distance, velocity, 0.01f);
    for (int i = 0; i <= 40; ++i) {
      const SpringShares s = shares_of(spring, settled + static_cast<float>(i) * spring.period / 10);
      RC_ASSERT(std::abs(distance * s.of_distance + velocity * s.of_velocity) < 0.0105f);
    }
  });
  CHECK(settle_seconds({}, 0, 0, 0.01f) == 0);
  CHECK_THROWS_WITH(check(Spring{.period = 0}), "spring: period is 0: 0.001 to 60 is expected");
  CHECK_THROWS_AS(check(Spring{.damping = NAN}), Error);
}

TEST_CASE("motion: a prepared cubic-bezier agrees with the careful one, many at once with one") {
  for_all("prepared", 10, [](Random& r) {
    const bool extreme = r.chance(0.3f);
    const auto x = [&] {
      return extreme && r.chance(0.5f) ? static_cast<float>(r.below(2)) : r.uniform(0, 1);
    };
    const CubicBezier curve{x(), r.uniform(-1, 2), x(), r.uniform(-1, 2)};
    const Easing easing(curve);
    std::vector<float> xs;
    for (int i = 0; i < 37; ++i) xs.push_back(r.uniform(-0.2f, 1.2f));
    std::vector<float> ys(xs.size());
    easing.values(xs, ys);
    for (std::size_t i = 0; i < xs.size(); ++i) {
      const float steep =
          std::abs(Easing(curve).at(xs[i] + 2e-7f).value - Easing(curve).at(xs[i] - 2e-7f).value);
      RC_ASSERT(std::abs(ys[i] - Easing(curve).at(xs[i]).value) <= 1e-5f + steep);
      RC_ASSERT(ys[i] == easing.value(xs[i]));
    }
  });
}

TEST_CASE("motion: steps jump exactly at their places, and go on beyond both ends") {
  const auto at = [](const char* text, float x) { return Easing::parse(text).value(x); };
  const float before = std::nextafter(0.25f, 0.0f);
  CHECK(at("steps(4)", before) == 0);
  CHECK(at("steps(4, end)", 0.25f) == 0.25f);
  CHECK(at("steps(4, jump-start)", 0) == 0.25f);
  CHECK(at("steps(4, start)", before) == 0.25f);
  CHECK(at("steps(4, jump-start)", 1) == 1);
  CHECK(at("steps(4, jump-none)", before) == 0);
  CHECK(at("steps(4, jump-none)", 0.25f) == Approx(1.0 / 3));
  CHECK(at("steps(4, jump-none)", 1) == 1);
  CHECK(at("steps(4, jump-both)", 0) == Approx(0.2));
  CHECK(at("steps(4, jump-both)", 1) == 1);
  CHECK(at("steps(4)", -0.1f) == -0.25f);
  CHECK(at("steps(4)", 1.3f) == 1.25f);
  CHECK(at("step-start", 0) == 1);
  CHECK(at("step-end", 0.99f) == 0);
  CHECK(at("step-end", 1) == 1);
}

TEST_CASE(
    "motion: linear() fills its stops in, orders them, jumps where two meet, and goes on beyond both ends") {
  const auto at = [](const char* text, float x) { return Easing::parse(text).value(x); };
  CHECK(at("linear(0, 0.5 20% 40%, 1)", 0.3f) == 0.5f);
  CHECK(at("linear(0, 0.5 20% 40%, 1)", 0.7f) == Approx(0.75));
  CHECK(at("linear(0, 0.1, 0.9, 1)", 0.5f) == Approx(0.5));
  CHECK(at("linear(0, 1)", 1.5f) == 1.5f);
  CHECK(at("linear(0, 1)", -1) == -1);
  CHECK(at("linear(0.3)", 0.9f) == 0.3f);
  // The second stop lies before the first: it counts as at the first.
  CHECK(at("linear(0 50%, 1 20%, 2)", 0.5f) == 1);
  CHECK(at("linear(0, 20% 0.2, 0.8 20%, 1)", 0.2f) == Approx(0.8));
  CHECK(at("linear(0, 20% 0.2, 0.8 20%, 1)", std::nextafter(0.2f, 0.0f)) == Approx(0.2));
  CHECK(at("linear(0 0%, 0 50%, 1 50%, 1 100%)", 0.49f) == 0);
  CHECK(at("linear(0 0%, 0 50%, 1 50%, 1 100%)", 2) == 1);
}

TEST_CASE(
    "motion: the usual shapes begin at 0 and end at 1, mirror each other, and have the slope of their "
    "value") {
  for (const char* shape :
       {"quad", "cubic", "quart", "quint", "sine", "expo", "circ", "back", "elastic", "bounce"}) {
    const Easing in = Easing::parse(std::string(shape) + "-in");
    const Easing out = Easing::parse(std::string(shape) + "-out");
    const Easing both = Easing::parse(std::string(shape) + "-in-out");
    for (const Easing& e : {in, out, both}) {
      CAPTURE(e.text());
      CHECK(e.value(0) == Approx(0).margin(1e-6));
      CHECK(e.value(1) == 1);
      CHECK(e.value(-3) == 0);
      CHECK(e.value(7) == 1);
      CHECK(Easing::parse(e.text()) == e);
      for (int i = 1; i < 20; ++i) {
        const float x = static_cast<float>(i) / 20 + 0.013f;
        const float change = (e.value(x + 1e-3f) - e.value(x - 1e-3f)) / 2e-3f;
        // Where a ball bounces there is a corner.
        if (std::abs(e.at(x + 1e-3f).slope - e.at(x - 1e-3f).slope) > 1) continue;
        CHECK(e.at(x).slope == Approx(change).margin(0.08));
      }
    }
    CHECK(out.value(0.3f) == Approx(1 - in.value(0.7f)));
    CHECK(both.value(0.3f) == Approx(in.value(0.6f) / 2));
  }
  CHECK(Easing::parse("back-in").value(0.3f) < -0.05f);
  CHECK(Easing::parse("elastic-out").value(0.2f) > 1);
}

TEST_CASE("motion: easings read as they are written, and what cannot be read says what is wanted") {
  for (const char* text : {"linear", "ease", "ease-in-out", "cubic-bezier(0.1, -0.5, 0.7, 1.5)", "steps(3)",
                           "steps(7, jump-both)", "linear(0, 0.25 12.5%, 1 90%, 1)", "quint-in-out"}) {
    CHECK(Easing::parse(text).text() == text);
  }
  CHECK(Easing::parse(" cubic-bezier( .25,.1 , .25, 1) ") == Easing(ease));
  CHECK(Easing::parse("cubic-bezier(0, 0, 1, 1)") == Easing());
  CHECK_THROWS_WITH(Easing::parse("easy"), Catch::Contains("easing 'easy': linear, ease, ease-in"));
  CHECK_THROWS_WITH(Easing::parse("cubic-bezier(0, 0, 1)"), Catch::Contains("3 numbers: x1, y1, x2, y2"));
  CHECK_THROWS_WITH(Easing::parse("cubic-bezier(0, x, 1, 1)"), Catch::Contains("'x' is no number"));
  CHECK_THROWS_WITH(Easing::parse("steps(0)"), "steps: count is 0: 1 to 100000 is expected");
  CHECK_THROWS_WITH(Easing::parse("steps(1, jump-none)"), "steps: count is 1: 2 to 100000 is expected");
  CHECK_THROWS_WITH(Easing::parse("steps(2, middle)"), Catch::Contains("jump-start, jump-end"));
  CHECK_THROWS_WITH(Easing::parse("linear()"), Catch::Contains("one number, and up to two percentages"));
  CHECK_THROWS_WITH(Easing::parse("linear(0 1, 1)"), Catch::Contains("two numbers in '0 1'"));
  CHECK_THROWS_WITH(Easing::parse("linear(0, 1"), Catch::Contains("')' is expected at the end"));
}
