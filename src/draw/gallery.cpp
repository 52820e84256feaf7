#include "apsidon/draw/gallery.hpp"

#include <algorithm>
#include <map>

#include "draw/canvas.hpp"

namespace apsidon {

using namespace draw_detail;

struct Gallery::Impl {
  struct Destroy {
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
  };
  using Surface = std::unique_ptr<cairo_surface_t, Destroy>;

  Art art;
  std::filesystem::path folder;
  std::map<std::string, Surface> read = {};
};

Gallery::Gallery(Art art, std::filesystem::path folder)
    : impl_(std::make_unique<Impl>(Impl{std::move(art), std::move(folder)})) {}
Gallery::Gallery(Gallery&&) noexcept = default;
Gallery& Gallery::operator=(Gallery&&) noexcept = default;
Gallery::~Gallery() = default;

const Art& Gallery::art() const { return impl_->art; }

_cairo_surface* Gallery::surface(const std::string& picture) const {
  const auto [at, fresh] = impl_->read.try_emplace(picture);
  if (fresh) {
    at->second.reset(cairo_image_surface_create_from_png((impl_->folder / picture).c_str()));
    if (cairo_surface_status(at->second.get()) != CAIRO_STATUS_SUCCESS) at->second.reset();
  }
  return at->second.get();
}

std::optional<Size> Gallery::size_of(const std::string& picture) const {
  cairo_surface_t* s = surface(picture);
  if (!s) return std::nullopt;
  return Size{static_cast<float>(cairo_image_surface_get_width(s)),
              static_cast<float>(cairo_image_surface_get_height(s))};
}

std::vector<std::string> Gallery::pictures() const {
  std::vector<std::string> names;
  std::error_code error;
  for (std::filesystem::recursive_directory_iterator it(impl_->folder, error), end; !error && it != end;
       it.increment(error)) {
    if (it->path().extension() == ".png") {
      names.push_back(std::filesystem::relative(it->path(), impl_->folder).generic_string());
    }
  }
  std::sort(names.begin(), names.end());
  return names;
}

}  // namespace apsidon
