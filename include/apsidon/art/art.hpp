#pragma once
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/cards/deck.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/geometry/rect.hpp"

namespace apsidon {

/// A part of a picture.
struct PicturePart {
  std::string picture = {};  ///< a file, relative to the art's
  Rect part = {};            ///< px of the picture; empty: all of it

  friend bool operator==(const PicturePart&, const PicturePart&) = default;
};

/// Whether a regular sheet has the ranks of one suit after another, or the suits of one rank.
enum class SheetOrder : std::uint8_t { by_suit, by_rank };

/// A picture with many cards in equal cells, row by row.
struct ArtSheet {
  std::string picture = {};
  int columns = 1;    ///< [1, 10000]
  Size cell = {};     ///< of one card, px
  Vec2 margin = {};   ///< before the first cell, px
  Vec2 spacing = {};  ///< between cells, px
  SheetOrder order = SheetOrder::by_suit;
  std::vector<std::string> suits = {};  ///< in the order of the sheet; empty: as in the deck
  std::vector<std::string> ranks = {};  ///< likewise

  friend bool operator==(const ArtSheet&, const ArtSheet&) = default;
};

/// How pictures are made larger and smaller.
enum class Sampling : std::uint8_t { smooth, nearest };

/// Which part of which picture shows a face: a named part, else a cell of a sheet, else a picture of its own.
struct Art {
  Size card = {};  ///< of a card's picture, px; empty: not stated
  std::vector<ArtSheet> sheets = {};
  std::map<std::string, PicturePart> parts = {};  ///< by the text of the face
  std::string pattern = {};         ///< "faces/{face}.png", with {face}, {suit} and {rank}; empty for none
  std::string detail_pattern = {};  ///< likewise, of larger pictures for zooming
  PicturePart back = {};
  std::map<std::string, PicturePart> backs = {};  ///< by suit, where they differ
  Sampling sampling = Sampling::smooth;

  friend bool operator==(const Art&, const Art&) = default;
};

/// Nothing for a face that the art does not have, and for a hidden one.
[[nodiscard]] APSIDON_FILES_EXPORT std::optional<PicturePart> part_of(const Art& art, const Deck& deck,
                                                                      FaceId face);
/// A larger picture of the face, where the art names one.
[[nodiscard]] APSIDON_FILES_EXPORT std::optional<PicturePart> detail_of(const Art& art, const Deck& deck,
                                                                        FaceId face);
/// The back of a card with this face; nothing where the art has none.
[[nodiscard]] APSIDON_FILES_EXPORT std::optional<PicturePart> back_of(const Art& art, const Deck& deck,
                                                                      FaceId face);

/// Something wrong with a deck's art, and what to change.
struct ArtFinding {
  /// "columns", "no-part", "no-picture", "no-detail", "unused", "outside", "shared-part", "unequal-parts",
  /// "proportions", "unknown-suit", "unknown-rank", "unknown-face".
  std::string code;
  std::string face;  ///< of which face; empty for the whole
  std::string message;

  friend bool operator==(const ArtFinding&, const ArtFinding&) = default;
};

/// Size of a picture by its name, px; or why it cannot be shown.
using PictureSize = std::function<Result<Size>(const std::string& picture)>;

/// Looks at every face of the deck: is there a part, is it in its picture, is it its own, and is it like the
/// others? And at all else that the art names: backs, larger pictures, suits, ranks and faces. `others` are
/// the pictures that there are, to tell which nothing names, and the nearest of them where one is missing.
[[nodiscard]] APSIDON_FILES_EXPORT std::vector<ArtFinding> check_art(
    const Art& art, const Deck& deck, const PictureSize& size_of,
    const std::vector<std::string>& others = {});

}  // namespace apsidon
