#include "play/schedule.hpp"

#include <algorithm>
#include <limits>
#include <utility>

namespace apsidon::play_detail {

void Schedule::stop_timer(TimerId id) {
  std::erase_if(timers_, [&](const Timer& timer) { return timer.id == id; });
}

void Schedule::add_countdown(CountdownId id, double seconds, bool at_first_move) {
  countdowns_.push_back({id, Countdown(seconds), at_first_move});
}

const Countdown* Schedule::countdown(CountdownId id) const {
  const auto it = std::find_if(countdowns_.begin(), countdowns_.end(),
                               [&](const NumberedCountdown& c) { return c.id == id; });
  return it == countdowns_.end() ? nullptr : &it->countdown;
}

Countdown* Schedule::countdown(CountdownId id) {
  return const_cast<Countdown*>(std::as_const(*this).countdown(id));
}

void Schedule::start_waiting(double own) {
  for (NumberedCountdown& c : countdowns_) {
    if (c.at_first_move) c.countdown.start(own);
  }
}

double Schedule::due() const {
  double next = std::numeric_limits<double>::infinity();
  for (const Timer& timer : timers_) next = std::min(next, timer.rings);
  for (const NumberedCountdown& c : countdowns_) next = std::min(next, c.countdown.ends());
  return next;
}

void Schedule::ring(double own, double time, EventQueue& events) {
  std::erase_if(timers_, [&](const Timer& timer) {
    if (timer.rings > own) return false;
    events.tell({.kind = EventKind::rang, .time = time, .timer = timer.id});
    return true;
  });
  for (NumberedCountdown& c : countdowns_) {
    if (!c.countdown.run_out(own)) continue;
    events.tell({.kind = EventKind::time_up, .time = time, .countdown = c.id});
  }
}

}  // namespace apsidon::play_detail
