#pragma once
// Makes what a class keeps behind its header. Not installed.
#include <utility>

#include "apsidon/geometry/hidden.hpp"

namespace apsidon::geometry_detail {

template <class Inside, class... Arguments>
[[nodiscard]] Hidden<Inside> hide(Arguments&&... arguments) {
  return {new Inside(std::forward<Arguments>(arguments)...), [](Inside* inside) { delete inside; }};
}

}  // namespace apsidon::geometry_detail
