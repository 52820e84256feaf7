#include "apsidon/play/time_view.hpp"

#include <algorithm>

#include "play/impl.hpp"

namespace apsidon {

bool TimeView::at_rest() const {
  return field_->traffic.motion().awake_count() == 0 && field_->hand.empty() && !field_->performances.any();
}

double TimeView::settles_at() const {
  return std::max(field_->schedule.clock().when(field_->traffic.motion().settles_at()), field_->now());
}

bool TimeView::stopped_for(std::string_view reason) const {
  const auto all = reasons();
  return std::find(all.begin(), all.end(), reason) != all.end();
}

std::span<const std::string> TimeView::reasons() const { return field_->schedule.clock().holds(); }
double TimeView::speed() const { return field_->schedule.clock().speed(); }

double TimeView::seconds_left(CountdownId id) const {
  const Countdown* countdown = field_->schedule.countdown(id);
  return countdown ? countdown->left(field_->traffic.now()) : 0;
}

double TimeView::share_left(CountdownId id) const {
  const Countdown* countdown = field_->schedule.countdown(id);
  return countdown ? countdown->share_left(field_->traffic.now()) : 0;
}

void TimeCalls::hold(std::string_view reason) {
  field_->record(ReasonInput{ReasonInput::What::hold, std::string(reason), field_->now()});
  field_->schedule.clock().hold(reason);
}

void TimeCalls::release(std::string_view reason) {
  field_->record(ReasonInput{ReasonInput::What::release, std::string(reason), field_->now()});
  field_->schedule.clock().release(reason);
}

void TimeCalls::set_speed(double speed) {
  if (!field_->schedule.clock().set_speed(speed)) ++field_->client.ignored;
}

TimerId TimeCalls::start_timer(double seconds) {
  const double wait = seconds > 0 ? std::min(seconds, 1e6) : 0;
  const TimerId id = field_->ids.next_timer();
  field_->schedule.start_timer(id, field_->traffic.now() + wait);
  return id;
}

void TimeCalls::stop_timer(TimerId timer) { field_->schedule.stop_timer(timer); }

CountdownId TimeCalls::add_countdown(double seconds, bool at_first_move) {
  const CountdownId id = field_->ids.next_countdown();
  field_->schedule.add_countdown(id, seconds, at_first_move);
  return id;
}

void TimeCalls::start_countdown(CountdownId id) {
  if (Countdown* countdown = field_->schedule.countdown(id)) countdown->start(field_->traffic.now());
}

void TimeCalls::extend_countdown(CountdownId id, double seconds) {
  if (Countdown* countdown = field_->schedule.countdown(id)) countdown->add(seconds, field_->traffic.now());
}

void TimeCalls::reset_countdown(CountdownId id, double seconds) {
  if (Countdown* countdown = field_->schedule.countdown(id)) countdown->set(seconds);
}

}  // namespace apsidon
