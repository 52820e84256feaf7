#pragma once
#include <cstdint>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/play/frame.hpp"

namespace apsidon {

/// What a frame is painted on.
enum class Ground : std::uint8_t {
  glasshouse,   ///< the night behind its panes
  transparent,  ///< nothing: to be laid over something else
};

/// A frame in the look of the glasshouse: background, outlines, cards with their shadows and marks. As large
/// as the frame's window, at its pixel ratio. Cards show the gallery's pictures where there is one, and a
/// face that it does not have as its text.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint(const Frame& frame, const Deck& deck,
                                                const Gallery* gallery = nullptr,
                                                Ground ground = Ground::glasshouse);

/// One card lying flat, its face or, for a hidden face, its back. `card` in logical px.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_card(const Deck& deck, FaceId face, Size card,
                                                     float pixel_ratio = 1, const Gallery* gallery = nullptr);

/// Narrower cards, in logical px, show the compact face: one large mark.
inline constexpr float compact_width = 60;

}  // namespace apsidon
