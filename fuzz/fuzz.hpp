#pragma once
// What the targets share.
#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>

#include "apsidon/files/result.hpp"

namespace apsidon::fuzz {

inline std::string_view text_of(const std::uint8_t* data, std::size_t size) {
  return {reinterpret_cast<const char*>(data), size};
}

/// Ends the run with what does not hold.
[[noreturn]] inline void fail(std::string_view what) {
  std::fprintf(stderr, "does not hold: %.*s\n", static_cast<int>(what.size()), what.data());
  std::abort();
}

inline void expect(bool holds, std::string_view what) {
  if (!holds) fail(what);
}

/// A refusal says what is wrong, on one line that is not endless.
inline void expect_sentence(const Problems& problems) {
  expect(!problems.empty(), "a refusal has a problem");
  for (const Problem& problem : problems) {
    const std::string line = describe(problem);
    expect(!problem.message.empty() && line.size() < 3000 && line.find('\n') == std::string::npos,
           "a refusal is one line: " + line.substr(0, 300));
  }
}

}  // namespace apsidon::fuzz
