#include "play/schedule.hpp"

#include <limits>
#include <utility>

namespace apsidon::play_detail {

void Schedule::start_timer(TimerId id, double rings) {
  timers_.emplace(id, rings);
  dues_.insert({rings, Kind::timer, id.value});
}

void Schedule::stop_timer(TimerId id) {
  const auto timer = timers_.find(id);
  if (timer == timers_.end()) return;
  dues_.erase({timer->second, Kind::timer, id.value});
  timers_.erase(timer);
}

void Schedule::add_countdown(CountdownId id, double seconds, bool at_first_move) {
  countdowns_.emplace(id, Countdown(seconds));
  if (!at_first_move) return;
  at_first_move_.insert(id);
  wait_for_a_move_.push_back(id);
}

const Countdown* Schedule::countdown(CountdownId id) const {
  const auto it = countdowns_.find(id);
  return it == countdowns_.end() ? nullptr : &it->second;
}

/// Changes a countdown, and when it is due with it.
template <class With>
void Schedule::change(CountdownId id, With with) {
  const auto it = countdowns_.find(id);
  if (it == countdowns_.end()) return;
  Countdown& countdown = it->second;
  if (countdown.running()) dues_.erase({countdown.ends(), Kind::countdown, id.value});
  with(countdown);
  if (countdown.running()) dues_.insert({countdown.ends(), Kind::countdown, id.value});
}

void Schedule::start_countdown(CountdownId id, double own) {
  change(id, [&](Countdown& countdown) { countdown.start(own); });
}
void Schedule::extend_countdown(CountdownId id, double seconds, double own) {
  change(id, [&](Countdown& countdown) { countdown.add(seconds, own); });
}
void Schedule::reset_countdown(CountdownId id, double seconds) {
  change(id, [&](Countdown& countdown) { countdown.set(seconds); });
  if (at_first_move_.contains(id)) wait_for_a_move_.push_back(id);
}

void Schedule::start_waiting(double own) {
  for (const CountdownId id : std::exchange(wait_for_a_move_, {})) start_countdown(id, own);
}

double Schedule::due() const {
  return dues_.empty() ? std::numeric_limits<double>::infinity() : dues_.begin()->time;
}

void Schedule::ring(double own, double time, EventQueue& events) {
  while (due() <= own) {
    const Due due = *dues_.begin();
    if (due.kind == Kind::timer) {
      stop_timer({due.id});
      events.tell({.kind = EventKind::rang, .time = time, .timer = {due.id}});
    } else {
      change({due.id}, [&](Countdown& countdown) { (void)countdown.run_out(own); });
      events.tell({.kind = EventKind::time_up, .time = time, .countdown = {due.id}});
    }
  }
}

}  // namespace apsidon::play_detail
