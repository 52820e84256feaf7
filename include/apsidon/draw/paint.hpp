#pragma once
#include <chrono>
#include <cstdint>
#include <optional>
#include <span>
#include <string>

#include "apsidon/art/card_picture.hpp"
#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/hidden.hpp"
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

/// The same as the text of an SVG, and as a PDF. Cards under perspective are pictures in it. Throws Error for
/// a window of less than a px, or of more than `most_side`.
[[nodiscard]] APSIDON_DRAW_EXPORT std::string paint_svg(const Frame& frame, const Deck& deck,
                                                        const Gallery* gallery = nullptr,
                                                        Ground ground = Ground::glasshouse);
/// Likewise, as a PDF.
[[nodiscard]] APSIDON_DRAW_EXPORT std::string paint_pdf(const Frame& frame, const Deck& deck,
                                                        const Gallery* gallery = nullptr,
                                                        Ground ground = Ground::glasshouse);

/// One card lying flat on a transparent ground, in a picture as large as its box.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_card(const Deck& deck, const ShownCard& view,
                                                     float pixel_ratio = 1, const Gallery* gallery = nullptr);

/// Paints many frames: each face, back and shadow is drawn once for each size in which it shows.
class APSIDON_DRAW_EXPORT Painter {
 public:
  /// A gallery outlives it.
  explicit Painter(const Deck& deck, const Gallery* gallery = nullptr);

  /// As `paint` does, to within what nobody sees: cards that are turned are not drawn but turned.
  [[nodiscard]] Picture paint(const Frame& frame, Ground ground = Ground::glasshouse);

  /// The same onto a picture that shows what this painter painted last, and only where it is another: for a
  /// window without help of a graphics card. A picture of another size is made anew. After so much time
  /// nothing more is drawn that was not kept: such cards are blank, or of another size, until the next call.
  /// Returns the boxes that have changed, valid until the next call.
  std::span<const PixelBox> repaint(std::optional<Picture>& picture, const Frame& frame,
                                    std::chrono::nanoseconds time);
  /// Whether nothing was left for the next call.
  [[nodiscard]] bool complete() const;

 private:
  struct APSIDON_DRAW_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

/// What the corners of a drawn card show of its rank: its name, or where that has more than three letters the
/// first of them that no other rank of the deck begins with, "Q" of "queen"; at most three. Decks all of
/// whose ranks have more show the whole word, once.
[[nodiscard]] APSIDON_DRAW_EXPORT std::string rank_mark(const Deck& deck, int rank);

/// Narrower cards, in logical px, show the compact face: one large mark.
inline constexpr float compact_width = 60;

}  // namespace apsidon
