#include "apsidon/files/nearest.hpp"

#include <algorithm>
#include <vector>

namespace apsidon {
namespace {

/// Edits between two words, a swap of neighbours counting as one (optimal string alignment distance).
std::size_t edits(std::string_view a, std::string_view b) {
  std::vector<std::vector<std::size_t>> d(a.size() + 1, std::vector<std::size_t>(b.size() + 1));
  for (std::size_t i = 0; i <= a.size(); ++i) d[i][0] = i;
  for (std::size_t j = 0; j <= b.size(); ++j) d[0][j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const std::size_t other = a[i - 1] == b[j - 1] ? 0 : 1;
      d[i][j] = std::min({d[i - 1][j] + 1, d[i][j - 1] + 1, d[i - 1][j - 1] + other});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) {
        d[i][j] = std::min(d[i][j], d[i - 2][j - 2] + 1);
      }
    }
  }
  return d[a.size()][b.size()];
}

}  // namespace

std::optional<std::string> nearest_name(std::string_view mistyped, std::span<const std::string> names) {
  constexpr std::size_t longest = 200;  // longer words are no typing mistakes
  std::optional<std::string> best;
  std::size_t least = 0;
  if (mistyped.size() > longest) return best;
  for (const std::string& name : names) {
    if (name.size() > longest) continue;
    const std::size_t e = edits(mistyped, name);
    if (2 * e > std::max(mistyped.size(), name.size())) continue;
    if (!best || e < least) {
      best = name;
      least = e;
    }
  }
  return best;
}

}  // namespace apsidon
