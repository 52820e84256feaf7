#pragma once
#include <optional>

#include "apsidon/core_export.hpp"
#include "apsidon/motion/glide.hpp"

namespace apsidon {

/// One number on its way to a goal, as a card is on its own: a share, an angle, a length. From rest it
/// follows its curve exactly; sent elsewhere on its way it takes over value and velocity: a spring starts
/// with them, of a curve the difference decays. It is computed from the start of its way, never from the
/// value before.
class APSIDON_CORE_EXPORT Gliding {
 public:
  Gliding() = default;
  /// On a spring it is at its goal when it stays nearer than `nearness`, > 0.
  explicit Gliding(float value, float nearness = 5e-4f) : to_(value), nearness_(nearness) {}

  /// Is there at once, and rests.
  void put(float value);
  /// Leaves for a goal at this time, seconds. Of the glide its seconds and curve, or its spring, count.
  void go(float goal, const Glide& glide, double now);

  [[nodiscard]] float goal() const { return to_; }  ///< where it is, or goes
  /// At a time, no earlier than that of the last `go`. O(1).
  [[nodiscard]] float at(double time) const;
  /// Per second.
  [[nodiscard]] float velocity_at(double time) const;
  /// The share of the time of its way that has passed, 0 to 1; of a spring, of one period.
  [[nodiscard]] float passed_at(double time) const;
  /// When it is at its goal to stay; long ago where it rests.
  [[nodiscard]] double ends_at() const { return ends_; }

 private:
  [[nodiscard]] EasedValue moment_at(double time) const;

  Easing curve_ = {};
  std::optional<Spring> spring_ = {};
  float seconds_ = 0;
  float from_ = 0;
  float to_ = 0;
  float nearness_ = 5e-4f;
  float velocity_ = 0;  // of a spring: at its start; of a curve: beyond the curve's own there
  double start_ = 0;
  double ends_ = -1e300;
};

}  // namespace apsidon
