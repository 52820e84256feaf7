#include "apsidon/layout/insertion.hpp"

#include <limits>

#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

std::size_t count_before(const PlayerFrame& side, std::span<const Pose> neutral, Vec2 local, bool downward) {
  std::size_t count = 0;
  for (const Pose& pose : neutral) {
    const Vec2 middle = side.from_window(pose.centre);
    if (downward ? middle.y < local.y : middle.x < local.x) ++count;
  }
  return count;
}

std::size_t count_in_rows(const PlayerFrame& side, std::span<const Pose> neutral, Vec2 local) {
  float row = 0;
  float nearest = std::numeric_limits<float>::max();
  for (const Pose& pose : neutral) {
    const float y = side.from_window(pose.centre).y;
    if (std::abs(y - local.y) < nearest) {
      nearest = std::abs(y - local.y);
      row = y;
    }
  }
  constexpr float same_row = 0.01f;  // px: rows are no nearer, middles of one row are equal but for roundings
  std::size_t count = 0;
  for (const Pose& pose : neutral) {
    const Vec2 middle = side.from_window(pose.centre);
    if (middle.y < row - same_row || (middle.y < row + same_row && middle.x < local.x)) ++count;
  }
  return count;
}

}  // namespace

std::size_t insertion_index(const Layout& layout, const LayoutInput& in, std::span<const Pose> neutral,
                            Vec2 point, std::optional<std::size_t> before) {
  const PlayerFrame side(in);
  const LayoutTraits traits = traits_of(layout);
  if (const auto own = own_insertion(layout, in, neutral, point)) return *own;
  if (traits.inserts == Inserts::on_top) return neutral.size();
  const auto at = [&](Vec2 local) -> std::size_t {
    if (traits.inserts == Inserts::in_rows) return count_in_rows(side, neutral, local);
    return count_before(side, neutral, local, traits.axis == LayoutAxis::down);
  };
  const Vec2 local = side.from_window(point);
  const std::size_t index = at(local);
  if (!before || *before == index || *before > neutral.size()) return index;
  const float slack = 0.1f * in.card.width;
  for (const Vec2 nudge : {Vec2{slack, 0}, Vec2{-slack, 0}, Vec2{0, slack}, Vec2{0, -slack}}) {
    if (at(local + nudge) == *before) return *before;
  }
  return index;
}

}  // namespace apsidon
