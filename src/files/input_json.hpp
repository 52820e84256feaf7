#pragma once
// One line of an input log. Not installed.
#include <filesystem>
#include <nlohmann/json.hpp>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::files_detail {

inline constexpr double most_px = most_input_px;
inline constexpr double most_seconds = most_input_seconds;

[[nodiscard]] nlohmann::ordered_json json_of(const play_detail::AnyInput& input, const TableSetup& setup);
[[nodiscard]] play_detail::AnyInput read_input(const Node& node, const TableSetup& setup);

}  // namespace apsidon::files_detail
