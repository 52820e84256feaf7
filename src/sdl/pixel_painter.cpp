#include "sdl/pixel_painter.hpp"

#include <fmt/format.h>

#include "apsidon/geometry/error.hpp"

namespace apsidon::sdl_detail {

bool PixelPainter::draw(const Frame& frame, std::chrono::nanoseconds time) {
  const auto boxes = painter_.repaint(picture_, frame, time);
  int width = 0, height = 0;
  if (texture_) SDL_QueryTexture(texture_.get(), nullptr, nullptr, &width, &height);
  if (width != picture_->width() || height != picture_->height()) {
    texture_.reset(SDL_CreateTexture(renderer_, SDL_PIXELFORMAT_ARGB8888, SDL_TEXTUREACCESS_STREAMING,
                                     picture_->width(), picture_->height()));
    if (!texture_) {
      throw Error(
          fmt::format("window: {}x{} pixels: {}: a renderer that can hold a picture as large is expected",
                      picture_->width(), picture_->height(), SDL_GetError()));
    }
    SDL_SetTextureBlendMode(texture_.get(), SDL_BLENDMODE_NONE);
  }
  // Its rows lie one after another.
  const int pitch =
      static_cast<int>(picture_->height() > 1 ? (picture_->row(1).data() - picture_->row(0).data()) * 4
                                              : picture_->width() * 4);
  for (const PixelBox& box : boxes) {
    const SDL_Rect at{box.x, box.y, box.width, box.height};
    SDL_UpdateTexture(texture_.get(), &at, picture_->row(box.y).data() + box.x, pitch);
  }
  SDL_RenderCopy(renderer_, texture_.get(), nullptr, nullptr);
  return painter_.complete();
}

}  // namespace apsidon::sdl_detail
