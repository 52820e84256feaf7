#include "apsidon/files/result.hpp"

#include <fmt/format.h>

#include <array>

#include "files/reader.hpp"
#include "geometry/utf8.hpp"

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
  return printable(fmt::format("{}: {} [{}]", text, p.message, code_of(p.code)));
}

std::string printable(std::string_view text, bool keeps_newlines) {
  return geometry_detail::printable(text, keeps_newlines);
}

}  // namespace apsidon
