#pragma once
#include <numbers>

namespace apsidon {

inline constexpr float pi = std::numbers::pi_v<float>;

}  // namespace apsidon
