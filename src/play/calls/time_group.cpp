#include "apsidon/play/time_group.hpp"

#include <algorithm>

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

bool TimeGroup::at_rest() const { return field()->at_rest(); }
double TimeGroup::settles_at() const { return field()->settles_at(); }

bool TimeGroup::stopped_for(std::string_view reason) const {
  const auto all = reasons();
  return std::find(all.begin(), all.end(), reason) != all.end();
}

std::span<const std::string> TimeGroup::reasons() const { return field()->schedule.holds(); }
double TimeGroup::speed() const { return field()->schedule.clock().speed(); }
double TimeGroup::cards_speed() const { return field()->schedule.cards_speed(); }

double TimeGroup::seconds_left(CountdownId id) const {
  const Countdown* countdown = field()->schedule.countdown(id);
  return countdown ? countdown->left(field()->schedule.own()) : 0;
}

double TimeGroup::share_left(CountdownId id) const {
  const Countdown* countdown = field()->schedule.countdown(id);
  return countdown ? countdown->share_left(field()->schedule.own()) : 0;
}

bool TimeGroup::is_held(CountdownId id) const { return field()->schedule.is_held(id); }

Verdict TimeGroup::hold(std::string_view reason) {
  return field()->call(ReasonInput{.what = ReasonInput::What::hold, .reason = std::string(reason)}).verdict;
}
Verdict TimeGroup::release(std::string_view reason) {
  return field()
      ->call(ReasonInput{.what = ReasonInput::What::release, .reason = std::string(reason)})
      .verdict;
}
Verdict TimeGroup::set_speed(double speed) {
  return field()->call(ClockInput{.what = ClockInput::What::speed, .number = speed}).verdict;
}
Verdict TimeGroup::set_cards_speed(double speed) {
  return field()->call(ClockInput{.what = ClockInput::What::cards_speed, .number = speed}).verdict;
}
CountdownId TimeGroup::start_timer(double seconds) {
  const auto id = field()->call(ClockInput{.what = ClockInput::What::start_timer, .number = seconds}).id;
  return {static_cast<std::uint32_t>(id)};
}
CountdownId TimeGroup::add_countdown(double seconds, bool at_first_move) {
  const ClockInput add{.what = ClockInput::What::add, .number = seconds, .at_first_move = at_first_move};
  return {static_cast<std::uint32_t>(field()->call(add).id)};
}
Verdict TimeGroup::start_countdown(CountdownId id) {
  return field()->call(ClockInput{.what = ClockInput::What::start, .countdown = id}).verdict;
}
Verdict TimeGroup::extend_countdown(CountdownId id, double seconds) {
  return field()
      ->call(ClockInput{.what = ClockInput::What::extend, .number = seconds, .countdown = id})
      .verdict;
}
Verdict TimeGroup::reset_countdown(CountdownId id, double seconds) {
  return field()
      ->call(ClockInput{.what = ClockInput::What::reset, .number = seconds, .countdown = id})
      .verdict;
}
Verdict TimeGroup::hold_countdown(CountdownId id, std::string_view reason) {
  return field()
      ->call(ClockInput{.what = ClockInput::What::hold, .reason = std::string(reason), .countdown = id})
      .verdict;
}
Verdict TimeGroup::release_countdown(CountdownId id, std::string_view reason) {
  return field()
      ->call(ClockInput{.what = ClockInput::What::release, .reason = std::string(reason), .countdown = id})
      .verdict;
}
Verdict TimeGroup::stop_countdown(CountdownId id) {
  return field()->call(ClockInput{.what = ClockInput::What::stop, .countdown = id}).verdict;
}

}  // namespace apsidon
