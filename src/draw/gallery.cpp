#include "apsidon/draw/gallery.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>
#include <map>
#include <string_view>
#include <utility>

#include "apsidon/files/read_file.hpp"
#include "draw/canvas.hpp"
#include "geometry/hide.hpp"

namespace apsidon {

using namespace draw_detail;

namespace {

/// What a PNG says of itself in its first bytes (PNG specification, 5.2 and 11.2.2).
std::optional<std::pair<std::uint32_t, std::uint32_t>> png_size(std::string_view bytes) {
  constexpr std::string_view begin("\x89PNG\r\n\x1A\n\0\0\0\x0DIHDR", 16);
  if (!bytes.starts_with(begin) || bytes.size() < 24) return std::nullopt;
  const auto number = [&](std::size_t at) {
    std::uint32_t n = 0;
    for (std::size_t i = at; i < at + 4; ++i) n = n << 8 | static_cast<unsigned char>(bytes[i]);
    return n;
  };
  return std::pair{number(16), number(20)};
}

std::string_view kind_of(std::string_view bytes) {
  if (bytes.starts_with("\xFF\xD8\xFF")) return "a JPEG";
  if (bytes.starts_with("RIFF")) return "a WebP";
  if (bytes.starts_with("GIF8")) return "a GIF";
  if (bytes.starts_with("<svg") || bytes.starts_with("<?xml")) return "an SVG";
  return bytes.empty() ? "empty" : "no PNG";
}

/// Reads from what is left of the bytes.
cairo_status_t read_on(void* rest, unsigned char* into, unsigned length) {
  auto& bytes = *static_cast<std::string_view*>(rest);
  if (bytes.size() < length) return CAIRO_STATUS_READ_ERROR;
  std::copy_n(bytes.begin(), length, into);
  bytes.remove_prefix(length);
  return CAIRO_STATUS_SUCCESS;
}

Problem no_memory(const std::filesystem::path& file, std::uint32_t width, std::uint32_t height) {
  return {.code = ProblemCode::too_large,
          .file = file.string(),
          .message = fmt::format("there is not enough memory for its {}x{} px: a smaller picture is expected",
                                 width, height)};
}

/// `others`: px of the art's other pictures. `px` becomes that of this one when it is decoded, broken or not.
Result<Surface> read_png(const std::filesystem::path& file, std::size_t others, std::size_t& px) {
  const auto refused = [&](ProblemCode code, std::string message) {
    return Problem{.code = code, .file = file.string(), .message = std::move(message)};
  };
  const auto bytes = read_file(file);
  if (!bytes) {
    Problem problem = bytes.error().front();
    std::error_code error;
    if (std::filesystem::exists(file, error))
      problem.code = ProblemCode::not_png;  // a pipe, say: it is there
    return problem;
  }
  const auto size = png_size(*bytes);
  if (!size)
    return refused(ProblemCode::not_png, fmt::format("it is {}: a PNG is expected", kind_of(*bytes)));
  const auto [width, height] = *size;
  if (width > most_side || height > most_side || std::size_t{width} * height > most_pixels) {
    return refused(ProblemCode::too_large,
                   fmt::format("it has {}x{} px: at most {} a side, and {} in all, are expected", width,
                               height, most_side, most_pixels));
  }
  const std::size_t own = std::size_t{width} * height;
  if (others + own > most_pixels_of_art) {
    return refused(
        ProblemCode::too_large,
        fmt::format(
            "it has {}x{} px, with which the art's pictures come to {}: at most {} in all are expected",
            width, height, others + own, most_pixels_of_art));
  }
  px = own;
  std::string_view rest = *bytes;
  Surface surface(cairo_image_surface_create_from_png_stream(read_on, &rest));
  const cairo_status_t status = cairo_surface_status(surface.get());
  if (status == CAIRO_STATUS_SUCCESS) return surface;
  if (status == CAIRO_STATUS_NO_MEMORY) return no_memory(file, width, height);
  return refused(ProblemCode::not_png, "it is broken: a whole PNG is expected");
}

/// The same picture without the pixels of a colour.
Surface without(const Surface& picture, const Rgb& colour) {
  const int width = cairo_image_surface_get_width(picture.get());
  const int height = cairo_image_surface_get_height(picture.get());
  Surface out(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, width, height));
  if (cairo_surface_status(out.get()) != CAIRO_STATUS_SUCCESS) return out;
  const Canvas canvas(cairo_create(out.get()));
  cairo_set_source_surface(canvas.get(), picture.get(), 0, 0);
  cairo_paint(canvas.get());
  cairo_surface_flush(out.get());
  const std::uint32_t key = 0xFF000000u | std::uint32_t{colour.red} << 16 | std::uint32_t{colour.green} << 8 |
                            std::uint32_t{colour.blue};
  unsigned char* row = cairo_image_surface_get_data(out.get());
  for (int y = 0; y < height; ++y, row += cairo_image_surface_get_stride(out.get())) {
    auto* argb = reinterpret_cast<std::uint32_t*>(row);
    std::replace(argb, argb + width, key, 0u);
  }
  cairo_surface_mark_dirty(out.get());
  return out;
}

}  // namespace

struct Gallery::Impl {
  /// A picture that was asked for: its size or what is wrong with it, which is kept, and its pixels, of which
  /// only so many are.
  struct Entry {
    Result<Size> size;
    Surface pixels = {};
    std::uint64_t asked = 0;  // when, by a count of all questions
    std::size_t px = 0;       // of those that the art may have in all
  };

  Result<Surface> load(const std::string& name, std::size_t others_px, std::size_t& px) const {
    const auto file = other_file(folder, name, others);
    Result<Surface> picture = file ? read_png(*file, others_px, px) : Result<Surface>(file.error());
    if (!picture || !art.key_colour) return picture;
    Surface keyed = without(*picture, *art.key_colour);
    if (cairo_surface_status(keyed.get()) == CAIRO_STATUS_SUCCESS) return keyed;
    const Size size = size_of(picture->get());
    return no_memory(*file, static_cast<std::uint32_t>(size.width), static_cast<std::uint32_t>(size.height));
  }

  static Size size_of(cairo_surface_t* surface) {
    return {static_cast<float>(cairo_image_surface_get_width(surface)),
            static_cast<float>(cairo_image_surface_get_height(surface))};
  }
  static std::size_t bytes_of(cairo_surface_t* surface) {
    return static_cast<std::size_t>(cairo_image_surface_get_stride(surface)) *
           static_cast<std::size_t>(cairo_image_surface_get_height(surface));
  }

  Entry& picture(const std::string& name) {
    const auto [at, is_new] = read.try_emplace(name, Entry{.size = Size{}});
    Entry& entry = at->second;
    entry.asked = ++questions;
    if (!entry.size || entry.pixels) return entry;
    all_px -= std::exchange(entry.px, 0);
    Result<Surface> loaded = load(name, all_px, entry.px);
    all_px += entry.px;
    if (!loaded) {
      entry.size = loaded.error();  // also where it was there before, and is not any more
      return entry;
    }
    entry.size = size_of(loaded->get());
    entry.pixels = *std::move(loaded);
    kept += bytes_of(entry.pixels.get());
    forget_old(entry);
    return entry;
  }

  /// Those that nobody has asked for longest go first; the one that is asked for now stays, however large.
  void forget_old(const Entry& but) {
    while (kept > most_kept_bytes) {
      Entry* oldest = nullptr;
      for (auto& [name, entry] : read) {
        if (entry.pixels && &entry != &but && (!oldest || entry.asked < oldest->asked)) oldest = &entry;
      }
      if (!oldest) return;
      kept -= bytes_of(oldest->pixels.get());
      oldest->pixels.reset();
    }
  }

  static constexpr std::size_t most_kept_bytes = std::size_t{256} * 1024 * 1024;

  Art art;
  std::filesystem::path folder;
  OtherFiles others;
  std::map<std::string, Entry> read = {};
  std::size_t kept = 0;    // bytes of pixels
  std::size_t all_px = 0;  // of what was decoded, kept or not
  std::uint64_t questions = 0;
};

Gallery::Gallery(Art art, std::filesystem::path folder, OtherFiles others)
    : impl_(geometry_detail::hide<Impl>(
          Impl{std::move(art), folder.empty() ? "." : std::move(folder), others})) {}

const Art& Gallery::art() const { return impl_->art; }

_cairo_surface* Gallery::surface(const std::string& picture) const {
  return impl_->picture(picture).pixels.get();
}

Result<Size> Gallery::size_of(const std::string& picture) const {
  // Known of one whose pixels were forgotten, too.
  const auto at = impl_->read.find(picture);
  return at != impl_->read.end() ? at->second.size : impl_->picture(picture).size;
}

Pixels Gallery::pixels(const std::string& picture) const {
  _cairo_surface* image = surface(picture);
  return image ? pixels_of(image) : Pixels{};
}

Problems Gallery::problems() const {
  Problems all;
  for (const auto& [name, picture] : impl_->read) {
    if (!picture.size) all.push_back(picture.size.error().front());
  }
  return all;
}

std::vector<std::string> Gallery::pictures() const {
  constexpr int deepest = 2;
  constexpr int most_looked_at = 10'000;
  std::vector<std::string> names;
  std::error_code error;
  const auto skip = std::filesystem::directory_options::skip_permission_denied;
  std::filesystem::recursive_directory_iterator it(impl_->folder, skip, error);
  for (int i = 0; !error && it != std::filesystem::end(it) && i < most_looked_at; ++i, it.increment(error)) {
    if (it.depth() >= deepest) it.disable_recursion_pending();
    if (it->path().extension() == ".png")
      names.push_back(it->path().lexically_relative(impl_->folder).generic_string());
  }
  std::sort(names.begin(), names.end());
  return names;
}

}  // namespace apsidon
