#pragma once
// The client's own objects, which are read and written to the letter. Not installed.
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

#include "files/reader.hpp"

namespace apsidon::files_detail {

/// JSON as text. What is not UTF-8 in it is replaced, so that what was written can be read, and nothing is
/// thrown that is not ours.
[[nodiscard]] inline std::string dumped(const nlohmann::ordered_json& json, int indent = -1) {
  return json.dump(indent, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

/// The `data` objects of a document as they stand in its text, all found at the first question.
class DataTexts {
 public:
  explicit DataTexts(std::string_view text) : text_(text) {}
  /// That of an object; empty when it has none.
  [[nodiscard]] std::string of(const Node& node);

 private:
  std::string_view text_;
  std::optional<std::unordered_map<std::string, Place>> places_ = {};
};

/// Puts texts into a document that the JSON library writes: a stand-in goes in, and is exchanged in what
/// comes out.
class Verbatim {
 public:
  nlohmann::ordered_json stand_in(std::string text);
  /// The document with two spaces a level, the texts in their places, and a line feed at its end.
  [[nodiscard]] std::string written(const nlohmann::ordered_json& json) const;

 private:
  std::vector<std::string> texts_;
};

}  // namespace apsidon::files_detail
