#include "apsidon/art/art.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace apsidon {
namespace {

std::string replaced(std::string text, const std::string& word, const std::string& by) {
  for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + by.size())) {
    text.replace(at, word.size(), by);
  }
  return text;
}

/// A joker has no suit, and its name for a rank.
std::optional<PicturePart> by_pattern(const std::string& pattern, const Deck& deck, FaceId face) {
  if (pattern.empty() || !deck.has(face)) return std::nullopt;
  const DeckOptions& options = deck.options();
  const bool joker = deck.is_joker(face);
  const std::string suit = joker ? "" : options.suits[static_cast<std::size_t>(deck.suit_of(face))].name;
  const std::string rank =
      joker ? deck.text(face) : options.ranks[static_cast<std::size_t>(deck.rank_of(face))];
  std::string name = replaced(pattern, "{face}", deck.text(face));
  return PicturePart{.picture = replaced(replaced(name, "{suit}", suit), "{rank}", rank)};
}

/// The place of a name in a list, or of `own` when the list is empty.
std::optional<std::size_t> place_in(const std::vector<std::string>& list, const std::string& name, int own) {
  if (list.empty()) return static_cast<std::size_t>(own);
  const auto it = std::find(list.begin(), list.end(), name);
  return it == list.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - list.begin()));
}

std::optional<PicturePart> in_sheet(const ArtSheet& sheet, const Deck& deck, FaceId face) {
  if (deck.suit_of(face) < 0) return std::nullopt;
  const DeckOptions& options = deck.options();
  const auto suit = place_in(sheet.suits, options.suits[static_cast<std::size_t>(deck.suit_of(face))].name,
                             deck.suit_of(face));
  const auto rank =
      place_in(sheet.ranks, options.ranks[static_cast<std::size_t>(deck.rank_of(face))], deck.rank_of(face));
  if (!suit || !rank) return std::nullopt;
  const std::size_t suits = sheet.suits.empty() ? options.suits.size() : sheet.suits.size();
  const std::size_t ranks = sheet.ranks.empty() ? options.ranks.size() : sheet.ranks.size();
  const std::size_t cell = sheet.order == SheetOrder::by_suit ? *suit * ranks + *rank : *rank * suits + *suit;
  const auto columns = static_cast<std::size_t>(std::max(sheet.columns, 1));
  const auto along = [](float margin, float size, float spacing, std::size_t index) {
    return margin + (size + spacing) * static_cast<float>(index);
  };
  const Vec2 at{along(sheet.margin.x, sheet.cell.width, sheet.spacing.x, cell % columns),
                along(sheet.margin.y, sheet.cell.height, sheet.spacing.y, cell / columns)};
  return PicturePart{.picture = sheet.picture, .part = rect_at(at, sheet.cell)};
}

}  // namespace

std::optional<PicturePart> part_of(const Art& art, const Deck& deck, FaceId face) {
  if (!deck.has(face)) return std::nullopt;
  if (const auto named = art.parts.find(deck.text(face)); named != art.parts.end()) return named->second;
  for (const ArtSheet& sheet : art.sheets) {
    if (const auto part = in_sheet(sheet, deck, face)) return part;
  }
  return by_pattern(art.pattern, deck, face);
}

std::optional<PicturePart> detail_of(const Art& art, const Deck& deck, FaceId face) {
  return by_pattern(art.detail_pattern, deck, face);
}

std::optional<PicturePart> back_of(const Art& art, const Deck& deck, FaceId face) {
  const int suit = deck.suit_of(face);
  if (suit >= 0) {
    const auto own = art.backs.find(deck.options().suits[static_cast<std::size_t>(suit)].name);
    if (own != art.backs.end()) return own->second;
  }
  return art.back.picture.empty() ? std::nullopt : std::optional(art.back);
}

}  // namespace apsidon
