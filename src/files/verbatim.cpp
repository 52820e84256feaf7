#include "files/verbatim.hpp"

namespace apsidon::files_detail {
namespace {

/// The key of a stand-in. No name of ours is empty, and within a text its quotes are written otherwise.
constexpr std::string_view no_key = "\"\": ";

}  // namespace

std::string DataTexts::of(const Node& node) {
  if (!node.has("data")) return {};
  const Node data = node.child("data");
  if (!data.json().is_object())
    data.stop(ProblemCode::wrong_type, "an object is expected: it belongs to the client");
  if (!places_) places_ = find_values(text_, "data");
  const Place& place = places_->at(data.pointer());
  return std::string(text_.substr(place.begin, place.end - place.begin));
}

nlohmann::ordered_json Verbatim::stand_in(std::string text) {
  const bool object = text.find_first_not_of(" \t\r\n") == text.find('{') && !too_deep(text) &&
                      nlohmann::json::accept(text) && !find_repeated(text);
  if (!object) throw Error("data: it is no JSON object with each key once: one is expected");
  texts_.push_back(std::move(text));
  return {{"", texts_.size() - 1}};
}

std::string Verbatim::written(const nlohmann::ordered_json& json) const {
  std::string with = dumped(json, 2) + '\n';
  if (texts_.empty()) return with;
  std::string out;
  std::size_t from = 0;
  for (std::size_t i = 0; i < texts_.size(); ++i) {
    const std::size_t at = with.find(no_key, from);
    const std::size_t begin = with.rfind('{', at);
    const std::size_t number = at + no_key.size();
    out.append(with, from, begin - from).append(texts_[std::stoul(with.substr(number))]);
    from = with.find('}', number) + 1;
  }
  return out.append(with, from);
}

}  // namespace apsidon::files_detail
