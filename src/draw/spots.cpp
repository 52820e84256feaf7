#include "draw/spots.hpp"

#include <algorithm>

#include "apsidon/draw/paint.hpp"

namespace apsidon::draw_detail {
namespace {

/// Of more than ten: rows of five at the most, as even as may be.
std::vector<Spot> many_spots(int count) {
  const int rows = (count + 4) / 5;
  std::vector<Spot> out;
  for (int row = 0; row < rows; ++row) {
    const int in_row = count * (row + 1) / rows - count * row / rows;
    for (int i = 0; i < in_row; ++i)
      out.push_back({2.0 * i / (in_row - 1) - 1, 1.76 * row / (rows - 1) - 0.88});
  }
  return out;
}

}  // namespace

std::vector<Spot> spots_of(int count) {
  // Rows that keep their distances, wide and narrow ones in turn.
  constexpr double wide = 0.8, narrow = 0.42, low = 0.84, third = 0.29, far = 0.87;
  switch (count) {
    case 2:
      return {{0, -0.62}, {0, 0.62}};
    case 3:
      return {{0, -wide}, {0, 0}, {0, wide}};
    case 4:
      return {{-0.72, -0.66}, {0.72, -0.66}, {-0.72, 0.66}, {0.72, 0.66}};
    case 5:
      return {{-0.76, -0.76}, {0.76, -0.76}, {0, 0}, {-0.76, 0.76}, {0.76, 0.76}};
    case 6:
      return {{-0.72, -wide}, {0.72, -wide}, {-0.72, 0}, {0.72, 0}, {-0.72, wide}, {0.72, wide}};
    case 7:
      return {{-wide, -wide}, {wide, -wide}, {-wide, 0}, {0, 0}, {wide, 0}, {-wide, wide}, {wide, wide}};
    case 8:
      return {{-wide, -low}, {0, -low},    {wide, -low}, {-narrow, 0},
              {narrow, 0},   {-wide, low}, {0, low},     {wide, low}};
    case 9:
      return {{-wide, -low}, {0, -low},    {wide, -low}, {-wide, 0}, {0, 0},
              {wide, 0},     {-wide, low}, {0, low},     {wide, low}};
    case 10:
      return {{-wide, -far},    {0, -far},       {wide, -far}, {-narrow, -third}, {narrow, -third},
              {-narrow, third}, {narrow, third}, {-wide, far}, {0, far},          {wide, far}};
    default:
      return count > 10 && count <= 30 ? many_spots(count) : std::vector<Spot>{};
  }
}

int sprigs_of(const std::string& name, int rank) {
  const bool number = !name.empty() && name.size() < 4 &&
                      std::all_of(name.begin(), name.end(), [](char c) { return c >= '0' && c <= '9'; });
  return number ? std::stoi(name) : rank + 1;
}

namespace {

/// The first letters of a word; letters of more than one byte stay whole.
std::string first_letters(const std::string& word, int letters) {
  std::size_t end = 0;
  for (int i = 0; i < letters && end < word.size(); ++i) {
    do {
      ++end;
    } while (end < word.size() && (static_cast<unsigned char>(word[end]) & 0xC0u) == 0x80u);
  }
  return word.substr(0, end);
}

}  // namespace
}  // namespace apsidon::draw_detail

namespace apsidon {

std::string rank_mark(const Deck& deck, int rank) {
  using draw_detail::first_letters;
  constexpr int most = 3;
  const auto& ranks = deck.options().ranks;
  const std::string& name = ranks[static_cast<std::size_t>(rank)];
  if (first_letters(name, most) == name) return name;
  for (int letters = 1;; ++letters) {
    std::string mark = first_letters(name, letters);
    const bool alone = std::none_of(ranks.begin(), ranks.end(), [&](const std::string& other) {
      return other != name && first_letters(other, letters) == mark;
    });
    if (!alone && letters < most) continue;
    if (mark[0] >= 'a' && mark[0] <= 'z') mark[0] = static_cast<char>(mark[0] - 'a' + 'A');
    return mark;
  }
}

}  // namespace apsidon
