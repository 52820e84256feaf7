#include "apsidon/layout/grid.hpp"

#include <algorithm>
#include <cmath>

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

std::size_t rows_of(std::size_t cards, std::size_t columns) { return (cards + columns - 1) / columns; }

/// Distance between the starts of neighbours along one direction, when `count` cards of `length` share
/// `room`.
float pitch(float room, float length, float gap, std::size_t count) {
  if (count < 2) return 0;
  return std::min(length + gap, std::max(room - length, 0.0f) / static_cast<float>(count - 1));
}

}  // namespace

void check(const GridLayout& l) {
  check_range("grid layout", "columns", static_cast<float>(l.columns), 0, 10'000);
  check_range("grid layout", "gap", l.gap, 0, 4);
  check_range("grid layout", "least strip", l.least_strip, 0, 1);
}

LayoutReport lay_out(const GridLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const auto [w, h] = in.card;
  const float gap = l.gap * w;
  std::size_t columns = static_cast<std::size_t>(l.columns);
  if (columns == 0) {
    const float fitting = w + gap > 0 ? std::floor((in.area.width() + gap) / (w + gap)) : 1;
    columns = static_cast<std::size_t>(std::clamp(fitting, 1.0f, static_cast<float>(n)));
  }
  const std::size_t wide = std::min(columns, n);
  const std::size_t rows = rows_of(n, columns);
  const float dx = pitch(in.area.width(), w, gap, wide);
  const float dy = pitch(in.area.height(), h, gap, rows);
  const Vec2 first =
      in.area.centre() - Vec2{dx * static_cast<float>(wide - 1), dy * static_cast<float>(rows - 1)} * 0.5f;
  for (std::size_t i = 0; i < n; ++i) {
    const Vec2 step{dx * static_cast<float>(i % columns), dy * static_cast<float>(i / columns)};
    poses[i] = flat_pose(first + step, in.cards[i]);
  }
  return {.crowded = (wide > 1 && dx < l.least_strip * w) || (rows > 1 && dy < l.least_strip * h)};
}

Size least_size(const GridLayout& l, std::size_t cards, Size card) {
  if (cards == 0) return card;
  const std::size_t columns =
      l.columns > 0 ? static_cast<std::size_t>(l.columns)
                    : static_cast<std::size_t>(std::ceil(std::sqrt(static_cast<double>(cards))));
  const auto across = static_cast<float>(std::min(columns, cards));
  const auto down = static_cast<float>(rows_of(cards, columns));
  const float gap = l.gap * card.width;
  return {across * card.width + (across - 1) * gap, down * card.height + (down - 1) * gap};
}

}  // namespace apsidon
