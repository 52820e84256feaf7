#include "apsidon/motion/spring.hpp"

#include <algorithm>

#include "geometry/options.hpp"
#include "motion/fields.hpp"
#include "motion/spring_shares.hpp"

namespace apsidon {

void check(const Spring& spring) { geometry_detail::check_options("spring", spring); }

namespace motion_detail {

SpringShares shares_of(const Spring& spring, float seconds) {
  return SpringForm(spring).at(std::max(seconds, 0.0f));
}

float settle_seconds(const Spring& spring, float distance, float velocity, float near) {
  const SpringForm form(spring);
  const double x = std::abs(double{distance});
  const double v = std::abs(double{velocity});
  const double rate = form.rate;
  // The envelope is (a + b t) e^(-rate t).
  double a = x;
  double b = 0;
  if (form.kind == SpringForm::Kind::under) a = x + (v + rate * x) / double{form.angular};
  if (form.kind == SpringForm::Kind::critical) b = v + rate * x;
  if (form.kind == SpringForm::Kind::over) {
    // Two bounds hold, and where the roots are nearly the same only the second is of use.
    a = (double{form.angular} * x + v) / (double{form.angular} - rate);
    if (form.angular < 1.5f * form.rate) {
      a = x;
      b = v + rate * x;
    }
  }
  if (b == 0) return a > double{near} ? static_cast<float>(std::log(a / double{near}) / rate) : 0;
  // t = log((a + b t) / near) / rate, from below: each round comes nearer, and the last is rounded up.
  double t = 0;
  for (int i = 0; i < 40; ++i) {
    const double next = std::max(std::log((a + b * t) / double{near}) / rate, 0.0);
    if (next - t < 1e-6) break;
    t = next;
  }
  return static_cast<float>(t + 1e-5);
}

}  // namespace motion_detail

}  // namespace apsidon
