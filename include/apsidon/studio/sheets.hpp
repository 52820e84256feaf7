#pragma once
#include <span>
#include <string>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/studio/shot.hpp"
#include "apsidon/studio_export.hpp"

namespace apsidon {

/// Frames side by side, in rows, with their captions: an animation at a glance. `size` in logical px; the
/// shots keep their proportions. Throws Error when there are no shots.
[[nodiscard]] APSIDON_STUDIO_EXPORT Picture contact_sheet(std::span<const Shot> shots, const Deck& deck,
                                                          const std::string& title, Size size,
                                                          float pixel_ratio = 1,
                                                          const Gallery* gallery = nullptr);

/// Every face of the deck with its name, a row a suit, and the back, or the backs of the suits: a wrong
/// picture is seen at a glance.
[[nodiscard]] APSIDON_STUDIO_EXPORT Picture proof_sheet(const Deck& deck, Size size, float pixel_ratio = 1,
                                                        const Gallery* gallery = nullptr);

}  // namespace apsidon
