#pragma once
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <span>

#include "apsidon/art/pixels.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/rect.hpp"

struct _cairo_surface;

namespace apsidon {

/// Some pixels of a picture, counted from its top left.
struct PixelBox {
  int x = 0;       ///< of its left column, px of the device
  int y = 0;       ///< of its top row, px of the device
  int width = 0;   ///< px of the device
  int height = 0;  ///< px of the device

  friend constexpr bool operator==(const PixelBox&, const PixelBox&) = default;
};

/// The most that a picture may have, px of the device: a side, and in all (256 MiB).
inline constexpr std::uint32_t most_side = 16384;
/// The most that it may have in all, px.
inline constexpr std::size_t most_pixels = std::size_t{64} << 20;
/// The most px that the pictures of one art may have in all.
inline constexpr std::size_t most_pixels_of_art = std::size_t{512} << 20;

/// An image in memory, of whole device pixels. Movable; drawn on by the functions of this part.
class APSIDON_DRAW_EXPORT Picture {
 public:
  /// A transparent picture of this size in logical px; device pixels are `pixel_ratio` times as many, rounded
  /// up, at least 1 in either direction. Throws Error when the ratio is not finite and positive, the size no
  /// number or beyond 10,000,000 px, or the picture larger than pictures may be.
  explicit Picture(Size size, float pixel_ratio = 1);
  /// A picture of these pixels. Throws Error when it has none.
  [[nodiscard]] static Picture of(const Pixels& pixels);

  [[nodiscard]] int width() const;                                  ///< device pixels
  [[nodiscard]] int height() const;                                 ///< device pixels
  [[nodiscard]] float pixel_ratio() const { return pixel_ratio_; }  ///< device pixels per logical px
  /// The pixel at a place counted from the top left; transparent outside.
  [[nodiscard]] Pixel pixel(int x, int y) const;
  /// All of them. O(pixels).
  [[nodiscard]] Pixels pixels() const;

  /// The device pixels of a row as the drawing library has them: 0xAARRGGBB, premultiplied.
  [[nodiscard]] std::span<const std::uint32_t> row(int y) const;

  /// Writes it whole or not at all, as `write_file`. Throws Error when the file cannot be written.
  void write_png(const std::filesystem::path& file) const;

  /// The surface of the drawing library, owned by the picture.
  [[nodiscard]] _cairo_surface* surface() const { return surface_.get(); }

 private:
  struct Destroy {
    void operator()(_cairo_surface* surface) const;
  };
  std::unique_ptr<_cairo_surface, Destroy> surface_;
  float pixel_ratio_ = 1;
};

}  // namespace apsidon
