#pragma once
// What an easing is made of beside a cubic-bezier: clients name these in the standard's words. Not installed.
#include <optional>
#include <vector>

#include "apsidon/motion/easing.hpp"

namespace apsidon::motion_detail {

/// Where the jumps of `steps()` are, as in the standard: at the start, at the end, at neither or at both.
enum class StepPosition { jump_start, jump_end, jump_none, jump_both };

/// `steps(count, position)`: equal steps.
struct Steps {
  int count = 1;  ///< [1, 100000]; at least 2 with jump_none
  StepPosition position = StepPosition::jump_end;

  friend constexpr bool operator==(const Steps&, const Steps&) = default;
};

/// One stop of `linear()`. Without an input it lies evenly between its neighbours that have one.
struct LinearStop {
  float output = 0;
  std::optional<float> input = {};  ///< share of the time: 0.25 for 25%

  friend constexpr bool operator==(const LinearStop&, const LinearStop&) = default;
};

/// Straight lines between 1 to 10000 stops. An input below one before it counts as that one, so two stops of
/// one input are a jump.
using LinearStops = std::vector<LinearStop>;

/// The usual shapes beside the standard's.
enum class Shape { quad, cubic, quart, quint, sine, expo, circ, back, elastic, bounce };
/// Whether the shape is at the start, at the end, or half and half.
enum class Way { in, out, in_out };

struct ShapedEasing {
  Shape shape = Shape::quad;
  Way way = Way::in;

  friend constexpr bool operator==(const ShapedEasing&, const ShapedEasing&) = default;
};

/// Makes easings of these. Each throws Error when a number is out of the range stated beside it.
struct EasingMaker {
  [[nodiscard]] static Easing of(const Steps& steps);
  [[nodiscard]] static Easing of(const LinearStops& stops);
  [[nodiscard]] static Easing of(const ShapedEasing& shaped);
};

}  // namespace apsidon::motion_detail
