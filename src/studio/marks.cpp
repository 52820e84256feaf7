#include "studio/marks.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <vector>

namespace apsidon::studio_detail {
namespace {

struct Box {
  int left = 0, top = 0, right = 0, bottom = 0;  // beyond the last

  [[nodiscard]] int width() const { return right - left; }
  [[nodiscard]] int height() const { return bottom - top; }
};

Box around(const Box& a, const Box& b) {
  return {std::min(a.left, b.left), std::min(a.top, b.top), std::max(a.right, b.right),
          std::max(a.bottom, b.bottom)};
}

/// Where ink is, in a part of a picture.
struct Ink {
  int width = 0;
  int height = 0;
  std::vector<char> at = {};

  Ink(int w, int h) : width(w), height(h), at(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), 0) {}
  [[nodiscard]] std::size_t index(int x, int y) const {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
  }
};

std::optional<MarkShape> shape_of(const Ink& ink, const Box& box) {
  if (box.width() <= 0 || box.height() <= 0) return std::nullopt;
  MarkShape shape{.aspect = static_cast<float>(box.width()) / static_cast<float>(box.height())};
  constexpr int side = MarkShape::side;
  // Each field is looked at in some places.
  constexpr int looks = 4;
  for (int y = 0; y < side * looks; ++y) {
    for (int x = 0; x < side * looks; ++x) {
      const int from_x = box.left + (2 * x + 1) * box.width() / (2 * side * looks);
      const int from_y = box.top + (2 * y + 1) * box.height() / (2 * side * looks);
      const auto field = static_cast<std::size_t>(y / looks * side + x / looks);
      shape.ink[field] += ink.at[ink.index(from_x, from_y)] != 0 ? 1.0f / (looks * looks) : 0.0f;
    }
  }
  return shape;
}

/// The boxes of what hangs together, also over corners.
std::vector<Box> pieces_of(Ink ink) {
  std::vector<Box> pieces;
  std::vector<std::pair<int, int>> open;
  for (int y = 0; y < ink.height; ++y) {
    for (int x = 0; x < ink.width; ++x) {
      if (ink.at[ink.index(x, y)] == 0) continue;
      Box box{x, y, x + 1, y + 1};
      open.assign(1, {x, y});
      ink.at[ink.index(x, y)] = 0;
      while (!open.empty()) {
        const auto [px, py] = open.back();
        open.pop_back();
        box = around(box, {px, py, px + 1, py + 1});
        for (int ny = std::max(py - 1, 0); ny <= std::min(py + 1, ink.height - 1); ++ny) {
          for (int nx = std::max(px - 1, 0); nx <= std::min(px + 1, ink.width - 1); ++nx) {
            if (ink.at[ink.index(nx, ny)] == 0) continue;
            ink.at[ink.index(nx, ny)] = 0;
            open.emplace_back(nx, ny);
          }
        }
      }
      pieces.push_back(box);
    }
  }
  return pieces;
}

/// What is unlike the paper, which is the colour that most of the part has.
Ink ink_in(const Pixels& picture, int left, int top, int width, int height) {
  std::map<std::array<int, 3>, int> counts;
  const auto coarse = [](const Pixel& p) { return std::array<int, 3>{p[0] / 24, p[1] / 24, p[2] / 24}; };
  for (int y = 0; y < height; ++y) {
    for (int x = 0; x < width; ++x) {
      const Pixel& p = picture.at(left + x, top + y);
      if (p[3] > 127) ++counts[coarse(p)];
    }
  }
  Ink ink(width, height);
  if (counts.empty()) return ink;
  const auto most = std::max_element(counts.begin(), counts.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  const auto paper = most->first;
  constexpr int unlike = 150;  // of 765
  for (int y = 0; y < height; ++y) {
    for (int x = 0; x < width; ++x) {
      const Pixel& p = picture.at(left + x, top + y);
      int distance = 0;
      for (std::size_t i = 0; i < 3; ++i) distance += std::abs(int{p[i]} - (paper[i] * 24 + 12));
      ink.at[ink.index(x, y)] = p[3] > 127 && distance > unlike ? 1 : 0;
    }
  }
  return ink;
}

}  // namespace

std::optional<MarkShape> shape_of_word(const Pixels& word) {
  Ink ink(word.width, word.height);
  Box box{word.width, word.height, 0, 0};
  for (int y = 0; y < word.height; ++y) {
    for (int x = 0; x < word.width; ++x) {
      if (word.at(x, y)[3] < 128) continue;
      ink.at[ink.index(x, y)] = 1;
      box = around(box, {x, y, x + 1, y + 1});
    }
  }
  return shape_of(ink, box);
}

std::optional<MarkShape> shape_in_corner(const Pixels& picture, const Rect& card) {
  // Below and right of a frame, as far as corner marks reach.
  const int left = static_cast<int>(card.min.x + 0.03f * card.width());
  const int top = static_cast<int>(card.min.y + 0.02f * card.height());
  const int width = std::min(static_cast<int>(0.3f * card.width()), picture.width - left);
  const int height = std::min(static_cast<int>(0.26f * card.height()), picture.height - top);
  if (left < 0 || top < 0 || width < 4 || height < 4) return std::nullopt;
  const Ink ink = ink_in(picture, left, top, width, height);
  std::vector<Box> pieces = pieces_of(ink);
  const int least = std::max(6, static_cast<int>(0.05f * card.height()));  // smaller ones are all alike
  std::erase_if(pieces, [&](const Box& b) {
    return b.height() < least || b.left == 0 || b.top == 0 || b.right == width;
  });
  if (pieces.empty()) return std::nullopt;
  // The highest, and what stands beside it: a rank may have two figures.
  std::sort(pieces.begin(), pieces.end(), [](const Box& a, const Box& b) { return a.top < b.top; });
  Box word = pieces.front();
  for (const Box& piece : pieces) {
    const int shared = std::min(piece.bottom, word.bottom) - std::max(piece.top, word.top);
    const int apart = std::max(piece.left, word.left) - std::min(piece.right, word.right);
    if (2 * shared > piece.height() && 2 * apart < word.height()) word = around(word, piece);
  }
  return shape_of(ink, word);
}

float likeness(const MarkShape& a, const MarkShape& b) {
  const auto n = static_cast<double>(a.ink.size());
  double sa = 0, sb = 0, aa = 0, bb = 0, ab = 0;
  for (std::size_t i = 0; i < a.ink.size(); ++i) {
    const double x = double{a.ink[i]};
    const double y = double{b.ink[i]};
    sa += x;
    sb += y;
    aa += x * x;
    bb += y * y;
    ab += x * y;
  }
  const double spread = (aa - sa * sa / n) * (bb - sb * sb / n);
  const double correlation = spread > 0 ? (ab - sa * sb / n) / std::sqrt(spread) : 0;
  const double shape = std::exp(-std::abs(std::log(double{a.aspect} / double{b.aspect})));
  return static_cast<float>(correlation * shape);
}

}  // namespace apsidon::studio_detail
