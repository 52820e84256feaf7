#pragma once
// What a function of the game's throws ends here. Not installed.
#include <exception>
#include <optional>
#include <string>

#include "geometry/utf8.hpp"

namespace apsidon::geometry_detail {

/// Calls a function that is not ours. What it threw, as text; nothing when it returned.
template <class Function>
std::optional<std::string> thrown_by(Function function) {
  try {
    function();
  } catch (const std::exception& e) {
    return as_utf8(e.what());
  } catch (...) {
    return "something that is no std::exception";
  }
  return std::nullopt;
}

}  // namespace apsidon::geometry_detail
