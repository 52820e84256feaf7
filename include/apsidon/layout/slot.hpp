#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// One place in the middle of the area; several cards lie exactly on each other.
struct SlotLayout {
  friend bool operator==(const SlotLayout&, const SlotLayout&) = default;
};

APSIDON_CORE_EXPORT void check(const SlotLayout& layout);
APSIDON_CORE_EXPORT LayoutReport lay_out(const SlotLayout& layout, const LayoutInput& in,
                                         std::span<Pose> poses);
[[nodiscard]] APSIDON_CORE_EXPORT Size least_size(const SlotLayout& layout, const LayoutNeed& need,
                                                  Size card);

}  // namespace apsidon
