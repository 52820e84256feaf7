#pragma once
// Where the values of a JSON text stand; the JSON library does not tell. Not installed.
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>

namespace apsidon::files_detail {

/// Values nested deeper than this are refused, before anything recurses into them.
inline constexpr std::size_t deepest = 64;

struct Place {
  std::size_t begin = 0;  ///< of the value
  std::size_t end = 0;
  std::size_t key = 0;  ///< of its key in the object around it; as `begin` for others
};

struct Places {
  std::unordered_map<std::string, Place> by_pointer;
  std::optional<std::string> repeated;  ///< pointer of the first key that an object has twice
  std::size_t repeated_at = 0;
};

/// Where brackets outside of strings first nest deeper than `deepest`. For any text.
std::optional<std::size_t> too_deep(std::string_view text);

/// For a valid JSON text that is not too deep.
Places find_places(std::string_view text);

struct LineColumn {
  std::size_t line = 1;
  std::size_t column = 1;
};
LineColumn line_column(std::string_view text, std::size_t at);

/// One reference token of a JSON pointer: '~' and '/' escaped (RFC 6901).
std::string pointer_token(std::string_view key);

}  // namespace apsidon::files_detail
