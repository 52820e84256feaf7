#include "apsidon/draw/picture.hpp"

#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>

#include "apsidon/files/write_file.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/canvas.hpp"

namespace apsidon {
namespace {

/// At least 1; what is far too much stays so.
std::uint32_t device_length(float logical, float ratio) {
  return static_cast<std::uint32_t>(std::clamp(std::ceil(logical * ratio - 1e-3f), 1.0f, 1e9f));
}

}  // namespace

PixelBox draw_detail::device_box(Size size, float pixel_ratio) {
  if (!(std::isfinite(pixel_ratio) && pixel_ratio > 0)) {
    throw Error(fmt::format("picture: pixel ratio is {}: a positive number is expected", pixel_ratio));
  }
  constexpr float most = 1e7f;
  if (!(std::abs(size.width) <= most && std::abs(size.height) <= most)) {  // which no NaN is
    throw Error(fmt::format("picture: size is {}x{}: at most {} px in either direction are expected",
                            size.width, size.height, most));
  }
  const std::uint32_t width = device_length(size.width, pixel_ratio);
  const std::uint32_t height = device_length(size.height, pixel_ratio);
  if (width > most_side || height > most_side || std::size_t{width} * height > most_pixels) {
    throw Error(fmt::format("picture: {}x{} device pixels: at most {} a side, and {} in all, are expected",
                            width, height, most_side, most_pixels));
  }
  return {.width = static_cast<int>(width), .height = static_cast<int>(height)};
}

Picture::Picture(Size size, float pixel_ratio) : pixel_ratio_(pixel_ratio) {
  const PixelBox device = draw_detail::device_box(size, pixel_ratio);
  surface_.reset(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, device.width, device.height));
  if (cairo_surface_status(surface_.get()) != CAIRO_STATUS_SUCCESS) {
    throw Error(fmt::format("picture: {}x{} at ratio {}: {}", size.width, size.height, pixel_ratio,
                            cairo_status_to_string(cairo_surface_status(surface_.get()))));
  }
}

Picture Picture::of(const Pixels& pixels) {
  if (pixels.width < 1 || pixels.height < 1)
    throw Error("picture: it has no pixels: at least one is expected");
  Picture picture({static_cast<float>(pixels.width), static_cast<float>(pixels.height)});
  unsigned char* row = cairo_image_surface_get_data(picture.surface());
  for (int y = 0; y < pixels.height; ++y, row += cairo_image_surface_get_stride(picture.surface())) {
    auto* argb = reinterpret_cast<std::uint32_t*>(row);
    for (int x = 0; x < pixels.width; ++x) {
      const Pixel& p = pixels.at(x, y);
      const std::uint32_t a = p[3];
      const auto channel = [&](std::uint8_t c, unsigned shift) { return (c * a + 127) / 255 << shift; };
      argb[x] = a << 24 | channel(p[0], 16) | channel(p[1], 8) | channel(p[2], 0);
    }
  }
  cairo_surface_mark_dirty(picture.surface());
  return picture;
}

void Picture::Destroy::operator()(_cairo_surface* surface) const { cairo_surface_destroy(surface); }

int Picture::width() const { return cairo_image_surface_get_width(surface_.get()); }
int Picture::height() const { return cairo_image_surface_get_height(surface_.get()); }

Pixel Picture::pixel(int x, int y) const {
  if (x < 0 || y < 0 || x >= width() || y >= height()) return {};
  cairo_surface_flush(surface_.get());
  const unsigned char* row = cairo_image_surface_get_data(surface_.get()) +
                             std::ptrdiff_t{y} * cairo_image_surface_get_stride(surface_.get());
  return draw_detail::pixel_of(reinterpret_cast<const std::uint32_t*>(row)[x]);
}

Pixels Picture::pixels() const { return draw_detail::pixels_of(surface_.get()); }

std::span<const std::uint32_t> Picture::row(int y) const {
  const unsigned char* data = cairo_image_surface_get_data(surface_.get()) +
                              std::ptrdiff_t{y} * cairo_image_surface_get_stride(surface_.get());
  return {reinterpret_cast<const std::uint32_t*>(data), static_cast<std::size_t>(width())};
}

void Picture::write_png(const std::filesystem::path& file) const {
  std::string bytes;
  const cairo_status_t status =
      cairo_surface_write_to_png_stream(surface_.get(), draw_detail::append_bytes, &bytes);
  if (status != CAIRO_STATUS_SUCCESS) {
    throw Error(
        fmt::format("{}: the picture cannot be encoded: {}", file.string(), cairo_status_to_string(status)));
  }
  write_file(file, bytes);
}

}  // namespace apsidon
