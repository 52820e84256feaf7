#pragma once
// Text as UTF-8: what comes in from elsewhere may not be. Not installed.
#include <cstddef>
#include <string>
#include <string_view>

namespace apsidon::geometry_detail {

/// How many bytes the character at the beginning of a text has; 0 where no character of UTF-8 begins (RFC
/// 3629).
[[nodiscard]] inline std::size_t character_bytes(std::string_view text) {
  const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[i]); };
  if (text.empty()) return 0;
  const unsigned char first = byte(0);
  if (first < 0x80) return 1;
  const std::size_t bytes = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : 2;
  if (first < 0xC2 || first > 0xF4 || text.size() < bytes) return 0;
  // Of some first bytes not every second one is a character, or the shortest way to write it.
  const unsigned char least = first == 0xE0 ? 0xA0 : first == 0xF0 ? 0x90 : 0x80;
  const unsigned char most = first == 0xED ? 0x9F : first == 0xF4 ? 0x8F : 0xBF;
  if (byte(1) < least || byte(1) > most) return 0;
  for (std::size_t i = 2; i < bytes; ++i) {
    if (byte(i) < 0x80 || byte(i) > 0xBF) return 0;
  }
  return bytes;
}

[[nodiscard]] inline bool is_utf8(std::string_view text) {
  while (!text.empty()) {
    const std::size_t bytes = character_bytes(text);
    if (bytes == 0) return false;
    text.remove_prefix(bytes);
  }
  return true;
}

/// The text with U+FFFD in place of each byte that belongs to no character.
[[nodiscard]] inline std::string as_utf8(std::string_view text) {
  std::string out;
  while (!text.empty()) {
    const std::size_t bytes = character_bytes(text);
    out += bytes == 0 ? std::string_view("\xEF\xBF\xBD") : text.substr(0, bytes);
    text.remove_prefix(bytes == 0 ? 1 : bytes);
  }
  return out;
}

}  // namespace apsidon::geometry_detail
