#pragma once
#include <chrono>
#include <span>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/hidden.hpp"
#include "apsidon/play/frame.hpp"

namespace apsidon {

/// All that the cards of a deck show, at one size, in one picture: every face, the back or the backs, and a
/// face that is not known. It is built in slices, so that a frame never waits for all of it.
///
///     if (!atlas.whole()) atlas.build(frame, std::chrono::milliseconds(3));
///     for (const apsidon::PixelBox& box : atlas.fresh()) upload(box, atlas.pixels(box));
///     … draw atlas.cell(item) on item.corners
class APSIDON_DRAW_EXPORT Atlas {
 public:
  /// Cells for all, nothing in them yet. `card` in logical px; corners are round by this share of its width.
  /// The pixel ratio is lowered where the picture would be larger than pictures may be. A gallery outlives
  /// it. Throws Error for a card or a ratio of nothing.
  Atlas(const Deck& deck, Size card, float pixel_ratio, float corner_share = 0.07f,
        const Gallery* gallery = nullptr);

  /// Draws cells until so much time has gone, at least one; those that the frame shows come first. Returns
  /// whether all are there.
  bool build(const Frame& frame, std::chrono::nanoseconds time);
  /// Whether every card found a place.
  [[nodiscard]] bool whole() const;
  /// The cells that the last call of `build` has drawn, with a pixel of margin around them.
  [[nodiscard]] std::span<const PixelBox> fresh() const;
  /// Where the side of an item is, without its margin, which is transparent.
  [[nodiscard]] PixelBox cell(const FrameItem& item) const;
  /// Whether that has been drawn already.
  [[nodiscard]] bool has(const FrameItem& item) const;

  [[nodiscard]] int width() const;   ///< device pixels
  [[nodiscard]] int height() const;  ///< device pixels
  /// Size of a card in it, logical px.
  [[nodiscard]] Size card() const;
  /// Device pixels per logical px.
  [[nodiscard]] float pixel_ratio() const;
  /// Red, green, blue, opacity, not premultiplied, row by row. O(pixels).
  [[nodiscard]] Pixels pixels(const PixelBox& box) const;
  /// All of it, device pixels. O(pixels).
  [[nodiscard]] Pixels pixels() const;

 private:
  struct APSIDON_DRAW_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

}  // namespace apsidon
