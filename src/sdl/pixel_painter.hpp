#pragma once
// Frames without a graphics card: painted where they have changed, in one texture of the window's size. Not
// installed.
#include <chrono>
#include <optional>

#include "apsidon/draw/paint.hpp"
#include "sdl/textures.hpp"

namespace apsidon::sdl_detail {

class PixelPainter {
 public:
  PixelPainter(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery)
      : renderer_(renderer), painter_(deck, gallery) {}

  /// As SdlPainter's.
  bool draw(const Frame& frame, std::chrono::nanoseconds time);

 private:
  SDL_Renderer* renderer_;
  Painter painter_;
  std::optional<Picture> picture_ = {};
  Texture texture_ = {};
};

}  // namespace apsidon::sdl_detail
