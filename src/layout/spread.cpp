#include "apsidon/layout/spread.hpp"

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

void check(const SpreadLayout& l) {
  check_range("spread layout", "spacing", l.spacing, 0, 4);
  check_range("spread layout", "least spacing", l.least_spacing, 0, l.spacing);
  check_range("spread layout", "last", static_cast<float>(l.last), 0, 100'000);
  check_range("spread layout", "lift", l.lift, 0, 2);
}

LayoutReport lay_out(const SpreadLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const Side side(in);
  const auto cards = static_cast<std::ptrdiff_t>(n);
  const bool inserting = in.room.insert_at >= 0 && in.room.insert_at <= cards;
  const std::size_t spread = l.last > 0 ? std::min(n, static_cast<std::size_t>(l.last)) : n;
  const std::size_t first = n - spread;
  // Places are equally far apart, whatever lies on them; a sideways card makes them all as wide as itself.
  const Size own = largest_of(in.cards, in.card);
  const float steps = static_cast<float>(spread - 1 + (inserting ? 1 : 0));
  const Squeeze fit =
      in.scrolls ? Squeeze{}
                 : squeeze(std::max(side.width - own.width, 0.0f), steps * l.least_spacing * in.card.width,
                           steps * l.spacing * in.card.width);
  const float step = fit.strip(l.least_spacing, l.spacing) * in.card.width;
  const float content = steps * step + own.width;
  const float start = (in.scrolls ? std::max(aligned(l.align, side.width, content), 0.0f) - in.offset
                                  : aligned(l.align, side.width, content)) -
                      side.width / 2 + own.width / 2;
  for (std::size_t i = 0; i < n; ++i) {
    const std::size_t place = i > first ? i - first : 0;
    const bool after = inserting && static_cast<std::ptrdiff_t>(i) >= in.room.insert_at;
    const bool out = in.cards[i].lifted || static_cast<std::ptrdiff_t>(i) == in.room.raised;
    const float x = start + static_cast<float>(place + (after ? 1 : 0)) * step;
    poses[i] = side.pose(x, out ? -l.lift * in.card.height : 0, in.cards[i]);
  }
  return {.crowded = fit.crowded, .content = content};
}

Size least_size(const SpreadLayout& l, const LayoutNeed& need, Size card) {
  const Size one = needed_of(need, card);
  std::size_t spread = std::max<std::size_t>(need.cards, 1);
  if (l.last > 0) spread = std::min(spread, static_cast<std::size_t>(l.last));
  return {one.width + static_cast<float>(spread - 1) * l.least_spacing * card.width, one.height};
}

}  // namespace apsidon
