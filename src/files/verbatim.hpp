#pragma once
// The client's own objects, which are read and written to the letter. Not installed.
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "files/reader.hpp"

namespace apsidon::files_detail {

/// The text of an object's `data` object as it stands in the file; empty when there is none.
std::string data_text(const Node& node, std::string_view text);

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
