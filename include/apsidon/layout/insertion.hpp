#pragma once
#include <optional>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/layout/layout.hpp"

namespace apsidon {

/// Before which place a card held at this point would come to lie: the number of neutral middles that lie
/// before the point in a hand, column, spread or layout of one's own, along its axis, and in the nearest row
/// of a grid; in the other layouts it comes to lie on top. `neutral` is as long as the cards of `in`.
///
/// `before`, what it was a moment ago, stays until the point has gone on by a tenth of a card's width, so
/// that a hand that trembles does not make the cards tremble. O(cards).
[[nodiscard]] APSIDON_CORE_EXPORT std::size_t insertion_index(
    const Layout& layout, const LayoutInput& in, std::span<const Pose> neutral, Vec2 point,
    std::optional<std::size_t> before = std::nullopt);

}  // namespace apsidon
