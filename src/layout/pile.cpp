#include "apsidon/layout/pile.hpp"

#include <algorithm>

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

void check(const PileLayout& l) {
  check_range("pile layout", "thickness", l.thickness, 0, 0.2f);
  check_range("pile layout", "most thickness", l.most_thickness, 0, 1);
}

LayoutReport lay_out(const PileLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  // The top card keeps its place as cards come and go, in line with the cards beside the pile; the edges of
  // those below show under it.
  const float most = std::clamp(in.area.height() - in.card.height, 0.0f, l.most_thickness * in.card.height);
  const float step = n > 1 ? std::min(l.thickness * in.card.height, most / static_cast<float>(n - 1)) : 0;
  const Vec2 top = in.area.centre() - Vec2{0, most / 2};
  for (std::size_t i = 0; i < n; ++i) {
    poses[i] = flat_pose({top.x, top.y + step * static_cast<float>(n - 1 - i)}, in.cards[i]);
  }
  return {};
}

Size least_size(const PileLayout& l, std::size_t, Size card) {
  return {card.width, card.height * (1 + l.most_thickness)};
}

}  // namespace apsidon
