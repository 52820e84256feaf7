#include <fmt/format.h>
#include <webp/encode.h>
#include <webp/mux.h>

#include <cairo.h>
#include <cmath>
#include <string>

#include "apsidon/files/write_file.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/studio/moving.hpp"
#include "geometry/hide.hpp"

namespace apsidon {

struct MovingPicture::Impl {
  int width;
  int height;
  double last = 0;
  bool any = false;
  WebPAnimEncoder* encoder = nullptr;

  Impl(int w, int h, bool loops) : width(w), height(h) {
    WebPAnimEncoderOptions options;
    WebPAnimEncoderOptionsInit(&options);
    options.anim_params.loop_count = loops ? 0 : 1;
    options.allow_mixed = 1;
    encoder = WebPAnimEncoderNew(w, h, &options);
    if (!encoder) throw Error(fmt::format("moving picture: {}x{} pixels cannot be encoded", w, h));
  }
  Impl(const Impl&) = delete;
  Impl& operator=(const Impl&) = delete;
  ~Impl() { WebPAnimEncoderDelete(encoder); }

  /// The format counts whole milliseconds.
  static int milliseconds(double seconds) { return static_cast<int>(std::lround(seconds * 1000)); }
};

MovingPicture::MovingPicture(int width, int height, bool loops) : impl_(nullptr, nullptr) {
  if (width < 1 || height < 1 || width > 16383 || height > 16383) {
    throw Error(fmt::format("moving picture: {}x{} pixels: 1 to 16383 in either direction are expected",
                            width, height));
  }
  impl_ = geometry_detail::hide<Impl>(width, height, loops);
}

void MovingPicture::add(const Picture& picture, double seconds) {
  if (picture.width() != impl_->width || picture.height() != impl_->height) {
    throw Error(fmt::format("moving picture: a frame of {}x{} pixels: {}x{} is expected", picture.width(),
                            picture.height(), impl_->width, impl_->height));
  }
  if (!(seconds >= 0) || (impl_->any && Impl::milliseconds(seconds) <= Impl::milliseconds(impl_->last))) {
    throw Error(fmt::format("moving picture: a frame at {} s after one at {} s: a later time is expected",
                            seconds, impl_->last));
  }
  WebPConfig config;
  WebPConfigInit(&config);
  config.quality = 82;
  config.method = 2;
  WebPPicture frame;
  WebPPictureInit(&frame);
  frame.use_argb = 1;
  frame.width = impl_->width;
  frame.height = impl_->height;
  bool good = WebPPictureAlloc(&frame) != 0;
  if (good) {
    const Pixels pixels = picture.pixels();
    for (int y = 0; y < impl_->height; ++y) {
      for (int x = 0; x < impl_->width; ++x) {
        const Pixel& p = pixels.at(x, y);
        frame.argb[y * frame.argb_stride + x] = static_cast<std::uint32_t>(p[3]) << 24 |
                                                static_cast<std::uint32_t>(p[0]) << 16 |
                                                static_cast<std::uint32_t>(p[1]) << 8 | p[2];
      }
    }
    good = WebPAnimEncoderAdd(impl_->encoder, &frame, Impl::milliseconds(seconds), &config) != 0;
  }
  WebPPictureFree(&frame);
  if (!good) throw Error(fmt::format("moving picture: {}", WebPAnimEncoderGetError(impl_->encoder)));
  impl_->any = true;
  impl_->last = seconds;
}

void MovingPicture::write(const std::filesystem::path& file, double ends) {
  if (!impl_->any) throw Error("moving picture: no frames: at least one is expected");
  WebPAnimEncoderAdd(impl_->encoder, nullptr,
                     std::max(Impl::milliseconds(ends), Impl::milliseconds(impl_->last) + 1), nullptr);
  WebPData data;
  WebPDataInit(&data);
  const bool good = WebPAnimEncoderAssemble(impl_->encoder, &data) != 0;
  std::string bytes;
  if (good) bytes.assign(reinterpret_cast<const char*>(data.bytes), data.size);
  WebPDataClear(&data);
  if (!good) throw Error(fmt::format("{}: the moving picture cannot be encoded", file.string()));
  write_file(file, bytes);
}

}  // namespace apsidon
