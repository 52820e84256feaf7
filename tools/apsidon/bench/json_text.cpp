#include "bench/json_text.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <string_view>

#include "files/places.hpp"

namespace apsidon::tool {
namespace {

using Json = nlohmann::ordered_json;
using files_detail::Place;

std::string pointer_of(std::span<const std::string> path) {
  std::string pointer;
  for (const std::string& key : path) pointer += '/' + files_detail::pointer_token(key);
  return pointer;
}

/// An object or an array of the text: where it stands, and its keys, of an array its indices, in order.
struct Around {
  std::string pointer;
  Place place = {};
  bool object = false;
  std::vector<std::string> keys = {};

  [[nodiscard]] Place member(const std::string& text, std::size_t i) const {
    return *files_detail::find_place(text, pointer + '/' + files_detail::pointer_token(keys[i]));
  }
};

/// What holds the value that a path leads to; nothing where no object or array does.
std::optional<Around> around(const std::string& text, const JsonPath& path) {
  if (path.empty()) return std::nullopt;
  Around out{.pointer = pointer_of(std::span(path).first(path.size() - 1))};
  const auto place = files_detail::find_place(text, out.pointer);
  if (!place || (text[place->begin] != '{' && text[place->begin] != '[')) return std::nullopt;
  out.place = *place;
  out.object = text[place->begin] == '{';
  const Json value = Json::parse(text.substr(place->begin, place->end - place->begin));
  for (const auto& item : value.items()) out.keys.push_back(item.key());
  return out;
}

/// On one line, with a space after each comma and colon.
std::string one_line(const Json& value) {
  if (!value.is_structured()) return value.dump();
  std::string out(1, value.is_object() ? '{' : '[');
  for (const auto& [key, part] : value.items()) {
    if (out.size() > 1) out += ", ";
    if (value.is_object()) out += Json(key).dump() + ": ";
    out += one_line(part);
  }
  return out + (value.is_object() ? '}' : ']');
}

}  // namespace

bool JsonText::set(const JsonPath& path, const Json& value) {
  if (const auto there = files_detail::find_place(text_, pointer_of(path))) {
    text_.replace(there->begin, there->end - there->begin, one_line(value));
    return true;
  }
  const auto object = around(text_, path);
  if (!object || !object->object) return false;
  const std::string member = Json(path.back()).dump() + ": " + one_line(value);
  if (object->keys.empty()) {
    text_.insert(object->place.begin + 1, member);
    return true;
  }
  // As its neighbour stands: on a line of its own, or on the same.
  const Place last = object->member(text_, object->keys.size() - 1);
  const std::size_t before = text_.rfind('\n', last.key);
  const bool own_line = before != std::string::npos && before >= object->place.begin &&
                        text_.find_first_not_of(" \t\r\n", before) == last.key;
  const std::string space = own_line ? text_.substr(before, last.key - before) : " ";
  text_.insert(last.end, "," + space + member);
  return true;
}

void JsonText::erase(const JsonPath& path) {
  const auto from_what = around(text_, path);
  if (!from_what) return;
  const auto it = std::find(from_what->keys.begin(), from_what->keys.end(), path.back());
  if (it == from_what->keys.end()) return;
  const auto i = static_cast<std::size_t>(it - from_what->keys.begin());
  const Place own = from_what->member(text_, i);
  const bool last = i + 1 == from_what->keys.size();
  const std::size_t from = i > 0 ? from_what->member(text_, i - 1).end : own.key;
  const std::size_t to = i > 0 || last ? own.end : from_what->member(text_, i + 1).key;
  text_.erase(from, to - from);
}

}  // namespace apsidon::tool
