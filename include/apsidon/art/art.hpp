#pragma once
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/art/pixels.hpp"
#include "apsidon/cards/deck.hpp"
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
  std::string picture = {};                ///< file, as the art file names it
  int columns = 1;                         ///< [1, 10000]
  Size cell = {};                          ///< of one card, px
  Vec2 margin = {};                        ///< before the first cell, px
  Vec2 spacing = {};                       ///< between cells, px
  SheetOrder order = SheetOrder::by_suit;  ///< which way it is read
  std::vector<std::string> suits = {};     ///< in the order of the sheet; empty: as in the deck
  std::vector<std::string> ranks = {};     ///< likewise

  friend bool operator==(const ArtSheet&, const ArtSheet&) = default;
};

/// How pictures are made larger and smaller.
enum class Sampling : std::uint8_t { smooth, nearest };

/// What stands for a joker's suit and rank in a pattern.
struct JokerWords {
  std::string suit = {};  ///< in place of `{suit}`
  std::string rank = {};  ///< in place of `{rank}`

  friend bool operator==(const JokerWords&, const JokerWords&) = default;
};

/// Which part of which picture shows a face: a named part, else a cell of a sheet, else a picture of its own.
struct Art {
  Size card = {};                                 ///< of a card's picture, px; empty: not stated
  std::vector<ArtSheet> sheets = {};              ///< asked in this order
  std::map<std::string, PicturePart> parts = {};  ///< by the text of the face
  std::string pattern = {};         ///< "faces/{face}.png", with {face}, {suit} and {rank}; empty for none
  std::string detail_pattern = {};  ///< likewise, of larger pictures for zooming
  /// What a pattern has in the place of a suit, a rank or a whole face: "K" is "king", say.
  std::map<std::string, std::string> names = {};
  /// By the name of the joker; without words its rank is its name, and it has no suit.
  std::map<std::string, JokerWords> jokers = {};
  PicturePart back = {};  ///< of all cards, or of those for whose suit `backs` has none
  /// By suit, in a deck whose backs tell the suit.
  std::map<std::string, PicturePart> backs = {};
  Sampling sampling = Sampling::smooth;  ///< `nearest` for pixel art
  std::optional<Rgb> key_colour = {};    ///< pixels of this colour are transparent

  friend bool operator==(const Art&, const Art&) = default;
};

/// Nothing for a face that the art does not have, and for a hidden one.
[[nodiscard]] APSIDON_FILES_EXPORT std::optional<PicturePart> part_of(const Art& art, const Deck& deck,
                                                                      FaceId face);

}  // namespace apsidon
