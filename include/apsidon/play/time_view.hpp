#pragma once
#include <span>
#include <string>
#include <string_view>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/event.hpp"

namespace apsidon {

/// The table's clock and what goes by it: `field.time().at_rest()`. Cards, timers and countdowns go by that
/// clock, which can be stopped and sped up. A stale id is 0.
class APSIDON_CORE_EXPORT TimeView {
 public:
  explicit TimeView(const play_detail::Impl& field) : field_(&field) {}

  /// Whether nothing moves, runs, is held or is to be compared.
  [[nodiscard]] bool at_rest() const;
  /// When all will be at rest if nobody does anything, what performances have still to do counted; `now()`
  /// when all is, infinity when something stands still. O(cards awake); while a performance runs it is found
  /// by trying on a copy.
  [[nodiscard]] double settles_at() const;
  [[nodiscard]] bool stopped_for(std::string_view reason) const;
  /// The reasons that stop the clock, in the order in which they were given. Valid until the next call of the
  /// playfield that is not const.
  [[nodiscard]] std::span<const std::string> reasons() const;
  [[nodiscard]] double speed() const;
  [[nodiscard]] double cards_speed() const;
  [[nodiscard]] double seconds_left(CountdownId countdown) const;
  /// Of the length that it was given last, 0 to 1.
  [[nodiscard]] double share_left(CountdownId countdown) const;
  /// Whether a reason of its own holds it.
  [[nodiscard]] bool is_held(CountdownId countdown) const;

 private:
  const play_detail::Impl* field_;
};

class APSIDON_CORE_EXPORT TimeCalls : public TimeView {
 public:
  explicit TimeCalls(play_detail::Impl& field) : TimeView(field), field_(&field) {}

  /// Stops the clock of the table until this reason, and every other, is released.
  void hold(std::string_view reason);
  void release(std::string_view reason);
  /// How fast the clock of the table goes, [0, 1000]; another number is ignored and counted.
  void set_speed(double speed);
  /// How fast cards and performances go on that clock, [0, 1000]: timers and countdowns go on as they do.
  void set_cards_speed(double speed);
  /// An event `rang` after so many seconds, [0, 1e6]; a number that is not is taken as 0.
  TimerId start_timer(double seconds);
  void stop_timer(TimerId timer);
  /// A countdown of this length; `at_first_move`: it starts by itself when the player first moves a card.
  CountdownId add_countdown(double seconds, bool at_first_move = false);
  void start_countdown(CountdownId countdown);
  void extend_countdown(CountdownId countdown, double seconds);
  /// A new length, not started: a new round.
  void reset_countdown(CountdownId countdown, double seconds);
  /// It stands still until this reason, and every other of its own, is released; the clock goes on.
  void hold_countdown(CountdownId countdown, std::string_view reason);
  void release_countdown(CountdownId countdown, std::string_view reason);
  /// It is gone, and never runs out.
  void stop_countdown(CountdownId countdown);

 private:
  play_detail::Impl* field_;
};

}  // namespace apsidon
