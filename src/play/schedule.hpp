#pragma once
// The table's clock, its timers and countdowns. Not installed.
#include <compare>
#include <cstdint>
#include <map>
#include <set>
#include <string_view>
#include <vector>

#include "apsidon/motion/clock.hpp"
#include "play/event_queue.hpp"
#include "play/reasons.hpp"

namespace apsidon::play_detail {

/// Each of these costs the logarithm of how many there are.
///
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

  void start_timer(TimerId id, double rings);
  void stop_timer(TimerId id);
  void add_countdown(CountdownId id, double seconds, bool at_first_move);
  /// Null for a stale id.
  [[nodiscard]] const Countdown* countdown(CountdownId id) const;
  [[nodiscard]] bool is_held(CountdownId id) const;
  // Of a stale id they change nothing.
  void start_countdown(CountdownId id, double own);
  void extend_countdown(CountdownId id, double seconds, double own);
  void reset_countdown(CountdownId id, double seconds);
  /// Stands still until this reason, and every other, is released.
  void hold_countdown(CountdownId id, std::string_view reason, double own);
  void release_countdown(CountdownId id, std::string_view reason, double own);
  /// It is gone, and never runs out.
  void remove_countdown(CountdownId id);
  /// The player's first move starts the countdowns that wait for it.
  void start_waiting(double own);

  /// The next time on the table's clock at which something rings or runs out; infinity when nothing does.
  [[nodiscard]] double due() const;
  /// Tells of what is due by `own`.
  void ring(double own, double time, EventQueue& events);

 private:
  /// What is due: timers before countdowns that are due with them, each in the order of their numbers.
  enum class Kind : std::uint8_t { timer, countdown };
  struct Due {
    double time;
    Kind kind;
    std::uint32_t id;

    friend auto operator<=>(const Due&, const Due&) = default;
  };
  template <class With>
  void change(CountdownId id, With with);

  struct Held {
    Countdown countdown;
    Reasons reasons = {};
  };

  Clock clock_;  // the table's, over the time of the inputs
  std::map<TimerId, double> timers_ = {};
  std::map<CountdownId, Held> countdowns_ = {};
  std::set<CountdownId> at_first_move_ = {};
  std::vector<CountdownId> wait_for_a_move_ = {};  // of these
  std::set<Due> dues_ = {};
};

}  // namespace apsidon::play_detail
