#include "apsidon/layout/slot.hpp"

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

void check(const SlotLayout&) {}

LayoutReport lay_out(const SlotLayout&, const LayoutInput& in, std::span<Pose> poses) {
  const PlayerFrame side(in);
  for (std::size_t i = 0; i < in.cards.size(); ++i) poses[i] = side.pose(0, 0, in.cards[i]);
  return {.content = in.card.width};
}

Size least_size(const SlotLayout&, const LayoutNeed& need, Size card) { return needed_of(need, card); }

}  // namespace apsidon
