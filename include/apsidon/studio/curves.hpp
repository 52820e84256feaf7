#pragma once
#include <optional>
#include <span>
#include <string>

#include "apsidon/draw/picture.hpp"
#include "apsidon/motion/easing.hpp"
#include "apsidon/motion/spring.hpp"
#include "apsidon/studio_export.hpp"

namespace apsidon {

/// One curve to plot: an easing over its time, or a spring from rest.
struct PlottedCurve {
  std::string name;                   ///< beside its plot
  Easing easing = {};                 ///< unless it is a spring
  std::optional<Spring> spring = {};  ///< where it is set, in place of the easing
  float seconds = 1;                  ///< how long the easing takes, > 0; a spring takes as long as it does
};

/// What a curve comes to at a time: 0 at the start, 1 at the goal; its slope is in shares of the way per
/// second.
[[nodiscard]] APSIDON_STUDIO_EXPORT EasedValue point_of(const PlottedCurve& curve, float seconds);

/// What there is to know of a curve as a whole.
struct CurveFacts {
  float settles = 0;    ///< seconds until it stays within a thousandth of its goal; of an easing its time
  float overshoot = 0;  ///< how far beyond the goal it goes, share of the way
  float fastest = 0;    ///< largest speed, shares of the way per second; without what a jump has
};
/// How far a curve overshoots, and how fast it gets.
[[nodiscard]] APSIDON_STUDIO_EXPORT CurveFacts facts_of(const PlottedCurve& curve);

/// Value above, speed below, all curves over one time, and for each a row of cards on its way. `size` in
/// logical px. Throws Error when there are no curves.
[[nodiscard]] APSIDON_STUDIO_EXPORT Picture plot_curves(std::span<const PlottedCurve> curves, Size size,
                                                        float pixel_ratio = 1);

}  // namespace apsidon
