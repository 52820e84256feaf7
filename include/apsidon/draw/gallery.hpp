#pragma once
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/art/art.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"

namespace apsidon {

/// The pictures of an art, read from PNG files when they are first asked for.
class APSIDON_DRAW_EXPORT Gallery {
 public:
  /// `folder` is that of the art's file: pictures are named relative to it.
  Gallery(Art art, std::filesystem::path folder);
  Gallery(Gallery&&) noexcept;
  Gallery& operator=(Gallery&&) noexcept;
  ~Gallery();

  [[nodiscard]] const Art& art() const;
  /// Of a picture, px; nothing where it cannot be read.
  [[nodiscard]] std::optional<Size> size_of(const std::string& picture) const;
  /// What the art's folder has, by the names by which it would be asked for, sorted.
  [[nodiscard]] std::vector<std::string> pictures() const;
  /// The surface of the drawing library, owned by the gallery; null where it cannot be read.
  [[nodiscard]] _cairo_surface* surface(const std::string& picture) const;

 private:
  struct APSIDON_DRAW_NO_EXPORT Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon
