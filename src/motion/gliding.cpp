#include "apsidon/motion/gliding.hpp"
#include "motion/inside.hpp"
#include "motion/spring_shares.hpp"

#include <algorithm>
#include <cmath>

namespace apsidon {
namespace {

/// A curve that begins or is steeper than this, of its height in its time, is upright: it has no velocity.
constexpr float steepest = 1e4f;

float sane(float slope) { return std::abs(slope) < steepest ? slope : 0; }

}  // namespace

void Gliding::put(float value) {
  to_ = value;
  ends_ = -1e300;
}

void Gliding::go(float goal, const Glide& glide, double now) {
  const bool rests = !(now < ends_);
  const EasedValue left = moment_at(now);
  if (rests && goal == to_) return;
  from_ = left.value;
  to_ = goal;
  velocity_ = rests ? 0 : left.slope;
  curve_ = glide.curve;
  spring_ = glide.spring;
  start_ = now;
  seconds_ = std::max(motion_detail::travel_seconds(glide), 0.0f);
  if (spring_) {
    ends_ = now + double{motion_detail::settle_seconds(*spring_, from_ - to_, velocity_, nearness_)};
    return;
  }
  ends_ = now + double{seconds_};
  if (!rests && seconds_ > 0) velocity_ -= sane(curve_.at(0).slope) * (to_ - from_) / seconds_;
}

EasedValue Gliding::moment_at(double time) const {
  if (!(time < ends_)) return {to_, 0};
  const auto since = static_cast<float>(std::max(time - start_, 0.0));
  if (spring_) {
    const auto s = motion_detail::shares_of(*spring_, since);
    const float away = from_ - to_;
    return {to_ + away * s.of_distance + velocity_ * s.of_velocity,
            away * s.velocity_of_distance + velocity_ * s.velocity_of_velocity};
  }
  const float u = since / seconds_;
  const EasedValue curve = curve_.at(u);
  const float way = to_ - from_;
  const float rest = 1 - u;
  return {from_ + way * curve.value + velocity_ * since * rest * rest,
          way * sane(curve.slope) / seconds_ + velocity_ * rest * (1 - 3 * u)};
}

float Gliding::at(double time) const { return moment_at(time).value; }
float Gliding::velocity_at(double time) const { return moment_at(time).slope; }

float Gliding::passed_at(double time) const {
  if (!(time < ends_) || !(seconds_ > 0)) return 1;
  return std::clamp(static_cast<float>((time - start_) / double{seconds_}), 0.0f, 1.0f);
}

}  // namespace apsidon
