#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

/// Sine and cosine of any angle, on any machine the same.
SinCos sin_cos_of(float angle) {
  const float half_turns = std::round(angle / pi);
  const SinCos r = sin_cos(angle - half_turns * pi);
  const bool odd = static_cast<long>(half_turns) % 2 != 0;
  return odd ? SinCos{-r.sine, -r.cosine} : r;
}

bool whole(const RingLayout& l) { return l.sweep.radians() > 2 * pi - 1e-4f; }

/// How many places there are around for so many cards.
std::size_t places_for(const RingLayout& l, std::size_t cards) {
  return l.cells > 0 ? static_cast<std::size_t>(l.cells) : cards;
}

float step_of(const RingLayout& l, std::size_t cards) {
  const std::size_t places = places_for(l, cards);
  if (places < 2) return 0;
  return l.sweep.radians() / static_cast<float>(whole(l) ? places : places - 1);
}

}  // namespace

LayoutTraits traits_of(const RingLayout& l) {
  return {.name = "ring",
          .inserts = Inserts::on_top,
          .keeps_cells = l.cells > 0,
          .cells = static_cast<std::size_t>(l.cells)};
}

LayoutReport lay_out(const RingLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  const Size own = largest_of(in.cards, in.card);
  // Turned cards need room for their diagonal in every direction; an area that has not so much lays them
  // upright.
  const float diagonal = std::sqrt(own.width * own.width + own.height * own.height);
  const bool turned = l.turned && diagonal <= side.width && diagonal <= side.height;
  const Size box = turned ? Size{diagonal, diagonal} : own;
  float rx = std::max(side.width - box.width, 0.0f) / 2;
  float ry = std::max(side.height - box.height, 0.0f) / 2;
  if (l.round) rx = ry = std::min(rx, ry);
  const float step = step_of(l, n);
  for (std::size_t i = 0; i < n; ++i) {
    const int cell = in.cards[i].cell;
    const std::size_t place = l.cells > 0 && cell >= 0 ? static_cast<std::size_t>(cell % l.cells) : i;
    const float angle = l.start.radians() + step * static_cast<float>(place);
    const SinCos a = sin_cos_of(angle);
    poses[i] =
        side.pose(rx * a.sine, -ry * a.cosine, in.cards[i], turned ? std::remainder(angle, 2 * pi) : 0);
  }
  const float chord = 2 * std::min(rx, ry) * std::sin(std::min(step, pi) / 2);
  const bool crowded = n > 1 && places_for(l, n) > 1 && chord < l.least_spacing * in.card.width;
  return {.crowded = crowded, .content = 2 * rx + box.width};
}

Size least_size(const RingLayout& l, const LayoutNeed& need, Size card) {
  const Size own = needed_of(need, card);
  if (places_for(l, need.cards) <= 1) return own;
  const float diagonal = std::sqrt(own.width * own.width + own.height * own.height);
  const Size box = l.turned ? Size{diagonal, diagonal} : own;
  const float half_step = std::max(std::sin(std::min(step_of(l, need.cards), pi) / 2), 1e-4f);
  const float radius = std::max(l.least_spacing * card.width / 2 / half_step, own.height * 0.75f);
  return {box.width + 2 * radius, box.height + 2 * radius};
}

}  // namespace apsidon::layout_detail
