#pragma once
// What sentences are made with. Not installed.
#include <optional>
#include <string>
#include <string_view>
#include <utility>

namespace apsidon {

/// Begins with a capital letter, whatever name stands first; other alphabets than Latin stay as they are.
inline std::string as_sentence(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

/// A template of the game's own. It may be of a file, and name what is not known here: so it is filled in
/// word by word, and never fails. `value_of` gives what stands for a name, or nothing.
template <class ValueOf>
std::string filled_in(std::string_view text, ValueOf value_of) {
  std::string out;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = text[at] == '{' ? text.find('}', at) : std::string_view::npos;
    const std::optional<std::string> value =
        end == std::string_view::npos ? std::nullopt : value_of(text.substr(at + 1, end - at - 1));
    if (value) {
      out += *value;
      at = end + 1;
    } else {
      out += text[at++];
    }
  }
  return out;
}

}  // namespace apsidon
