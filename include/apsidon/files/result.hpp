#pragma once
#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "apsidon/files_export.hpp"

namespace apsidon {

/// What is wrong with a file. Each has a stable code, "unknown-key"; docs/errors.md lists them.
enum class ProblemCode : std::uint8_t {
  cannot_read,    ///< the file is not there, or may not be read
  not_json,       ///< the text is no JSON
  wrong_format,   ///< JSON, but of another kind or version
  repeated_key,   ///< an object has a key twice
  unknown_key,    ///< a key that means nothing here
  missing_key,    ///< a key that must be there is not
  wrong_type,     ///< a text where a number is wanted, …
  out_of_range,   ///< a number outside its range
  unknown_name,   ///< a zone, face, suit, rank, layout or rule of that name is not known
  repeated_name,  ///< a name or number that must be unique is not
  too_many,       ///< more of a thing than there can be
  misplaced,      ///< a plan does not place every zone exactly once
  too_large,      ///< the file is larger than is read
  outside,        ///< it names a file outside of its own folder
  not_png,        ///< a picture is no PNG, or a broken one
};

/// How many codes there are.
inline constexpr int problem_code_count = static_cast<int>(ProblemCode::not_png) + 1;

/// "unknown-key". Never changes once released.
[[nodiscard]] APSIDON_FILES_EXPORT std::string_view code_of(ProblemCode code);

/// One thing that is wrong with a file, and where.
struct Problem {
  ProblemCode code = ProblemCode::cannot_read;  ///< what is wrong, for programs
  std::string file = {};                        ///< as it was asked for
  std::string pointer = {};  ///< JSON pointer (RFC 6901) of the value; empty for the whole file
  std::size_t line = 0;      ///< from 1; 0 when the file has no such place
  std::size_t column = 0;    ///< from 1, in bytes
  std::string message = {};  ///< what was found and what is expected

  friend bool operator==(const Problem&, const Problem&) = default;
};

/// What is wrong with a file, in the order of its lines.
using Problems = std::vector<Problem>;

/// "bench.table.json:12:5: /zones/3/strip: unknown key 'strip': … [unknown-key]". One line, `printable`.
[[nodiscard]] APSIDON_FILES_EXPORT std::string describe(const Problem& problem);

/// A text of a stranger's as it may be shown in a terminal: "\\x1b" or "\\u202e" in place of each control
/// character, of what turns the direction of a text, and of each byte that is not UTF-8. In the texts of JSON
/// these say the same. O(text).
[[nodiscard]] APSIDON_FILES_EXPORT std::string printable(std::string_view text, bool keeps_newlines = false);

/// A value, or the problems that kept it from being made. Members are named as those of std::expected.
template <class T>
class Result {
 public:
  Result(T value) : state_(std::in_place_index<0>, std::move(value)) {}  ///< what was read
  /// Why nothing was; at least one.
  Result(Problems problems) : state_(std::in_place_index<1>, std::move(problems)) {}
  /// Likewise, one alone.
  Result(Problem problem) : state_(std::in_place_index<1>, Problems{std::move(problem)}) {}

  /// Whether it was read.
  [[nodiscard]] bool has_value() const { return state_.index() == 0; }
  /// The same: `if (result)`.
  explicit operator bool() const { return has_value(); }

  /// Only when there is a value.
  [[nodiscard]] T& value() & { return std::get<0>(state_); }
  /// What was read; throws std::bad_variant_access when nothing was, as the next six do.
  [[nodiscard]] const T& value() const& { return std::get<0>(state_); }
  /// Likewise, to be taken.
  [[nodiscard]] T&& value() && { return std::get<0>(std::move(state_)); }
  T& operator*() & { return value(); }                     ///< the same as `value()`
  const T& operator*() const& { return value(); }          ///< the same as `value()`
  T&& operator*() && { return std::move(*this).value(); }  ///< the same as `value()`
  T* operator->() { return &value(); }                     ///< a member of it
  const T* operator->() const { return &value(); }         ///< a member of it

  /// Only when there is none; at least one.
  [[nodiscard]] const Problems& error() const { return std::get<1>(state_); }

 private:
  std::variant<T, Problems> state_;
};

}  // namespace apsidon
