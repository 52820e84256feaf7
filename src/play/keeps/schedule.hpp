#pragma once
// The table's clock, its timers and countdowns. Not installed.
#include <algorithm>
#include <compare>
#include <cstdint>
#include <map>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "motion/clock.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/reasons.hpp"

namespace apsidon::play_detail {

using motion_detail::Clock;
using motion_detail::Countdown;

/// Each of these costs the logarithm of how many there are.
///
/// Invariant: a countdown runs out once, at its own time; `due()` is never later
/// than the next of them.
class Schedule {
 public:
  explicit Schedule(double start) : clock_(start, start), cards_(start, start), own_(start) {}
  /// Nothing is due yet, and its clocks go on from those of another.
  [[nodiscard]] static Schedule after(const Schedule& other) {
    Schedule next = other;
    next.countdowns_.clear();
    next.timers_ = 0;
    next.at_first_move_.clear();
    next.wait_for_a_move_.clear();
    next.dues_.clear();
    return next;
  }

  [[nodiscard]] Clock& clock() { return clock_; }
  [[nodiscard]] const Clock& clock() const { return clock_; }
  [[nodiscard]] double now() const { return clock_.now(); }
  /// The table's clock stands until this reason, and every other, is released.
  void hold(std::string_view reason) {
    holds_.give(reason);
    clock_.hold(true);
  }
  void release(std::string_view reason) {
    holds_.release(reason);
    clock_.hold(holds_.any());
  }
  [[nodiscard]] std::span<const std::string> holds() const { return holds_.all(); }
  /// What the table's clock shows. The cards go by another, that goes over it at a speed of its own.
  [[nodiscard]] double own() const { return own_; }
  [[nodiscard]] double cards_at(double own) const { return cards_.at(own); }
  /// When the cards' clock shows this, on the table's.
  [[nodiscard]] double cards_when(double cards) const { return cards_.when(cards); }
  [[nodiscard]] double cards_speed() const { return cards_.speed(); }
  void set_cards_speed(double speed) { (void)cards_.set_speed(speed); }
  /// Goes on to a time of the inputs, at which the table's clock shows `own`.
  void advance_to(double time, double own) {
    clock_.advance_to(time);
    own_ = std::max(own, own_);
    cards_.advance_to(own_);
  }

  /// Those of the countdowns that are gone when they have run out, and the others.
  [[nodiscard]] std::size_t timers() const { return timers_; }
  [[nodiscard]] std::size_t countdowns() const { return countdowns_.size() - timers_; }
  /// For which a countdown stands still; none of a stale id.
  [[nodiscard]] std::span<const std::string> reasons_of(CountdownId id) const;
  /// A countdown that runs at once, and is gone when it has run out.
  void start_timer(CountdownId id, double seconds, double own);
  void add_countdown(CountdownId id, double seconds, bool at_first_move);
  /// Null for a stale id.
  [[nodiscard]] const Countdown* countdown(CountdownId id) const;
  [[nodiscard]] bool is_held(CountdownId id) const;
  /// The share of a countdown that is left, in so many steps, rounded up; 0 for a stale id.
  [[nodiscard]] double steps_left(CountdownId id, double steps) const;
  /// When that is another, on the table's clock; infinity while it stands still.
  [[nodiscard]] double next_step(CountdownId id, double steps) const;
  // Of a stale id they change nothing, and return false.
  bool start_countdown(CountdownId id, double own);
  bool extend_countdown(CountdownId id, double seconds, double own);
  bool reset_countdown(CountdownId id, double seconds);
  /// Stands still until this reason, and every other, is released.
  bool hold_countdown(CountdownId id, std::string_view reason, double own);
  bool release_countdown(CountdownId id, std::string_view reason, double own);
  /// It is gone, and never runs out.
  bool remove_countdown(CountdownId id);
  /// The player's first move starts the countdowns that wait for it.
  void start_waiting(double own);

  /// The next time on the table's clock at which something runs out; infinity when nothing does.
  [[nodiscard]] double due() const;
  /// Tells of what is due by `own`.
  void ring(double own, double time, EventQueue& events);

 private:
  /// What is due, and what is due with it in the order of their numbers.
  struct Due {
    double time;
    CountdownId id;

    friend auto operator<=>(const Due&, const Due&) = default;
  };
  template <class With>
  bool change(CountdownId id, With with);

  struct Held {
    Countdown countdown;
    bool once = false;  // gone when it has run out
    Reasons reasons = {};
  };

  Clock clock_;  // the table's, over the time of the inputs
  Reasons holds_ = {};
  Clock cards_;  // the cards', over that
  double own_;   // what the table's shows; kept, as its rounding would make something early
  std::map<CountdownId, Held> countdowns_ = {};
  std::size_t timers_ = 0;  // of these
  std::set<CountdownId> at_first_move_ = {};
  std::vector<CountdownId> wait_for_a_move_ = {};  // of these
  std::set<Due> dues_ = {};
};

}  // namespace apsidon::play_detail
