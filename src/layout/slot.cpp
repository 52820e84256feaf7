#include "apsidon/layout/slot.hpp"

#include "layout/common.hpp"

namespace apsidon {

void check(const SlotLayout&) {}

LayoutReport lay_out(const SlotLayout&, const LayoutInput& in, std::span<Pose> poses) {
  for (std::size_t i = 0; i < in.cards.size(); ++i) {
    poses[i] = layout_detail::flat_pose(in.area.centre(), in.cards[i]);
  }
  return {};
}

Size least_size(const SlotLayout&, std::size_t, Size card) { return card; }

}  // namespace apsidon
