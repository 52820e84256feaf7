#pragma once
// What sentences are made with. Not installed.
#include <string>
#include <utility>

namespace apsidon {

/// Begins with a capital letter, whatever name stands first; other alphabets than Latin stay as they are.
inline std::string as_sentence(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

}  // namespace apsidon
