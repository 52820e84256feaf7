// The table's clock: what is due when, timers and countdowns.
#include <algorithm>
#include <cmath>
#include <limits>

#include "play/impl.hpp"

namespace apsidon {
namespace {

constexpr double tilt_stays = 0.06;  // seconds after which a pointer that tells nothing stands still

}  // namespace

/// The next time on the table's clock at which something begins, ends or rings.
double Playfield::Impl::due() const {
  double next = std::numeric_limits<double>::infinity();
  for (const auto& p : performances) {
    if (p->over) continue;
    for (const Node& node : p->nodes) {
      if (node.begun && !node.over) next = std::min(next, motion.when(p->clock, node.ends));
    }
  }
  for (const Timer& timer : timers) next = std::min(next, timer.rings);
  for (const RunningCountdown& c : countdowns) next = std::min(next, c.countdown.ends());
  if (compare_at) next = std::min(next, *compare_at);
  return next;
}

/// The next time of the inputs at which the player's hand does something by doing nothing.
double Playfield::Impl::input_due() const {
  double next = std::min(gestures.due(), hover_due());
  each_carry([&](const Carry& c) {
    if (c.tilts) next = std::min(next, c.time + tilt_stays);
  });
  return next;
}

void Playfield::Impl::run_input_due(double time) {
  const auto straighten = [&](Carry& c) {
    if (!c.tilts || c.time + tilt_stays > time) return;
    c.tilts = false;
    for (const CardId id : setup.table.cards_of(c.run)) motion.lean(slot(id), {}, options.feel.tilt);
  };
  straighten(carry);
  std::for_each(other_drags.begin(), other_drags.end(), straighten);
  const auto said = gestures.advance_to(time);
  for (std::size_t i = 0; i < said.size(); ++i) (void)handle(said[i]);
  run_hover_due(time);
}

void Playfield::Impl::run_due() {
  const double now = own_now();
  const double time = told_at(now);
  // By number: what begins now may add performances.
  for (std::size_t i = 0; i < performances.size(); ++i) {
    if (!performances[i]->over) end_nodes(*performances[i]);
  }
  std::erase_if(timers, [&](const Timer& timer) {
    if (timer.rings > now) return false;
    note({.kind = EventKind::rang, .time = time, .timer = timer.id});
    return true;
  });
  if (compare_at && *compare_at <= now) compare(time);
  for (std::size_t i = 0; i < countdowns.size(); ++i) {
    if (!countdowns[i].countdown.run_out(now)) continue;
    note({.kind = EventKind::time_up, .time = time, .countdown = {static_cast<std::uint32_t>(i + 1)}});
  }
}

/// The player's first move starts the countdowns that wait for it.
void Playfield::Impl::first_move() {
  for (RunningCountdown& c : countdowns) {
    if (c.at_first_move) c.countdown.start(own_now());
  }
}

bool Playfield::held_for(std::string_view reason) const {
  const auto& holds = impl_->clock.holds();
  return std::find(holds.begin(), holds.end(), reason) != holds.end();
}

void Playfield::set_speed(double speed) {
  if (!impl_->clock.set_speed(speed)) ++impl_->ignored;
}

TimerId Playfield::start_timer(double seconds) {
  const double wait = seconds > 0 ? std::min(seconds, 1e6) : 0;
  const TimerId id{++impl_->last_timer};
  impl_->timers.push_back({id, impl_->own_now() + wait});
  return id;
}

void Playfield::stop_timer(TimerId id) {
  std::erase_if(impl_->timers, [&](const Impl::Timer& timer) { return timer.id == id; });
}

CountdownId Playfield::add_countdown(double seconds, bool at_first_move) {
  impl_->countdowns.push_back({Countdown(seconds), at_first_move});
  return {static_cast<std::uint32_t>(impl_->countdowns.size())};
}

namespace {

template <class Countdowns>
auto* find_in(Countdowns& countdowns, CountdownId id) {
  return id && id.value <= countdowns.size() ? &countdowns[id.value - 1].countdown : nullptr;
}

}  // namespace

void Playfield::start(CountdownId id) {
  if (Countdown* c = find_in(impl_->countdowns, id)) c->start(impl_->own_now());
}

void Playfield::add_time(CountdownId id, double seconds) {
  if (Countdown* c = find_in(impl_->countdowns, id)) c->add(seconds, impl_->own_now());
}

void Playfield::set_length(CountdownId id, double seconds) {
  if (Countdown* c = find_in(impl_->countdowns, id)) c->set(seconds);
}

double Playfield::seconds_left(CountdownId id) const {
  const Countdown* c = find_in(impl_->countdowns, id);
  return c ? c->left(impl_->own_now()) : 0;
}

double Playfield::share_left(CountdownId id) const {
  const Countdown* c = find_in(impl_->countdowns, id);
  return c ? c->share_left(impl_->own_now()) : 0;
}

}  // namespace apsidon
