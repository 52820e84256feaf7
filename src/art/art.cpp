#include "apsidon/art/art.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "apsidon/files/nearest.hpp"

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

std::string part_key(const std::string& picture, const Rect& r) {
  return fmt::format("{} {} {} {} {}", picture, r.min.x, r.min.y, r.max.x, r.max.y);
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

std::vector<ArtFinding> check_art(const Art& art, const Deck& deck, const PictureSize& size_of,
                                  const std::vector<std::string>& others) {
  std::vector<ArtFinding> out;
  std::map<std::string, std::string> seen;  // part -> face
  std::map<std::string, bool> missing;      // pictures that were told of
  std::optional<Size> first;
  for (const ArtSheet& sheet : art.sheets) {
    const auto whole = size_of(sheet.picture);
    const float pitch = sheet.cell.width + sheet.spacing.x;
    if (!whole || !(pitch > 0)) continue;
    const int room = static_cast<int>((whole->width - sheet.margin.x + sheet.spacing.x) / pitch + 1e-3f);
    if (room <= sheet.columns) continue;
    out.push_back(
        {"columns", "",
         fmt::format("'{}' has room for {} columns of {} px, its description says {}: all rows but the first "
                     "would show other faces",
                     sheet.picture, room, sheet.cell.width, sheet.columns)});
  }
  if (!art.back.picture.empty() && !art.back.part.empty()) {
    const Rect& r = art.back.part;
    seen[part_key(art.back.picture, r)] = "the back";
  }
  for (const FaceId face : deck.faces()) {
    const std::string name = deck.text(face);
    const auto part = part_of(art, deck, face);
    if (!part) {
      out.push_back(
          {"no-part", name, "no part, sheet or pattern has it: name its part, or add it to a sheet"});
      continue;
    }
    const auto whole = size_of(part->picture);
    if (!whole) {
      if (std::exchange(missing[part->picture], true)) continue;
      const Problem& problem = whole.error().front();
      if (problem.code != ProblemCode::cannot_read) {
        out.push_back({"no-picture", name,
                       fmt::format("the picture '{}' cannot be shown: {}", part->picture, problem.message)});
        continue;
      }
      const auto near = nearest_name(part->picture, others);
      out.push_back({"no-picture", name,
                     fmt::format("the picture '{}' is not there{}", part->picture,
                                 near ? fmt::format(": the nearest that is there is '{}'", *near) : "")});
      continue;
    }
    const Rect r = part->part.empty() ? rect_at({0, 0}, *whole) : part->part;
    if (r.min.x < 0 || r.min.y < 0 || r.max.x > whole->width || r.max.y > whole->height) {
      out.push_back(
          {"outside", name,
           fmt::format(
               "its part from {},{} to {},{} is not within '{}', which has {}x{} px: margin, spacing, "
               "cell or columns of the sheet are off",
               r.min.x, r.min.y, r.max.x, r.max.y, part->picture, whole->width, whole->height)});
      continue;
    }
    if (const auto [at, fresh] = seen.try_emplace(part_key(part->picture, r), name); !fresh) {
      out.push_back({"shared-part", name,
                     fmt::format("it shows the same part as {}: one of them has another", at->second)});
    }
    if (!first) first = r.size();
    if (r.size() != *first) {
      out.push_back(
          {"unequal-parts", name,
           fmt::format("its part has {}x{} px, that of the first face {}x{}: parts of one size are expected",
                       r.width(), r.height(), first->width, first->height)});
    }
  }
  if (first && !art.card.empty() &&
      std::abs(first->width * art.card.height / (first->height * art.card.width) - 1) > 0.01f) {
    out.push_back(
        {"proportions", "",
         fmt::format("parts have {}x{} px, the card is stated as {}x{}: the same proportions are expected",
                     first->width, first->height, art.card.width, art.card.height)});
  }
  return out;
}

}  // namespace apsidon
