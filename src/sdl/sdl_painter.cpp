#include "apsidon/sdl/sdl_painter.hpp"

#include <SDL.h>

#include <variant>

#include "geometry/hide.hpp"
#include "sdl/pixel_painter.hpp"
#include "sdl/texture_painter.hpp"

namespace apsidon {

using namespace sdl_detail;

namespace {

using Means = std::variant<TexturePainter, PixelPainter>;

Means means_for(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery) {
  SDL_RendererInfo info{};
  SDL_GetRendererInfo(renderer, &info);
  if ((info.flags & SDL_RENDERER_SOFTWARE) != 0)
    return Means(std::in_place_type<PixelPainter>, renderer, deck, gallery);
  return Means(std::in_place_type<TexturePainter>, renderer, deck, gallery);
}

}  // namespace

struct SdlPainter::Impl {
  SDL_Renderer* renderer;
  Means means;
};

SdlPainter::SdlPainter(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery)
    : impl_(geometry_detail::hide<Impl>(Impl{renderer, means_for(renderer, deck, gallery)})) {}

bool SdlPainter::draw(const Frame& frame, std::chrono::nanoseconds time) {
  return std::visit([&](auto& means) { return means.draw(frame, time); }, impl_->means);
}

}  // namespace apsidon
