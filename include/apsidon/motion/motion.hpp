#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/pose.hpp"
#include "apsidon/motion/feel.hpp"

namespace apsidon {

/// A card that arrived at its goal.
struct Landing {
  std::size_t slot = 0;
  double time = 0;  ///< when it arrived, seconds; not when it was noticed

  friend constexpr bool operator==(const Landing&, const Landing&) = default;
};

/// Live poses of many cards. Each has one base track toward its goal and, beside it, at most one shake with a
/// clock of its own. Every pose is computed from the start of its track, never from the pose before, so that
/// it does not depend on how time is cut into steps. A card is known by its slot, a number below `size()`.
///
/// From rest a track follows its curve exactly. Interrupted, it takes over position and velocity: the
/// difference to the new track decays. What has arrived stands exactly at its goal, sleeps, and costs
/// nothing.
class APSIDON_CORE_EXPORT Motion {
 public:
  /// Makes room for this many slots; new ones rest at a default pose.
  void resize(std::size_t slots);
  [[nodiscard]] std::size_t size() const { return poses_.size(); }
  [[nodiscard]] double now() const { return now_; }

  /// Puts a card at a pose at once.
  void place(std::size_t slot, const Pose& pose);
  /// Sends a card from where it is to a goal; `delay` seconds, >= 0, pass before it leaves.
  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0);
  /// Moves the goal of a card without starting its way again; the difference decays in the time of `glide`. A
  /// card at rest travels.
  void shift(std::size_t slot, const Pose& goal, const Glide& glide);
  /// Shakes a card from side to side, `width` px each way, in place of an earlier shake.
  void shake(std::size_t slot, const ShakeStyle& style, float width);

  /// Computes all poses for this time. Earlier times are ignored. O(cards awake); allocates nothing once
  /// warm.
  void advance_to(double time);

  [[nodiscard]] const Pose& pose(std::size_t slot) const { return poses_[slot]; }
  [[nodiscard]] const Pose& goal(std::size_t slot) const { return tracks_[slot].goal; }
  /// Whether the card is on its way, waits for it, or shakes.
  [[nodiscard]] bool awake(std::size_t slot) const;
  /// Whether the card waits for the start of its way.
  [[nodiscard]] bool waiting(std::size_t slot) const;
  [[nodiscard]] bool shaking(std::size_t slot) const { return tracks_[slot].shaking; }
  [[nodiscard]] bool on_its_way(std::size_t slot) const { return tracks_[slot].travelling; }
  /// When everything will have arrived, known from the start; `now()` when all is at rest.
  [[nodiscard]] double settles_at() const;
  [[nodiscard]] std::size_t awake_count() const { return awake_.size(); }

  /// What arrived since `forget_landings`, in order of time. Valid until the next call that is not const.
  [[nodiscard]] std::span<const Landing> landings() const { return landings_; }
  void forget_landings() { landings_.clear(); }
  /// Grows whenever a pose may have changed.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  static constexpr std::size_t channels = 8;
  using Values = std::array<float, channels>;

  struct Track {
    Pose from = {};
    Pose goal = {};
    double start = 0;
    Glide glide = {};
    bool travelling = false;
    // What was left of the motion before: a position and a velocity that decay to nothing.
    Values left{};
    Values left_velocity{};
    double left_start = 0;
    float left_seconds = 0;
    // The shake.
    ShakeStyle shake = {};
    float shake_width = 0;
    double shake_start = 0;
    bool shaking = false;
    bool listed = false;

    [[nodiscard]] double arrives() const { return start + double{glide.seconds}; }
    [[nodiscard]] double lands() const;
  };

  static Values values_of(const Pose& pose);
  static Pose pose_of(const Values& values, const Pose& like);
  static void base(const Track& track, double time, Values& value, Values* velocity);
  static void head_for(Track& track, const Pose& goal, Values& value);
  void wake(std::size_t slot);
  void take_over(Track& track, const Values& value, const Values& velocity, float seconds);
  void settle(std::size_t slot);
  [[nodiscard]] Pose live(const Track& track, double time) const;

  std::vector<Track> tracks_;
  std::vector<Pose> poses_;
  std::vector<std::size_t> awake_;
  std::vector<Landing> landings_;
  double now_ = 0;
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon
