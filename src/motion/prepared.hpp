#pragma once
// What an easing keeps. Not installed.
#include <atomic>
#include <cstdint>
#include <variant>
#include <vector>

#include "motion/bezier.hpp"
#include "motion/easing_kinds.hpp"

namespace apsidon {
namespace motion_detail {

/// Stops with every input known, none below one before it.
struct FilledStops {
  LinearStops written;
  std::vector<float> inputs;
};

}  // namespace motion_detail

struct Easing::Prepared {
  std::variant<motion_detail::PreparedBezier, motion_detail::Steps, motion_detail::FilledStops,
               motion_detail::ShapedEasing>
      as;
  mutable std::atomic<std::uint32_t> uses{0};  ///< easings that share it, in any thread
};

}  // namespace apsidon
