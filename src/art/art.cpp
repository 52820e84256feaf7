#include "apsidon/art/art.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "art/art_parts.hpp"

namespace apsidon {
namespace {

std::string replaced(std::string text, const std::string& word, const std::string& by) {
  for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + by.size())) {
    text.replace(at, word.size(), by);
  }
  return text;
}

/// What the art has in the place of a word of the deck.
const std::string& named(const Art& art, const std::string& word) {
  const auto name = art.names.find(word);
  return name == art.names.end() ? word : name->second;
}

JokerWords words_of_joker(const Art& art, const std::string& joker) {
  const auto words = art.jokers.find(joker);
  return words == art.jokers.end() ? JokerWords{.rank = named(art, joker)} : words->second;
}

std::optional<PicturePart> by_pattern(const Art& art, const std::string& pattern, const Deck& deck,
                                      FaceId face) {
  if (pattern.empty() || !deck.has(face)) return std::nullopt;
  const DeckOptions& options = deck.options();
  const std::string text = deck.text(face);
  std::string whole = named(art, text);
  JokerWords words;
  if (deck.is_joker(face)) {
    words = words_of_joker(art, text);
  } else {
    words = {.suit = named(art, options.suits[static_cast<std::size_t>(deck.suit_of(face))].name),
             .rank = named(art, options.ranks[static_cast<std::size_t>(deck.rank_of(face))])};
    if (!art.names.contains(text)) whole = words.suit + "-" + words.rank;
  }
  const std::string name = replaced(pattern, "{face}", whole);
  return PicturePart{.picture = replaced(replaced(name, "{suit}", words.suit), "{rank}", words.rank)};
}

/// The place of a name in a list, or of `own` when the list is empty.
std::optional<std::size_t> place_in(const std::vector<std::string>& list, const std::string& name, int own) {
  if (list.empty()) return static_cast<std::size_t>(own);
  const auto it = std::find(list.begin(), list.end(), name);
  return it == list.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - list.begin()));
}

}  // namespace

std::optional<PicturePart> art_detail::cell_of(const ArtSheet& sheet, const Deck& deck, FaceId face) {
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

std::optional<PicturePart> part_of(const Art& art, const Deck& deck, FaceId face) {
  if (!deck.has(face)) return std::nullopt;
  if (const auto named = art.parts.find(deck.text(face)); named != art.parts.end()) return named->second;
  for (const ArtSheet& sheet : art.sheets) {
    if (const auto cell = art_detail::cell_of(sheet, deck, face)) return cell;
  }
  return by_pattern(art, art.pattern, deck, face);
}

std::optional<PicturePart> art_detail::detail_of(const Art& art, const Deck& deck, FaceId face) {
  return by_pattern(art, art.detail_pattern, deck, face);
}

std::optional<PicturePart> art_detail::back_of(const Art& art, const Deck& deck, int suit) {
  if (suit >= 0 && suit < deck.suit_count()) {
    const auto own = art.backs.find(deck.options().suits[static_cast<std::size_t>(suit)].name);
    if (own != art.backs.end()) return own->second;
  }
  return art.back.picture.empty() ? std::nullopt : std::optional(art.back);
}

}  // namespace apsidon
