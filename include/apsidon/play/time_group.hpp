#pragma once
#include <span>
#include <string>
#include <string_view>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/group.hpp"

namespace apsidon {

/// The table's clock and what goes by it: `field.time().at_rest()`. Cards, timers and countdowns go by that
/// clock, which can be stopped and sped up. Of a stale id the answer is 0; a call that names one is refused
/// as `unknown_timer`.
class APSIDON_CORE_EXPORT TimeGroup : public play_detail::Group {
 public:
  /// Whether the cards rest: none moves or is held, no performance runs, none are to be compared. Timers and
  /// countdowns may run all the same: `Playfield::next_due` says when something has to be done next.
  [[nodiscard]] bool at_rest() const;
  /// When the cards will be at rest if nobody does anything, what performances have still to do counted;
  /// `now()` when they are, timers and countdowns left aside; infinity when something stands still. O(cards
  /// awake); while a performance runs it is found by trying on a copy.
  [[nodiscard]] double settles_at() const;
  /// Whether this reason stops the clock.
  [[nodiscard]] bool stopped_for(std::string_view reason) const;
  /// The reasons that stop the clock, in the order in which they were given. Valid until the next call of the
  /// playfield that is not const.
  [[nodiscard]] std::span<const std::string> reasons() const;
  /// Of the clock; 1: as fast as the window's.
  [[nodiscard]] double speed() const;
  /// Of cards and performances on that clock.
  [[nodiscard]] double cards_speed() const;
  /// Until it runs out; it has its whole length until it is started.
  [[nodiscard]] double seconds_left(CountdownId countdown) const;
  /// Of the length that it was given last, 0 to 1.
  [[nodiscard]] double share_left(CountdownId countdown) const;
  /// Whether a reason of its own holds it.
  [[nodiscard]] bool is_held(CountdownId countdown) const;

  /// Stops the clock of the table until this reason, and every other, is released.
  Verdict hold(std::string_view reason);
  /// Takes a reason of `hold` back.
  Verdict release(std::string_view reason);
  /// How fast the clock of the table goes, [0, 1000]; another number is ignored and counted.
  Verdict set_speed(double speed);
  /// How fast cards and performances go on that clock, [0, 1000]: timers and countdowns go on as they do.
  Verdict set_cards_speed(double speed);
  /// A countdown that runs at once and is gone when it has run out: an event `rang` after so many seconds,
  /// [0, 1e9]; what is beyond counts as the border, no number as 0.
  CountdownId start_timer(double seconds);
  /// A countdown of this length; `at_first_move`: it starts by itself when the player first moves a card.
  CountdownId add_countdown(double seconds, bool at_first_move = false);
  /// From now on it runs.
  Verdict start_countdown(CountdownId countdown);
  /// Gives it so many seconds more, or takes them.
  Verdict extend_countdown(CountdownId countdown, double seconds);
  /// A new length, not started: a new round.
  Verdict reset_countdown(CountdownId countdown, double seconds);
  /// It stands still until this reason, and every other of its own, is released; the clock goes on.
  Verdict hold_countdown(CountdownId countdown, std::string_view reason);
  /// Takes a reason of `hold_countdown` back.
  Verdict release_countdown(CountdownId countdown, std::string_view reason);
  /// It is gone, and never runs out.
  Verdict stop_countdown(CountdownId countdown);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
