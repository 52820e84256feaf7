#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

LayoutTraits traits_of(const SlotLayout&) {
  return {.name = "slot", .inserts = Inserts::on_top, .squared = true};
}

LayoutReport lay_out(const SlotLayout&, const LayoutInput& in, std::span<Pose> poses) {
  const PlayerFrame side(in);
  for (std::size_t i = 0; i < in.cards.size(); ++i) poses[i] = side.pose(0, 0, in.cards[i]);
  return {.content = in.card.width};
}

Size least_size(const SlotLayout&, const LayoutNeed& need, Size card) { return needed_of(need, card); }

}  // namespace apsidon::layout_detail
