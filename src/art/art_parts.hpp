#pragma once
// Where an art has what shows of a card. Not installed.
#include <optional>

#include "apsidon/art/art.hpp"

namespace apsidon::art_detail {

/// The cell that a sheet gives to a face; nothing where it does not have its suit or its rank.
APSIDON_FILES_EXPORT std::optional<PicturePart> cell_of(const ArtSheet& sheet, const Deck& deck, FaceId face);

/// A larger picture of the face, where the art names one.
APSIDON_FILES_EXPORT std::optional<PicturePart> detail_of(const Art& art, const Deck& deck, FaceId face);
/// The back of a card of this suit, the place of the suit in the deck's options, or -1: its own, else that of
/// all; nothing where the art has none.
APSIDON_FILES_EXPORT std::optional<PicturePart> back_of(const Art& art, const Deck& deck, int suit = -1);

}  // namespace apsidon::art_detail
