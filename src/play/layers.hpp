#pragma once
// The order of what is drawn, as numbers. Not installed.
#include <cstdint>

namespace apsidon {

// An order is a layer, then two numbers; outlines lie under everything, what is held above everything.
enum class Layer : std::uint64_t { outline, rest, raised, flight, held, zoom };

inline constexpr std::uint32_t no_item = ~std::uint32_t{0};
inline constexpr std::uint64_t no_order = ~std::uint64_t{0};

constexpr std::uint64_t order_of(Layer layer, std::uint64_t major, std::uint64_t minor) {
  return static_cast<std::uint64_t>(layer) << 60 | (major & 0xFFFFFFF) << 32 | (minor & 0xFFFFFFFF);
}

}  // namespace apsidon
