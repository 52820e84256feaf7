#include "apsidon/files/result.hpp"

#include <fmt/format.h>

#include <array>

#include "files/reader.hpp"

namespace apsidon {

std::string_view code_of(ProblemCode code) {
  static constexpr std::array<std::string_view, problem_code_count> codes{
      "cannot-read", "not-json",   "wrong-format", "repeated-key", "unknown-key",
      "missing-key", "wrong-type", "out-of-range", "unknown-name", "repeated-name",
      "too-many",    "misplaced",  "too-large",    "outside",      "not-png"};
  const auto i = static_cast<std::size_t>(code);
  return i < codes.size() ? codes[i] : "unknown-code";
}

std::string describe(const Problem& p) {
  std::string text = p.file;
  if (p.line > 0) text += fmt::format(":{}:{}", p.line, p.column);
  if (!p.pointer.empty()) text += ": " + files_detail::shown(p.pointer, 300);
  return fmt::format("{}: {} [{}]", text, p.message, code_of(p.code));
}

}  // namespace apsidon
