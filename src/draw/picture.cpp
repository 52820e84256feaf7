#include "apsidon/draw/picture.hpp"

#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

int device_length(float logical, float ratio) {
  const float px = std::ceil(logical * ratio - 1e-3f);
  return static_cast<int>(std::clamp(px, 1.0f, 16384.0f));
}

}  // namespace

Picture::Picture(Size size, float pixel_ratio) : pixel_ratio_(pixel_ratio) {
  if (!(std::isfinite(pixel_ratio) && pixel_ratio > 0)) {
    throw Error(fmt::format("picture: pixel ratio is {}: a positive number is expected", pixel_ratio));
  }
  if (!std::isfinite(size.width) || !std::isfinite(size.height)) {
    throw Error(fmt::format("picture: size is {}x{}: finite numbers are expected", size.width, size.height));
  }
  surface_.reset(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, device_length(size.width, pixel_ratio),
                                            device_length(size.height, pixel_ratio)));
  if (cairo_surface_status(surface_.get()) != CAIRO_STATUS_SUCCESS) {
    throw Error(fmt::format("picture: {}x{} at ratio {}: {}", size.width, size.height, pixel_ratio,
                            cairo_status_to_string(cairo_surface_status(surface_.get()))));
  }
}

Picture::Picture(Picture&&) noexcept = default;
Picture& Picture::operator=(Picture&&) noexcept = default;
Picture::~Picture() = default;

void Picture::Destroy::operator()(_cairo_surface* surface) const { cairo_surface_destroy(surface); }

int Picture::width() const { return cairo_image_surface_get_width(surface_.get()); }
int Picture::height() const { return cairo_image_surface_get_height(surface_.get()); }

Pixel Picture::pixel(int x, int y) const {
  if (x < 0 || y < 0 || x >= width() || y >= height()) return {};
  cairo_surface_flush(surface_.get());
  const unsigned char* row = cairo_image_surface_get_data(surface_.get()) +
                             std::ptrdiff_t{y} * cairo_image_surface_get_stride(surface_.get());
  const std::uint32_t argb = reinterpret_cast<const std::uint32_t*>(row)[x];
  const std::uint32_t a = argb >> 24;
  const auto channel = [&](unsigned shift) {
    const std::uint32_t c = (argb >> shift) & 255;
    return static_cast<std::uint8_t>(a == 0 ? 0 : std::min<std::uint32_t>(255, (c * 255 + a / 2) / a));
  };
  return {channel(16), channel(8), channel(0), static_cast<std::uint8_t>(a)};
}

void Picture::write_png(const std::filesystem::path& file) const {
  const cairo_status_t status = cairo_surface_write_to_png(surface_.get(), file.c_str());
  if (status != CAIRO_STATUS_SUCCESS) {
    throw Error(
        fmt::format("{}: the picture cannot be written: {}", file.string(), cairo_status_to_string(status)));
  }
}

}  // namespace apsidon
