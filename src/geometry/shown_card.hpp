#pragma once
// Where a card shows, for who draws it. Not installed.
#include "apsidon/geometry/quad.hpp"

namespace apsidon::geometry_detail {

/// How a card lies: both from one call, as the work is the same.
struct Shown {
  Matrix matrix = {};
  Quad corners = {};
};
[[nodiscard]] APSIDON_CORE_EXPORT Shown shown(const Pose& pose, Size card);

}  // namespace apsidon::geometry_detail
