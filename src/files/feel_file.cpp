#include "apsidon/files/feel_file.hpp"

#include "apsidon/files/read_file.hpp"
#include "files/option_json.hpp"
#include "files/verbatim.hpp"

namespace apsidon {

using namespace files_detail;

Result<Feel> parse_feel(std::string_view text, const std::filesystem::path& file) {
  return read_document<Feel>(text, file, "feel", [](const Node& top) {
    Feel feel;
    read_feel_document(top, feel);
    return feel;
  });
}

Result<Feel> load_feel(const std::filesystem::path& file) {
  const auto text = read_file(file);
  return text ? parse_feel(*text, file) : Result<Feel>(text.error());
}

std::string write_feel(const Feel& feel) {
  nlohmann::ordered_json json{{"apsidon", "feel"}, {"version", 1}};
  json.update(json_of(feel));
  return dumped(json, 2) + "\n";
}

}  // namespace apsidon
