#include "files/verbatim.hpp"

#include <fmt/format.h>

namespace apsidon::files_detail {
namespace {

// Starts with a control character, which no name or text of ours has a reason to hold.
std::string mark(std::size_t i) { return fmt::format("\x01verbatim {}\x01", i); }

}  // namespace

std::string data_text(const Node& node, const Places& places, std::string_view text) {
  if (!node.has("data")) return {};
  const Node data = node.child("data");
  if (!data.json().is_object())
    data.stop(ProblemCode::wrong_type, "an object is expected: it belongs to the client");
  const Place& place = places.by_pointer.at(data.pointer());
  return std::string(text.substr(place.begin, place.end - place.begin));
}

nlohmann::ordered_json Verbatim::stand_in(std::string text) {
  texts_.push_back(std::move(text));
  return mark(texts_.size() - 1);
}

std::string Verbatim::written(const nlohmann::ordered_json& json) const {
  std::string out = json.dump(2) + '\n';
  for (std::size_t i = 0; i < texts_.size(); ++i) {
    const std::string found = nlohmann::json(mark(i)).dump();
    out.replace(out.find(found), found.size(), texts_[i]);
  }
  return out;
}

}  // namespace apsidon::files_detail
