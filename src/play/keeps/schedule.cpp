#include "play/keeps/schedule.hpp"

#include <limits>
#include <utility>

namespace apsidon::play_detail {

void Schedule::add_countdown(CountdownId id, double seconds, bool at_first_move) {
  countdowns_.emplace(id, Held{.countdown = Countdown(seconds)});
  if (!at_first_move) return;
  at_first_move_.insert(id);
  wait_for_a_move_.push_back(id);
}

const Countdown* Schedule::countdown(CountdownId id) const {
  const auto it = countdowns_.find(id);
  return it == countdowns_.end() ? nullptr : &it->second.countdown;
}

double Schedule::steps_left(CountdownId id, double steps) const {
  const Countdown* c = countdown(id);
  return c ? std::ceil(c->share_left(own_) * steps - 1e-9) : 0;
}

double Schedule::next_step(CountdownId id, double steps) const {
  const Countdown* c = countdown(id);
  if (!c || !c->running()) return std::numeric_limits<double>::infinity();
  return c->ends() - c->length() * (steps_left(id, steps) - 1) / steps;
}

/// Changes a countdown, and when it is due with it.
template <class With>
bool Schedule::change(CountdownId id, With with) {
  const auto it = countdowns_.find(id);
  if (it == countdowns_.end()) return false;
  Countdown& countdown = it->second.countdown;
  if (countdown.running()) dues_.erase({countdown.ends(), id});
  with(it->second);
  if (countdown.running()) dues_.insert({countdown.ends(), id});
  return true;
}

void Schedule::start_timer(CountdownId id, double seconds, double own) {
  countdowns_.emplace(id, Held{.countdown = Countdown(seconds), .once = true});
  ++timers_;
  (void)start_countdown(id, own);
}

bool Schedule::start_countdown(CountdownId id, double own) {
  return change(id, [&](Held& held) {
    held.countdown.start(own);
    if (held.reasons.any()) held.countdown.pause(own);
  });
}
bool Schedule::extend_countdown(CountdownId id, double seconds, double own) {
  return change(id, [&](Held& held) { held.countdown.add(seconds, own); });
}
bool Schedule::reset_countdown(CountdownId id, double seconds) {
  if (at_first_move_.contains(id)) wait_for_a_move_.push_back(id);
  return change(id, [&](Held& held) { held.countdown.set(seconds); });
}

std::span<const std::string> Schedule::reasons_of(CountdownId id) const {
  const auto it = countdowns_.find(id);
  return it == countdowns_.end() ? std::span<const std::string>{} : it->second.reasons.all();
}

bool Schedule::is_held(CountdownId id) const {
  const auto it = countdowns_.find(id);
  return it != countdowns_.end() && it->second.reasons.any();
}

bool Schedule::hold_countdown(CountdownId id, std::string_view reason, double own) {
  return change(id, [&](Held& held) {
    held.reasons.give(reason);
    held.countdown.pause(own);
  });
}
bool Schedule::release_countdown(CountdownId id, std::string_view reason, double own) {
  return change(id, [&](Held& held) {
    held.reasons.release(reason);
    if (!held.reasons.any()) held.countdown.go_on(own);
  });
}
bool Schedule::remove_countdown(CountdownId id) {
  if (!change(id, [](Held& held) { held.countdown.set(0); })) return false;
  if (countdowns_.at(id).once) --timers_;
  countdowns_.erase(id);
  at_first_move_.erase(id);
  std::erase(wait_for_a_move_, id);
  return true;
}

void Schedule::start_waiting(double own) {
  for (const CountdownId id : std::exchange(wait_for_a_move_, {})) (void)start_countdown(id, own);
}

double Schedule::due() const {
  return dues_.empty() ? std::numeric_limits<double>::infinity() : dues_.begin()->time;
}

void Schedule::ring(double own, double time, EventQueue& events) {
  while (due() <= own) {
    const CountdownId id = dues_.begin()->id;
    (void)change(id, [&](Held& held) { (void)held.countdown.run_out(own); });
    const bool once = countdowns_.at(id).once;
    events.tell({.kind = once ? EventKind::rang : EventKind::time_up, .time = time, .countdown = id});
    if (once) (void)remove_countdown(id);
  }
}

}  // namespace apsidon::play_detail
