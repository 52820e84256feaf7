#include "apsidon/layout/formation.hpp"

#include "geometry/options.hpp"
#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

void check_formation(float count, float least, float most, Vec2 gaps) {
  geometry_detail::check_range("formation: count", count, least, most);
  geometry_detail::check_range("formation: gap across", gaps.x, -1, 100);
  geometry_detail::check_range("formation: gap down", gaps.y, -1, 100);
}

/// Places rows, each centred; `first` tells where each row's slots begin.
Formation rows_without_links(const std::vector<int>& counts, Vec2 gaps, std::vector<std::size_t>& first) {
  Formation f;
  for (std::size_t row = 0; row < counts.size(); ++row) {
    check_formation(static_cast<float>(counts[row]), 0, 1000, gaps);
    first.push_back(f.at.size());
    for (int i = 0; i < counts[row]; ++i) {
      f.names.push_back(fmt::format("{}-{}", row + 1, i + 1));
      f.at.push_back({(static_cast<float>(i) - static_cast<float>(counts[row] - 1) / 2) * (1 + gaps.x),
                      static_cast<float>(row) * (1 + gaps.y)});
    }
  }
  first.push_back(f.at.size());
  return f;
}

/// Links each slot with those of the next row that lie less than `reach` pitches aside.
void link_rows(Formation& f, const std::vector<std::size_t>& first, float pitch, float reach) {
  for (std::size_t row = 0; row + 2 < first.size(); ++row) {
    for (std::size_t a = first[row]; a < first[row + 1]; ++a) {
      for (std::size_t b = first[row + 1]; b < first[row + 2]; ++b) {
        if (std::abs(f.at[a].x - f.at[b].x) < reach * pitch) f.links.push_back({a, b});
      }
    }
  }
}

Formation rows_linked_down(const std::vector<int>& counts, Vec2 gaps) {
  std::vector<std::size_t> first;
  Formation f = rows_without_links(counts, gaps, first);
  link_rows(f, first, 1 + gaps.x, 0.75f);
  return f;
}

}  // namespace

Formation formation_of_rows(const std::vector<int>& counts, Vec2 gaps, RowLinks links) {
  std::vector<std::size_t> first;
  Formation f = rows_without_links(counts, gaps, first);
  for (std::size_t row = 0; row + 1 < first.size() && links == RowLinks::all; ++row) {
    for (std::size_t a = first[row]; a + 1 < first[row + 1]; ++a) f.links.push_back({a, a + 1});
  }
  link_rows(f, first, 1 + gaps.x, 1 - 1e-3f);
  std::sort(f.links.begin(), f.links.end());
  return f;
}

Formation with_waits(Formation formation, bool upward) {
  for (const auto& [a, b] : formation.links) {
    // Links within a row lie at one height.
    if (formation.at[a].y == formation.at[b].y) continue;
    formation.waits.push_back(upward ? std::pair(b, a) : std::pair(a, b));
  }
  return formation;
}

Formation formation_of_pyramid(int rows, Vec2 gaps) {
  check_formation(static_cast<float>(rows), 1, 100, gaps);
  std::vector<int> counts;
  for (int row = 1; row <= rows; ++row) counts.push_back(row);
  return rows_linked_down(counts, gaps);
}

Formation formation_of_diamond(int side, Vec2 gaps) {
  check_formation(static_cast<float>(side), 1, 100, gaps);
  std::vector<int> counts;
  for (int row = 1; row < 2 * side; ++row) counts.push_back(row <= side ? row : 2 * side - row);
  return rows_linked_down(counts, gaps);
}

Formation formation_of_ring(int slots, Vec2 gaps) {
  check_formation(static_cast<float>(slots), 1, 1000, gaps);
  Formation f;
  const double step = 2 * std::numbers::pi / slots;
  // Neighbours keep the gap even where they lie side by side or one below the other.
  const double radius = slots > 1 ? 1 / (2 * std::sin(step / 2)) : 0;
  for (int i = 0; i < slots; ++i) {
    f.names.push_back(fmt::format("{}", i + 1));
    f.at.push_back({static_cast<float>(radius * std::sin(step * i)) * (1 + gaps.x),
                    static_cast<float>(-radius * std::cos(step * i)) * (1 + gaps.y)});
  }
  for (std::size_t i = 0; i + 1 < f.at.size(); ++i) f.links.push_back({i, i + 1});
  if (slots > 2) f.links.push_back({0, f.at.size() - 1});
  std::sort(f.links.begin(), f.links.end());
  return f;
}

}  // namespace apsidon
