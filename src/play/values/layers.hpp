#pragma once
// The drawing order, as integer keys. Not installed.
#include <cstdint>

#include "apsidon/cards/ids.hpp"

namespace apsidon::play_detail {

// A key is a layer, then two numbers. Outlines lie under everything, the preview above everything.
enum class Layer : std::uint64_t { outline, rest, raised, flight, held, preview };

inline constexpr std::uint32_t no_item = ~std::uint32_t{0};
inline constexpr std::uint64_t no_order = ~std::uint64_t{0};

constexpr std::uint64_t order_of(Layer layer, std::uint64_t major, std::uint64_t minor) {
  return static_cast<std::uint64_t>(layer) << 60 | (major & 0xFFFFFFF) << 32 | (minor & 0xFFFFFFFF);
}

/// `rank` is the zone's among all that lie one over another.
constexpr std::uint64_t rest_order(std::uint32_t rank, std::uint64_t index) {
  return order_of(Layer::rest, rank, index);
}

constexpr std::uint64_t flight_order(std::uint64_t departure) {
  return order_of(Layer::flight, 0, departure);
}

}  // namespace apsidon::play_detail
