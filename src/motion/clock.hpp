#pragma once
// The clock of a table, and its countdowns. Not installed.
#include <limits>

namespace apsidon::motion_detail {

/// A time of one's own, that goes on with another at a speed, and stands still while it is held. Between
/// changes it is a straight line over the other time, so that it does not depend on how that is cut into
/// steps.
class Clock {
 public:
  /// Shows `own` at the time `now` of the other, seconds.
  explicit Clock(double now = 0, double own = 0) : from_(now), local_(own), now_(now) {}

  /// Goes on to this time of the other; earlier ones are ignored.
  void advance_to(double time);
  /// The other shows `now` from here on, earlier or later than before; this one shows what it did.
  void set_now(double now);
  /// The time of the other that it went on to.
  [[nodiscard]] double now() const { return now_; }
  /// Its current time, seconds.
  [[nodiscard]] double own() const { return at(now_); }
  /// What it will show at a time of the other, unless it is changed before.
  [[nodiscard]] double at(double time) const {
    return keeps_step() ? time : local_ + (time - from_) * rate();
  }
  /// When it shows this, unless it is changed before; what it showed already, then, but no earlier than
  /// the last change. Infinity while it stands still before that.
  [[nodiscard]] double when(double own) const {
    if (own <= local_) return from_;
    if (keeps_step()) return own;
    return rate() > 0 ? from_ + (own - local_) / rate() : std::numeric_limits<double>::infinity();
  }

  /// Stops it, or lets it go on.
  void hold(bool held);
  [[nodiscard]] bool held() const { return held_; }
  /// Whether no time passes on it: it is held, or its speed is 0.
  [[nodiscard]] bool stands() const { return !(rate() > 0); }
  /// Seconds that pass on it in one of the other, [0, 1000]; another number changes nothing. Returns whether
  /// it was taken.
  bool set_speed(double speed);
  [[nodiscard]] double speed() const { return speed_; }

 private:
  [[nodiscard]] double rate() const { return held_ ? 0 : speed_; }
  /// Whether it shows the other's time, to the bit.
  [[nodiscard]] bool keeps_step() const { return local_ == from_ && rate() == 1; }
  void begin_anew();

  double from_;   // time of the other at the last change
  double local_;  // what it showed then
  double now_;
  double speed_ = 1;
  bool held_ = false;
};

/// A time that runs out. Started when asked, or at the first move; what adds to it or takes from it moves its
/// end. Once it has run out it stays so, whatever is done to the clock that it goes by, until it is set anew.
/// All times are of that clock, seconds.
class Countdown {
 public:
  Countdown() = default;
  /// `seconds`, >= 0; a number that is not is taken as 0.
  explicit Countdown(double seconds) { set(seconds); }

  /// A new length, not started.
  void set(double seconds);
  /// Does nothing when it runs or has run out.
  void start(double now);
  /// Stands still from now on, until it goes on. Does nothing while it does not run.
  void pause(double now);
  void go_on(double now);
  /// Adds a bonus, or with a negative number takes away; nothing once it has run out.
  void add(double seconds, double now);

  [[nodiscard]] bool running() const { return started_ && !paused_ && !over_; }
  [[nodiscard]] bool over() const { return over_; }
  /// When it will have run out; infinity while it does not run.
  [[nodiscard]] double ends() const { return running() ? ends_ : std::numeric_limits<double>::infinity(); }
  /// Notes that it has run out, if it has by now; returns whether it did just now.
  bool run_out(double now);
  /// Seconds left, >= 0.
  [[nodiscard]] double left(double now) const;
  /// The length that it was given last, seconds.
  [[nodiscard]] double length() const { return length_; }
  /// The share of its length that is left, 0 to 1; a bonus beyond the length counts as 1.
  [[nodiscard]] double share_left(double now) const;

 private:
  double length_ = 0;
  double left_ = 0;  // while it does not run
  double ends_ = 0;
  bool started_ = false;
  bool paused_ = false;
  bool over_ = false;
};

}  // namespace apsidon::motion_detail
