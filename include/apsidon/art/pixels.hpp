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
  std::uint8_t red = 0;
  std::uint8_t green = 0;
  std::uint8_t blue = 0;

  friend constexpr bool operator==(const Rgb&, const Rgb&) = default;
};

/// The pixels of a picture, row by row from the top left.
struct Pixels {
  int width = 0;
  int height = 0;
  std::vector<Pixel> all = {};  ///< width · height of them

  [[nodiscard]] const Pixel& at(int x, int y) const {
    return all[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
  }
  [[nodiscard]] bool empty() const { return all.empty(); }
};

}  // namespace apsidon
