#include "sdl/textures.hpp"

namespace apsidon::sdl_detail {

Texture texture_of(SDL_Renderer* renderer, int width, int height, bool crisp) {
  Texture texture(
      SDL_CreateTexture(renderer, SDL_PIXELFORMAT_RGBA32, SDL_TEXTUREACCESS_STATIC, width, height));
  if (!texture) return texture;
  SDL_SetTextureBlendMode(texture.get(), SDL_BLENDMODE_BLEND);
  SDL_SetTextureScaleMode(texture.get(), crisp ? SDL_ScaleModeNearest : SDL_ScaleModeLinear);
  return texture;
}

Texture texture_of(SDL_Renderer* renderer, const Picture& picture, bool opaque) {
  Texture texture = texture_of(renderer, picture.width(), picture.height());
  if (!texture) return texture;
  const Pixels pixels = picture.pixels();
  SDL_UpdateTexture(texture.get(), nullptr, pixels.all.data(), 4 * picture.width());
  if (opaque) SDL_SetTextureBlendMode(texture.get(), SDL_BLENDMODE_NONE);
  return texture;
}

}  // namespace apsidon::sdl_detail
