#pragma once
// Frames by a graphics card: cards are textures. Not installed.
#include <chrono>
#include <memory>

#include "apsidon/cards/deck.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/play/frame.hpp"

struct SDL_Renderer;

namespace apsidon::sdl_detail {

class TexturePainter {
 public:
  TexturePainter(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery);
  TexturePainter(TexturePainter&&) noexcept;
  TexturePainter& operator=(TexturePainter&&) noexcept;
  ~TexturePainter();

  /// As SdlPainter's.
  bool draw(const Frame& frame, std::chrono::nanoseconds time);

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon::sdl_detail
