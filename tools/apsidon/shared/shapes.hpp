#pragma once
// Window shapes that a table should be tried in.
#include <array>
#include <string_view>

#include "apsidon/geometry/rect.hpp"

namespace apsidon::tool {

struct Shape {
  std::string_view name;
  Size size;  ///< logical px
};

inline constexpr std::array<Shape, 12> shapes{{
    {"small phone, upright", {320, 480}},
    {"phone, upright", {390, 844}},
    {"phone, on its side", {844, 390}},
    {"large phone, upright", {430, 932}},
    {"small tablet, upright", {744, 1133}},
    {"tablet, upright", {820, 1180}},
    {"tablet, on its side", {1180, 820}},
    {"small laptop", {1280, 800}},
    {"laptop", {1440, 900}},
    {"desktop", {1920, 1080}},
    {"large desktop", {2560, 1440}},
    {"television", {3840, 2160}},
}};

}  // namespace apsidon::tool
