#include "motion/clock.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace apsidon::motion_detail {

void Clock::advance_to(double time) {
  if (time > now_) now_ = time;
}

/// The line so far ends here, and the next begins where it is.
void Clock::begin_anew() {
  local_ = own();
  from_ = now_;
}

void Clock::set_now(double now) {
  begin_anew();
  from_ = now_ = now;
}

void Clock::hold(bool held) {
  if (held_ == held) return;
  begin_anew();
  held_ = held;
}

bool Clock::set_speed(double speed) {
  if (!(speed >= 0 && speed <= 1000)) return false;
  begin_anew();
  speed_ = speed;
  return true;
}

void Countdown::set(double seconds) {
  *this = Countdown{};
  length_ = left_ = std::isfinite(seconds) && seconds > 0 ? seconds : 0;
}

void Countdown::start(double now) {
  if (started_ || over_) return;
  started_ = true;
  ends_ = now + left_;
}

void Countdown::pause(double now) {
  if (!running()) return;
  left_ = left(now);
  paused_ = true;
}

void Countdown::go_on(double now) {
  if (!std::exchange(paused_, false)) return;
  ends_ = now + left_;
}

void Countdown::add(double seconds, double now) {
  if (over_ || !std::isfinite(seconds)) return;
  if (running()) {
    ends_ = std::max(ends_ + seconds, now);
  } else {
    left_ = std::max(left_ + seconds, 0.0);
  }
}

bool Countdown::run_out(double now) {
  if (!running() || now < ends_) return false;
  over_ = true;
  return true;
}

double Countdown::left(double now) const {
  if (over_) return 0;
  return running() ? std::max(ends_ - now, 0.0) : left_;
}

double Countdown::share_left(double now) const {
  return length_ > 0 ? std::min(left(now) / length_, 1.0) : 0;
}

}  // namespace apsidon::motion_detail
