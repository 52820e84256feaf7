#pragma once
// JSON as somebody has laid it out: single values are exchanged in it, and all else stays to the letter.
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

namespace apsidon::tool {

/// Keys of objects and indices of arrays, written as numbers, from the outermost to the value.
using JsonPath = std::vector<std::string>;

class JsonText {
 public:
  /// The text is JSON.
  explicit JsonText(std::string text) : text_(std::move(text)) {}

  /// Exchanges a value, or adds a key to an object that is there. Returns whether it could.
  bool set(const JsonPath& path, const nlohmann::ordered_json& value);
  /// Takes a key out of its object; nothing where it has none of that name.
  void erase(const JsonPath& path);
  [[nodiscard]] const std::string& text() const { return text_; }

 private:
  std::string text_;
};

}  // namespace apsidon::tool
