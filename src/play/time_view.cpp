#include "apsidon/play/time_view.hpp"

#include <algorithm>

#include "play/impl.hpp"

namespace apsidon {

bool TimeView::at_rest() const { return field_->at_rest(); }
double TimeView::settles_at() const { return field_->settles_at(); }

bool TimeView::stopped_for(std::string_view reason) const {
  const auto all = reasons();
  return std::find(all.begin(), all.end(), reason) != all.end();
}

std::span<const std::string> TimeView::reasons() const { return field_->schedule.clock().holds(); }
double TimeView::speed() const { return field_->schedule.clock().speed(); }
double TimeView::cards_speed() const { return field_->schedule.cards_speed(); }

double TimeView::seconds_left(CountdownId id) const {
  const Countdown* countdown = field_->schedule.countdown(id);
  return countdown ? countdown->left(field_->schedule.own()) : 0;
}

double TimeView::share_left(CountdownId id) const {
  const Countdown* countdown = field_->schedule.countdown(id);
  return countdown ? countdown->share_left(field_->schedule.own()) : 0;
}

bool TimeView::is_held(CountdownId id) const { return field_->schedule.is_held(id); }

void TimeCalls::hold(std::string_view reason) {
  (void)field_->call(ReasonInput{.what = ReasonInput::What::hold, .reason = std::string(reason)});
}
void TimeCalls::release(std::string_view reason) {
  (void)field_->call(ReasonInput{.what = ReasonInput::What::release, .reason = std::string(reason)});
}
Verdict TimeCalls::set_speed(double speed) {
  return field_->call(ClockInput{.what = ClockInput::What::speed, .number = speed}).verdict;
}
Verdict TimeCalls::set_cards_speed(double speed) {
  return field_->call(ClockInput{.what = ClockInput::What::cards_speed, .number = speed}).verdict;
}
TimerId TimeCalls::start_timer(double seconds) {
  const auto id = field_->call(ClockInput{.what = ClockInput::What::start_timer, .number = seconds}).id;
  return {static_cast<std::uint32_t>(id)};
}
Verdict TimeCalls::stop_timer(TimerId timer) {
  return field_->call(ClockInput{.what = ClockInput::What::stop_timer, .timer = timer}).verdict;
}
CountdownId TimeCalls::add_countdown(double seconds, bool at_first_move) {
  const ClockInput add{.what = ClockInput::What::add, .number = seconds, .at_first_move = at_first_move};
  return {static_cast<std::uint32_t>(field_->call(add).id)};
}
Verdict TimeCalls::start_countdown(CountdownId id) {
  return field_->call(ClockInput{.what = ClockInput::What::start, .countdown = id}).verdict;
}
Verdict TimeCalls::extend_countdown(CountdownId id, double seconds) {
  return field_->call(ClockInput{.what = ClockInput::What::extend, .number = seconds, .countdown = id})
      .verdict;
}
Verdict TimeCalls::reset_countdown(CountdownId id, double seconds) {
  return field_->call(ClockInput{.what = ClockInput::What::reset, .number = seconds, .countdown = id})
      .verdict;
}
Verdict TimeCalls::hold_countdown(CountdownId id, std::string_view reason) {
  return field_
      ->call(ClockInput{.what = ClockInput::What::hold, .reason = std::string(reason), .countdown = id})
      .verdict;
}
Verdict TimeCalls::release_countdown(CountdownId id, std::string_view reason) {
  return field_
      ->call(ClockInput{.what = ClockInput::What::release, .reason = std::string(reason), .countdown = id})
      .verdict;
}
Verdict TimeCalls::stop_countdown(CountdownId id) {
  return field_->call(ClockInput{.what = ClockInput::What::remove, .countdown = id}).verdict;
}

}  // namespace apsidon
