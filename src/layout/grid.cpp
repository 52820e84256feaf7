#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

constexpr std::size_t most_cells = 1'000'000;

std::size_t rows_of(std::size_t cards, std::size_t columns) { return (cards + columns - 1) / columns; }

/// Where tracks start, and how far apart their starts are.
struct Tracks {
  float start = 0;  // of the first, from the start of the length, px
  float pitch = 0;  // from one start to the next, px
};

/// `count` tracks of `size` with `gap` between them in a `length`, by the rules of CSS Box Alignment,
/// overflow included.
Tracks distribute(Distribute how, bool safe, std::size_t count, float size, float gap, float length) {
  if (count == 0) return {};
  const float n = static_cast<float>(count);
  const float free = length - n * size - (n - 1) * gap;
  const float pitch = size + gap;
  if (free < 0) {
    // Distributions fall back to an alignment: between to start, around and evenly to a safe centre.
    if (how == Distribute::centre && !safe) return {free / 2, pitch};
    if (how == Distribute::end && !safe) return {free, pitch};
    return {0, pitch};
  }
  switch (how) {
    case Distribute::start:
      break;
    case Distribute::centre:
      return {free / 2, pitch};
    case Distribute::end:
      return {free, pitch};
    case Distribute::space_between:
      return {0, count > 1 ? pitch + free / (n - 1) : pitch};
    case Distribute::space_around:
      return {free / n / 2, pitch + free / n};
    case Distribute::space_evenly:
      return {free / (n + 1), pitch + free / (n + 1)};
  }
  return {0, pitch};
}

/// Tracks that never reach out of the length: where they do not fit they overlap.
Tracks overlapping(Distribute how, std::size_t count, float size, float gap, float length) {
  const float content = static_cast<float>(count) * size + static_cast<float>(count - 1) * gap;
  if (content <= length) return distribute(how, true, count, size, gap, length);
  const float room = length - size;
  if (room < 0) return {.start = room / 2};
  return {.start = 0, .pitch = count > 1 ? room / static_cast<float>(count - 1) : 0};
}

std::size_t columns_of(const GridLayout& l, float width, float card, float gap, std::size_t cells) {
  if (l.columns > 0) return static_cast<std::size_t>(l.columns);
  const float fitting = card + gap > 0 ? std::floor((width + gap) / (card + gap)) : 1;
  return static_cast<std::size_t>(
      std::clamp(fitting, 1.0f, static_cast<float>(std::max<std::size_t>(cells, 1))));
}

std::size_t cell_of(const GridLayout& l, const LaidCard& card, std::size_t place) {
  return l.keeps_cells && card.cell >= 0 ? std::min(static_cast<std::size_t>(card.cell), most_cells) : place;
}

}  // namespace

LayoutTraits traits_of(const GridLayout& l) {
  return {.name = "grid",
          .axis = LayoutAxis::down,
          .inserts = Inserts::in_rows,
          .keeps_cells = l.keeps_cells,
          .cells = static_cast<std::size_t>(l.columns) * static_cast<std::size_t>(l.rows)};
}

LayoutReport lay_out(const GridLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  const auto [w, h] = largest_of(in.cards, in.card);
  const float gap = l.gap * in.card.width;
  const float row_gap = l.row_gap * in.card.width;
  std::size_t cells = n;
  if (l.keeps_cells) {
    for (std::size_t i = 0; i < n; ++i) cells = std::max(cells, cell_of(l, in.cards[i], i) + 1);
  }
  const std::size_t columns = columns_of(l, side.width, w, gap, cells);
  const std::size_t wide = l.keeps_cells ? columns : std::min(columns, n);
  const std::size_t rows = std::max(rows_of(cells, columns), static_cast<std::size_t>(l.rows));
  const Tracks x = overlapping(l.across, wide, w, gap, side.width);
  const Tracks y = in.scrolls ? distribute(l.down, l.safe, rows, h, row_gap, side.height)
                              : overlapping(l.down, rows, h, row_gap, side.height);
  const float left = x.start + w / 2 - side.width / 2;
  const float top = y.start + h / 2 - side.height / 2 - (in.scrolls ? in.offset : 0);
  std::size_t column = 0;
  std::size_t row = 0;
  for (std::size_t i = 0; i < n; ++i) {
    if (l.keeps_cells) {
      const std::size_t cell = cell_of(l, in.cards[i], i);
      column = cell % columns;
      row = cell / columns;
    }
    poses[i] = side.pose(left + x.pitch * static_cast<float>(column), top + y.pitch * static_cast<float>(row),
                         in.cards[i]);
    if (++column == columns) {
      column = 0;
      ++row;
    }
  }
  return {.crowded = (wide > 1 && x.pitch < l.least_strip * w) || (rows > 1 && y.pitch < l.least_strip * h),
          .content = static_cast<float>(rows - 1) * y.pitch + h};
}

Size least_size(const GridLayout& l, const LayoutNeed& need, Size card) {
  const Size one = needed_of(need, card);
  const std::size_t cards = std::max<std::size_t>(need.cards, 1);
  const std::size_t columns =
      l.columns > 0 ? static_cast<std::size_t>(l.columns)
                    : static_cast<std::size_t>(std::ceil(std::sqrt(static_cast<double>(cards))));
  const auto across = static_cast<float>(l.keeps_cells ? columns : std::min(columns, cards));
  const auto down = static_cast<float>(std::max(rows_of(cards, columns), static_cast<std::size_t>(l.rows)));
  return {across * one.width + (across - 1) * l.gap * card.width,
          down * one.height + (down - 1) * l.row_gap * card.width};
}

}  // namespace apsidon::layout_detail
