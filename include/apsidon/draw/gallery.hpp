#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "apsidon/art/card_picture.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/files/other_files.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/geometry/hidden.hpp"

namespace apsidon {

/// The pictures of an art, read from PNG files when they are first asked for. Their pixels are kept up to 256
/// MiB in all; those that nobody has asked for longest go, and are read again when they are.
class APSIDON_DRAW_EXPORT Gallery {
 public:
  /// `folder` is that of the art's file: pictures are named relative to it and, unless `others` allows more,
  /// lie there or below.
  Gallery(Art art, std::filesystem::path folder, OtherFiles others = OtherFiles::within);

  /// What the pictures are of.
  [[nodiscard]] const Art& art() const;
  /// Of a picture, px; or why it cannot be shown. A picture has at most 16384 px a side, and at most
  /// `most_pixels`, all of an art's together at most `most_pixels_of_art`; that is known before it is
  /// decoded.
  [[nodiscard]] Result<Size> size_of(const std::string& picture) const;
  /// Of a picture, its key colour made transparent; empty where it cannot be shown.
  [[nodiscard]] Pixels pixels(const std::string& picture) const;
  /// Of those that were asked for, the ones that cannot be shown, and why.
  [[nodiscard]] Problems problems() const;
  /// What the art's folder has, by the names by which it would be asked for, sorted: three folders deep, and
  /// no more than 10,000 files and folders are looked at.
  [[nodiscard]] std::vector<std::string> pictures() const;
  /// The surface of the drawing library, owned by the gallery until it is asked for another; null where it
  /// cannot be read.
  [[nodiscard]] _cairo_surface* surface(const std::string& picture) const;

 private:
  struct APSIDON_DRAW_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

}  // namespace apsidon
