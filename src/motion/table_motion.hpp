#pragma once
// The motion of a playfield, which keeps books beside. Not installed.
#include <span>
#include <vector>

#include "apsidon/motion/motion.hpp"

namespace apsidon::motion_detail {

/// Motion with clocks of its own, and with what whoever draws and lands its cards has to know of each.
class TableMotion : public Motion {
 public:
  using Motion::Motion;

  /// How many slots there are.
  [[nodiscard]] std::size_t size() const { return poses_.size(); }
  /// Nothing moves here any more: way, effects and lean end where they are, and no passage tells of it. For a
  /// slot whose card is gone. O(effects).
  void clear(std::size_t slot);

  /// A clock of its own, at speed 1. Cards that travel by it go on with it.
  [[nodiscard]] ClockIndex add_clock();
  /// Effects that go by a clock end here, as if their time were over; or go on from where they are by the
  /// time of all, so that they end even where the clock stands still.
  void end_effects(ClockIndex clock);
  void release_effects(ClockIndex clock);
  /// Nobody may travel by it any more; who does goes on to its goal.
  void remove_clock(ClockIndex clock);
  /// How many seconds pass on it in a second, [0, 1000]; 0 stops it. Cards on the way stay where they are.
  void set_speed(ClockIndex clock, double speed);
  /// What a clock shows.
  [[nodiscard]] double own_time(ClockIndex clock) const;
  /// When a clock shows this, as `Clock::when`.
  [[nodiscard]] double when(ClockIndex clock, double own) const;

  /// By slot.
  [[nodiscard]] std::span<const Pose> poses() const {
    if (stale_ || !begun_.empty()) compute();
    return poses_;
  }
  /// Whether the card waits for the start of its way.
  [[nodiscard]] bool waiting(std::size_t slot) const;
  [[nodiscard]] bool on_its_way(std::size_t slot) const;
  /// When a card on its way lands, on the clock that it goes by; `now()` when it rests.
  [[nodiscard]] double lands_at(std::size_t slot) const;
  /// Adds the slots on which an effect of this kind is on. O(effects).
  void with_effect(EffectKind kind, std::vector<std::uint32_t>& out) const;
  /// When the last of what has come to rest did so; the time of its start before anything has.
  [[nodiscard]] double rested_at() const;

  /// The slots whose poses may have changed since `forget_moved`: those on their way, and those that were put
  /// somewhere, have come to rest, lean or have an effect. In parts, as they are kept; one may be in two of
  /// them.
  [[nodiscard]] std::size_t moved_parts() const;
  [[nodiscard]] std::span<const std::uint32_t> moved(std::size_t part) const;
  void forget_moved();
  /// Grows whenever a pose may have changed.
  [[nodiscard]] std::uint64_t revision() const;
};

}  // namespace apsidon::motion_detail
