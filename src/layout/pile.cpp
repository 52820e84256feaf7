#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

/// -1 to 1, by seed, place and what it is for; a mixing of 64 bits (SplitMix64, Steele, Lea and Flood 2014).
float jitter(std::uint32_t seed, std::size_t place, std::uint32_t what) {
  std::uint64_t z = (std::uint64_t{seed} << 32 | what) + 0x9E3779B97F4A7C15u * (place + 1);
  z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9u;
  z = (z ^ (z >> 27)) * 0x94D049BB133111EBu;
  z ^= z >> 31;
  return static_cast<float>(static_cast<std::int32_t>(z >> 40) - (1 << 23)) / static_cast<float>(1 << 23);
}

/// The box around a card turned by up to `angle`.
Size turned_box(Size own, float angle) {
  const SinCos most = sin_cos(angle);
  return {turned_extent(own.width, own.height, most), turned_extent(own.height, own.width, most)};
}

}  // namespace

PileLayout tidy(PileLayout l) {
  l.untidy_angle = {};
  l.untidy_offset = 0;
  return l;
}

LayoutTraits traits_of(const PileLayout&) {
  return {.name = "pile", .inserts = Inserts::on_top, .squared = true};
}

LayoutReport lay_out(const PileLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  const Size own = largest_of(in.cards, in.card);
  // An area too tight for the stated untidiness makes the pile tidier.
  float angle = l.untidy_angle.radians();
  while (angle > 0) {
    const Size box = turned_box(own, angle);
    if (box.width <= side.width && box.height <= side.height) break;
    angle = angle > 1e-3f ? angle * 0.7f : 0;
  }
  const Size box = turned_box(own, angle);
  // The top card keeps its place as cards come and go, in line with the cards beside the pile; the edges of
  // those below show under it.
  const float most = std::clamp(side.height - box.height, 0.0f, l.most_thickness * in.card.height);
  const float step = n > 1 ? std::min(l.thickness * in.card.height, most / static_cast<float>(n - 1)) : 0;
  if (angle == 0 && l.untidy_offset == 0) {
    const std::span<const LaidCard> cards =
        in.cards;  // a local copy, so that writing a pose does not force a reload
    const int top = static_cast<int>(n) - 1;
    for (std::size_t i = 0; i < n; ++i) {
      poses[i] = side.pose(0, step * static_cast<float>(top - static_cast<int>(i)) - most / 2, cards[i]);
    }
    return {.content = in.card.width};
  }
  const float offset = l.untidy_offset * in.card.width;
  const float dx = std::clamp((side.width - box.width) / 2, 0.0f, offset);
  const float dy = std::clamp((side.height - box.height - most) / 2, 0.0f, offset);
  const std::size_t squared = l.last > 0 ? n - std::min(n, static_cast<std::size_t>(l.last)) : 0;
  for (std::size_t i = 0; i < n; ++i) {
    const float y = step * static_cast<float>(n - 1 - i) - most / 2;
    const float loose = i < squared ? 0 : 1;
    poses[i] = side.pose(loose * dx * jitter(l.seed, i, 0), y + loose * dy * jitter(l.seed, i, 1),
                         in.cards[i], loose * angle * jitter(l.seed, i, 2));
  }
  return {.content = in.card.width};
}

Size least_size(const PileLayout& l, const LayoutNeed& need, Size card) {
  const Size box = turned_box(needed_of(need, card), l.untidy_angle.radians());
  const float offset = 2 * l.untidy_offset * card.width;
  return {box.width + offset, box.height + offset + card.height * l.most_thickness};
}

}  // namespace apsidon::layout_detail
