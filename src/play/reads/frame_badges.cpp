// The numbers that show on cards.
#include <algorithm>
#include <array>
#include <string>

#include "play/reads/frame_builder.hpp"

namespace apsidon::play_detail {
namespace {

/// A badge never shows smaller, px: its number is to be read.
constexpr float least_badge = 16;
/// From the edges of the card, and from each other, shares of their size.
constexpr float badge_gap = 0.15f;

/// Of a number in so many signs: two of them make a circle.
float width_of(const std::string& text, float size) {
  return text.size() <= 2 ? size : size * (0.36f + 0.32f * static_cast<float>(text.size()));
}

}  // namespace

void FrameBuilder::add_badges(const FrameSources& from) {
  drawn_.badges.clear();
  const Table& table = from.setup.table;
  const Size card = drawn_.card;
  if (from.setup.badges.empty() || card.empty()) return;
  const float size = std::min(std::max(from.feel.badge * card.width, least_badge), card.width);
  for (std::size_t i = 0; i < drawn_.items.size(); ++i) {
    const FrameItem& item = drawn_.items[i];
    if (!item.card) continue;
    std::array<float, 4> used{};  // of each corner, from the edge, px
    for (const Badge& badge : from.setup.badges) {
      const int value = table.number(badge.number, item.card);
      if (value == 0) continue;
      FrameBadge shown{.item = static_cast<std::uint32_t>(i),
                       .card = item.card,
                       .number = badge.number,
                       .text = std::to_string(value)};
      const float width = std::min(width_of(shown.text, size), card.width);
      float& edge = used[static_cast<std::size_t>(badge.at)];
      edge += badge_gap * size;
      const bool right = badge.at == Corner::top_right || badge.at == Corner::bottom_right;
      const bool below = badge.at == Corner::bottom_left || badge.at == Corner::bottom_right;
      const Vec2 at{right ? card.width - edge - width : edge,
                    below ? card.height - (1 + badge_gap) * size : badge_gap * size};
      edge += width;
      shown.place = {{at.x / card.width, at.y / card.height},
                     {(at.x + width) / card.width, (at.y + size) / card.height}};
      drawn_.badges.push_back(std::move(shown));
    }
  }
}

}  // namespace apsidon::play_detail
