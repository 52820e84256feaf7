#pragma once
// What the pixels of a sheet tell of its description. Not installed.
#include <vector>

#include "apsidon/studio/check_art.hpp"

namespace apsidon::studio_detail {

/// Of a sheet whose picture can be shown.
std::vector<ArtFinding> check_sheet(const Art& art, const Deck& deck, const ArtSheet& sheet,
                                    const ArtSources& from);

}  // namespace apsidon::studio_detail
