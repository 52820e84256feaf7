#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <span>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"
#include "apsidon/motion/glide.hpp"

namespace apsidon {

namespace motion_detail {
class TableMotion;
}  // namespace motion_detail

/// Something that a card's way came to.
struct Passage {
  /// What it came to.
  enum class Kind : std::uint8_t {
    departed,  ///< it had waited for the start of its way
    edge_on,   ///< its flip has come as far as its edge: the side that shows has changed
    arrived,   ///< on a spring: it is at its goal for the first time, and may swing on
    landed,    ///< it came to rest at its goal
  };

  Kind kind = Kind::landed;  ///< what it came to
  std::size_t slot = 0;      ///< of which card
  double time = 0;           ///< when it happened, seconds; not when it was noticed

  friend constexpr bool operator==(const Passage&, const Passage&) = default;
};

/// A clock that some cards go by; 0 is the time of all.
using ClockIndex = std::uint16_t;

/// Live poses of many cards. Each has one base track toward its goal, a curve or a spring, and beside it
/// effects and a lean with clocks of their own. Every pose is computed from the start of its track, never
/// from the pose before, so that it does not depend on how time is cut into steps; and only when it is asked
/// for, so that going on to a time costs no more than what comes to pass on the way. A card is known by its
/// slot, a number below that of `resize`.
///
/// From rest a track follows its curve exactly. Interrupted, it takes over position and velocity: a spring
/// starts with them, of a curve the difference decays. What has arrived stands exactly at its goal, sleeps,
/// and costs nothing. Effects: shake, pulse, kick; a lean (hover, tilt) stays until it is taken back.
class APSIDON_CORE_EXPORT Motion {
 public:
  Motion() : Motion(0) {}
  /// Begins at this time, seconds.
  explicit Motion(double now);
  /// O(slots).
  Motion(const Motion&);
  /// What was moved from may be assigned to or destroyed, as the next two.
  Motion(Motion&&) noexcept;
  /// O(slots)
  Motion& operator=(const Motion&);
  /// O(1)
  Motion& operator=(Motion&&) noexcept;
  ~Motion();

  /// Makes room for this many slots; new ones rest at a default pose, and none goes.
  void resize(std::size_t count);
  [[nodiscard]] double now() const;  ///< seconds

  /// Puts a card at a pose at once, whatever it did.
  void put(std::size_t slot, const Pose& pose);
  /// Sends a card from where it is to a goal; `delay` seconds, >= 0, pass before it leaves. `through` are
  /// points that its middle passes in order, px. The goal's flip axis holds from the start.
  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0, ClockIndex clock = 0,
              std::span<const Vec2> through = {});
  /// Moves the goal of a card without starting its way again; the difference decays in the time of `glide`. A
  /// card at rest travels.
  void shift(std::size_t slot, const Pose& goal, const Glide& glide);
  /// Lets a card arrive now; a card at rest stays as it is.
  void finish(std::size_t slot);
  /// Adds an effect, after `delay` seconds. A second one of its kind takes over from the first, which fades
  /// in 0.12 s, so that nothing jumps; one of 0 seconds, or that adds nothing, ends the first at once.
  void start(std::size_t slot, const Effect& effect, double delay = 0, ClockIndex clock = 0);
  /// Lets a card lean from its way by this much, on a spring; nothing takes the lean back.
  void lean(std::size_t slot, const Offset& by, const Spring& spring);

  /// Goes on to this time. Earlier times are ignored. O(cards awake / 16 + what comes to pass); allocates
  /// nothing once warm.
  void advance_to(double time);
  /// When next a card leaves, is edge-on or lands, or an effect or a lean comes to its end; infinity when
  /// nothing is to come. To go on from one such time to the next tells of each at its own time. O(cards
  /// awake / 16).
  [[nodiscard]] double next_due() const;

  /// The first that asks after time has gone on has all poses computed, O(cards awake).
  [[nodiscard]] const Pose& pose(std::size_t slot) const {
    if (stale_ || !begun_.empty()) compute();
    return poses_[slot];
  }
  /// Where it rests, or goes.
  [[nodiscard]] const Pose& goal(std::size_t slot) const;
  /// Whether the card is on its way, waits for it, leans over, or has an effect.
  [[nodiscard]] bool awake(std::size_t slot) const;
  /// When everything will have arrived, known from the start; `now()` when all is at rest, infinity while a
  /// clock stands still that cards go by. O(cards awake).
  [[nodiscard]] double settles_at() const;
  /// Cards on their way, and effects and leans that are on.
  [[nodiscard]] std::size_t awake_count() const;

  /// What happened since `forget_passages`, in order of time. Valid until the next call that is not const.
  [[nodiscard]] std::span<const Passage> passages() const;
  /// Those of before are told no more.
  void forget_passages();

 private:
  friend class motion_detail::TableMotion;
  void compute() const;

  struct APSIDON_CORE_NO_EXPORT Impl;
  std::unique_ptr<Impl> impl_;
  mutable std::vector<Pose> poses_;           // by slot; of cards on their way as they were computed last
  mutable bool stale_ = false;                // time has gone on since
  mutable std::vector<std::uint32_t> begun_;  // slots whose ways have begun or changed since
};

}  // namespace apsidon
