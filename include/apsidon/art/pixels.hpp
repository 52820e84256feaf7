#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace apsidon {

/// Red, green, blue, opacity, 0 to 255, not premultiplied.
using Pixel = std::array<std::uint8_t, 4>;

/// Red, green, blue, 0 to 255; "#RRGGBB" in files.
struct Rgb {
  std::uint8_t red = 0;    ///< as it is on the screen
  std::uint8_t green = 0;  ///< likewise
  std::uint8_t blue = 0;   ///< likewise

  friend constexpr bool operator==(const Rgb&, const Rgb&) = default;
};

/// The pixels of a picture, row by row from the top left.
struct Pixels {
  int width = 0;                ///< px of the device
  int height = 0;               ///< px of the device
  std::vector<Pixel> all = {};  ///< width · height of them

  /// The pixel of column `x` and row `y`, both from 0 and within the picture.
  [[nodiscard]] const Pixel& at(int x, int y) const {
    return all[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
  }
  [[nodiscard]] bool empty() const { return all.empty(); }  ///< no pixels at all
};

}  // namespace apsidon
