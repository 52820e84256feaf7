#pragma once
// Where the values of a JSON text stand; the JSON library does not tell. Nothing is kept: a place is looked
// for when somebody asks. Not installed.
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>

#include "apsidon/files_export.hpp"

namespace apsidon::files_detail {

/// Values nested deeper than this are refused, before anything recurses into them.
inline constexpr std::size_t deepest = 64;

struct Place {
  std::size_t begin = 0;  ///< of the value
  std::size_t end = 0;
  std::size_t key = 0;  ///< of its key in the object around it; as `begin` for others
};

/// A key that its object has twice.
struct Repeated {
  std::string pointer;
  std::size_t key = 0;  ///< where it stands for the second time
};

/// Where brackets outside of strings first nest deeper than `deepest`. For any text.
APSIDON_FILES_EXPORT std::optional<std::size_t> too_deep(std::string_view text);

// For a valid JSON text that is not too deep. O(text).

/// Where the value at a JSON pointer stands; nothing when there is none.
APSIDON_FILES_EXPORT std::optional<Place> find_place(std::string_view text, std::string_view pointer);
APSIDON_FILES_EXPORT std::optional<Repeated> find_repeated(std::string_view text);
/// Where all values of keys of this name stand, by their pointers, but for those within one of them.
std::unordered_map<std::string, Place> find_values(std::string_view text, std::string_view key);
/// Where this word stands outside of strings, as a number would. For any text.
std::optional<std::size_t> find_number(std::string_view text, std::string_view number);

struct LineColumn {
  std::size_t line = 1;
  std::size_t column = 1;
};
LineColumn line_column(std::string_view text, std::size_t at);

/// One reference token of a JSON pointer: '~' and '/' escaped (RFC 6901).
APSIDON_FILES_EXPORT std::string pointer_token(std::string_view key);

}  // namespace apsidon::files_detail
