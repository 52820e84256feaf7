#pragma once
// The table's clock, its timers and countdowns. Not installed.
#include <span>
#include <vector>

#include "apsidon/motion/clock.hpp"
#include "play/event_queue.hpp"

namespace apsidon::play_detail {

/// Invariant: a timer rings once and a countdown runs out once, each at its own time; `due()` is never later
/// than the next of them.
class Schedule {
 public:
  explicit Schedule(double start) : clock_(start, start) {}
  /// Goes by a clock that runs already.
  explicit Schedule(const Clock& clock) : clock_(clock) {}

  [[nodiscard]] Clock& clock() { return clock_; }
  [[nodiscard]] const Clock& clock() const { return clock_; }
  [[nodiscard]] double now() const { return clock_.now(); }

  void start_timer(TimerId id, double rings) { timers_.push_back({id, rings}); }
  void stop_timer(TimerId id);
  void add_countdown(CountdownId id, double seconds, bool at_first_move);
  /// Null for a stale id.
  [[nodiscard]] Countdown* countdown(CountdownId id);
  [[nodiscard]] const Countdown* countdown(CountdownId id) const;
  /// The player's first move starts the countdowns that wait for it.
  void start_waiting(double own);

  /// The next time on the table's clock at which something rings or runs out; infinity when nothing does.
  [[nodiscard]] double due() const;
  /// Tells of what is due by `own`.
  void ring(double own, double time, EventQueue& events);

 private:
  struct Timer {
    TimerId id;
    double rings;  // on the table's clock
  };
  struct NumberedCountdown {
    CountdownId id;
    Countdown countdown;
    bool at_first_move;
  };

  Clock clock_;  // the table's, over the time of the inputs
  std::vector<Timer> timers_ = {};
  std::vector<NumberedCountdown> countdowns_ = {};
};

}  // namespace apsidon::play_detail
