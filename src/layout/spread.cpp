#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

LayoutTraits traits_of(const SpreadLayout& l) {
  return {.name = "spread", .strips = true, .apart = static_cast<std::size_t>(l.last)};
}

LayoutReport lay_out(const SpreadLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  const auto cards = static_cast<std::ptrdiff_t>(n);
  const bool inserting = in.room.insert_at >= 0 && in.room.insert_at <= cards;
  const std::size_t spread = l.last > 0 ? std::min(n, static_cast<std::size_t>(l.last)) : n;
  const std::size_t first = n - spread;
  // Places are equally far apart, whatever lies on them; a sideways card makes them all as wide as itself.
  const Size own = largest_of(in.cards, in.card);
  const std::size_t gap = inserting ? in.room.insert_count : 0;
  const float steps = static_cast<float>(spread - 1 + gap);
  const Squeeze fit =
      in.scrolls ? Squeeze{}
                 : squeeze(std::max(side.width - own.width, 0.0f), steps * l.least_spacing * in.card.width,
                           steps * l.spacing * in.card.width);
  const float step = fit.strip(l.least_spacing, l.spacing) * in.card.width;
  const float content = steps * step + own.width;
  const float start = (in.scrolls ? std::max(aligned(l.align, side.width, content), 0.0f) - in.offset
                                  : aligned(l.align, side.width, content)) -
                      side.width / 2 + own.width / 2;
  // Ints of 32 bits become floats in one instruction, and nothing that the poses might alias is read in the
  // loop.
  const std::span<const LaidCard> laid = in.cards;
  const int below = static_cast<int>(first);
  const std::ptrdiff_t raised = in.room.raised;
  const std::ptrdiff_t insert_at = inserting ? in.room.insert_at : cards;
  const float lifted = -l.lift * in.card.height;
  for (std::size_t i = 0; i < n; ++i) {
    const LaidCard card{.face_up = laid[i].face_up, .sideways = laid[i].sideways};
    const auto at = static_cast<std::ptrdiff_t>(i);
    const int place =
        std::max(static_cast<int>(i) - below, 0) + (at >= insert_at ? static_cast<int>(gap) : 0);
    poses[i] = side.pose(start + static_cast<float>(place) * step, at == raised ? lifted : 0, card);
  }
  return {.crowded = fit.crowded, .content = content};
}

Size least_size(const SpreadLayout& l, const LayoutNeed& need, Size card) {
  const Size one = needed_of(need, card);
  std::size_t spread = std::max<std::size_t>(need.cards, 1);
  if (l.last > 0) spread = std::min(spread, static_cast<std::size_t>(l.last));
  return {one.width + static_cast<float>(spread - 1) * l.least_spacing * card.width, one.height};
}

}  // namespace apsidon::layout_detail
