#pragma once
#include <cstdint>
#include <filesystem>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/geometry/hidden.hpp"
#include "apsidon/studio/shot.hpp"
#include "apsidon/studio_export.hpp"

namespace apsidon {

/// A moving picture as an animated WebP, written frame by frame.
class APSIDON_STUDIO_EXPORT MovingPicture {
 public:
  /// Of this many device pixels; runs for ever when `loops`, else once. Throws Error for a size of no pixels
  /// or more than 16383 in either direction.
  MovingPicture(int width, int height, bool loops = true);

  /// Shows a picture of that size from `seconds` on. Throws Error when the size is another, or the time is
  /// not later than the one before.
  void add(const Picture& picture, double seconds);
  /// Ends at this time and writes the file. Throws Error when it cannot be written, or there are no frames.
  void write(const std::filesystem::path& file, double ends);

 private:
  struct APSIDON_STUDIO_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

/// A film as an animated SVG: each face once, each card moved by the times of the frames; it plays in any
/// browser without a script. Of all frames the first says what is drawn below the cards. Throws Error when
/// there are no frames.
[[nodiscard]] APSIDON_STUDIO_EXPORT std::string moving_svg(std::span<const Shot> frames, const Deck& deck,
                                                           const Gallery* gallery = nullptr);

}  // namespace apsidon
