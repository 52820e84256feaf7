#pragma once
// Where a sheet has a face. Not installed.
#include <optional>

#include "apsidon/art/art.hpp"

namespace apsidon::art_detail {

/// The cell that a sheet gives to a face; nothing where it does not have its suit or its rank.
APSIDON_FILES_EXPORT std::optional<PicturePart> cell_of(const ArtSheet& sheet, const Deck& deck, FaceId face);

}  // namespace apsidon::art_detail
