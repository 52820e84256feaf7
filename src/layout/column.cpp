#include "apsidon/layout/column.hpp"

#include <algorithm>

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

void check(const ColumnLayout& l) {
  check_range("column layout", "open strip", l.open_strip, 0, 1);
  check_range("column layout", "covered strip", l.covered_strip, 0, 1);
  check_range("column layout", "least open strip", l.least_open_strip, 0, l.open_strip);
  check_range("column layout", "least covered strip", l.least_covered_strip, 0, l.covered_strip);
}

LayoutReport lay_out(const ColumnLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const float h = in.card.height;
  float covered = 0;
  for (std::size_t i = 0; i + 1 < n; ++i) covered += in.cards[i].face_up ? 0.0f : 1.0f;
  const float open = static_cast<float>(n - 1) - covered;
  const float room = std::max(in.area.height() - h, 0.0f);
  const StripFactors f = squeeze(room, (open * l.open_strip + covered * l.covered_strip) * h,
                                 (open * l.least_open_strip + covered * l.least_covered_strip) * h);
  const float open_strip = (f.least * l.least_open_strip + f.preferred * l.open_strip) * h;
  const float covered_strip = (f.least * l.least_covered_strip + f.preferred * l.covered_strip) * h;

  const float x = in.area.centre().x;
  float y = first_middle(in.area.min.y, in.area.max.y, h);
  const float last = y + room;  // adding up strips must not carry a card over the edge by a rounding
  for (std::size_t i = 0; i < n; ++i) {
    poses[i] = flat_pose({x, std::min(y, last)}, in.cards[i]);
    y += in.cards[i].face_up ? open_strip : covered_strip;
  }
  return {.crowded = f.crowded};
}

Size least_size(const ColumnLayout& l, std::size_t cards, Size card) {
  const float strips = cards > 1 ? static_cast<float>(cards - 1) * l.least_open_strip : 0;
  return {card.width, card.height * (1 + strips)};
}

}  // namespace apsidon
