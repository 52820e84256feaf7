#pragma once
#include <chrono>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/geometry/hidden.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/sdl_export.hpp"

struct SDL_Renderer;

namespace apsidon {

/// Draws frames with SDL's renderer, in the look of the glasshouse: with a graphics card from textures, an
/// atlas of the cards that is built in slices; without one it paints what has changed since the frame before.
/// A painter for another deck or other pictures is another painter.
class APSIDON_SDL_EXPORT SdlPainter {
 public:
  /// The renderer and the gallery outlive it.
  SdlPainter(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery = nullptr);

  /// Draws over all that the renderer shows; to present it is the program's. Returns whether everything was
  /// there to be drawn: otherwise some cards were blank, or of another size, and the next call shows more. At
  /// most so much time goes into cards that are not there yet. Throws Error where the renderer cannot hold a
  /// picture as large as the window.
  bool draw(const Frame& frame, std::chrono::nanoseconds time = std::chrono::milliseconds(3));

 private:
  struct APSIDON_SDL_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

}  // namespace apsidon
