#pragma once
// SDL's textures. Not installed.
#include <SDL.h>

#include <memory>

#include "apsidon/draw/picture.hpp"

namespace apsidon::sdl_detail {

struct DestroyTexture {
  void operator()(SDL_Texture* texture) const { SDL_DestroyTexture(texture); }
};
using Texture = std::unique_ptr<SDL_Texture, DestroyTexture>;

/// Of bytes red, green, blue, opacity; none where the renderer cannot make it.
Texture texture_of(SDL_Renderer* renderer, int width, int height, bool crisp = false);
/// What a picture shows.
Texture texture_of(SDL_Renderer* renderer, const Picture& picture, bool opaque = false);

}  // namespace apsidon::sdl_detail
