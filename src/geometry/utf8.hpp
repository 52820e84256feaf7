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

/// The code point of the character that a text begins with, which has so many bytes (at least 1).
[[nodiscard]] inline char32_t code_point(std::string_view text, std::size_t bytes) {
  const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[i]); };
  if (bytes == 1) return byte(0);
  char32_t point = byte(0) & (0x7Fu >> bytes);
  for (std::size_t i = 1; i < bytes; ++i) point = (point << 6) | (byte(i) & 0x3Fu);
  return point;
}

/// What does more than be shown: control characters (C0, DEL, C1), line and paragraph separators, and what
/// turns the direction of the text around it (Unicode Standard Annex 9).
[[nodiscard]] inline bool is_control(char32_t point) {
  return point < 0x20 || (point >= 0x7F && point < 0xA0) || (point >= 0x2028 && point <= 0x202E) ||
         (point >= 0x2066 && point <= 0x2069);
}
/// Marks of a direction, which texts from right to left may need, and nobody sees.
[[nodiscard]] inline bool is_mark(char32_t point) {
  return point == 0x200E || point == 0x200F || point == 0x061C || point == 0xFEFF;
}

/// A text as it may be printed: "\x1b" or "\u202e" in place of each control character and mark, and of each
/// byte that belongs to no character. In the texts of JSON "\u202e" is the same character.
[[nodiscard]] inline std::string printable(std::string_view text, bool keeps_newlines) {
  constexpr std::string_view digits = "0123456789abcdef";
  std::string out;
  const auto escape = [&](char kind, char32_t number, int count) {
    out += '\\';
    out += kind;
    for (int i = count - 1; i >= 0; --i) out += digits[(number >> (4 * i)) & 0xF];
  };
  while (!text.empty()) {
    const std::size_t bytes = character_bytes(text);
    const char32_t point = bytes == 0 ? static_cast<unsigned char>(text.front()) : code_point(text, bytes);
    const bool plain = bytes > 0 && !is_control(point) && !is_mark(point);
    if (plain || (point == '\n' && keeps_newlines)) {
      out += text.substr(0, bytes);
    } else {
      escape(bytes < 2 ? 'x' : 'u', point, bytes < 2 ? 2 : 4);
    }
    text.remove_prefix(bytes == 0 ? 1 : bytes);
  }
  return out;
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
