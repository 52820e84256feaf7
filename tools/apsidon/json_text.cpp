#include "json_text.hpp"

#include <algorithm>
#include <optional>
#include <span>
#include <string_view>

namespace apsidon::tool {
namespace {

using Json = nlohmann::ordered_json;

/// A member of an object or an element of an array, by where it lies in the text.
struct Member {
  std::string key;        // of an element its index
  std::size_t begin = 0;  // of its key, or of itself
  std::size_t value = 0;
  std::size_t end = 0;
};

class Scanner {
 public:
  explicit Scanner(std::string_view text) : text_(text) {}

  [[nodiscard]] std::size_t skip_space(std::size_t at) const {
    return std::min(text_.find_first_not_of(" \t\r\n", at), text_.size());
  }

  [[nodiscard]] std::size_t end_of_value(std::size_t at) const {
    if (text_[at] == '"') return end_of_string(at);
    if (text_[at] != '{' && text_[at] != '[')
      return std::min(text_.find_first_of(",]} \t\r\n", at), text_.size());
    int depth = 0;
    for (; at < text_.size(); ++at) {
      if (text_[at] == '"') {
        at = end_of_string(at) - 1;
      } else if (text_[at] == '{' || text_[at] == '[') {
        ++depth;
      } else if ((text_[at] == '}' || text_[at] == ']') && --depth == 0) {
        return at + 1;
      }
    }
    return text_.size();
  }

  /// Of the object or array that begins there; none of another value.
  [[nodiscard]] std::vector<Member> members(std::size_t at) const {
    std::vector<Member> all;
    const bool object = text_[at] == '{';
    if (!object && text_[at] != '[') return all;
    for (at = skip_space(at + 1); at < text_.size() && text_[at] != '}' && text_[at] != ']';) {
      Member member{.key = std::to_string(all.size()), .begin = at, .value = at};
      if (object) {
        const std::size_t key_end = end_of_string(at);
        member.key = Json::parse(text_.substr(at, key_end - at)).get<std::string>();
        member.value = skip_space(skip_space(key_end) + 1);
      }
      member.end = end_of_value(member.value);
      at = skip_space(member.end);
      if (at < text_.size() && text_[at] == ',') at = skip_space(at + 1);
      all.push_back(std::move(member));
    }
    return all;
  }

  /// Where the value begins that a path leads to.
  [[nodiscard]] std::optional<std::size_t> find(std::span<const std::string> path) const {
    std::size_t at = skip_space(0);
    for (const std::string& key : path) {
      const auto all = members(at);
      const auto there = std::find_if(all.begin(), all.end(), [&](const Member& m) { return m.key == key; });
      if (there == all.end()) return std::nullopt;
      at = there->value;
    }
    return at;
  }

 private:
  [[nodiscard]] std::size_t end_of_string(std::size_t at) const {
    for (++at; at < text_.size() && text_[at] != '"'; ++at) at += text_[at] == '\\' ? 1u : 0u;
    return std::min(at + 1, text_.size());
  }

  std::string_view text_;
};

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
  const Scanner scanner(text_);
  if (const auto there = scanner.find(path)) {
    text_.replace(*there, scanner.end_of_value(*there) - *there, one_line(value));
    return true;
  }
  const auto object = path.empty() ? std::nullopt : scanner.find(std::span(path).first(path.size() - 1));
  if (!object || text_[*object] != '{') return false;
  const std::string member = Json(path.back()).dump() + ": " + one_line(value);
  const auto all = scanner.members(*object);
  if (all.empty()) {
    text_.insert(*object + 1, member);
    return true;
  }
  // As its neighbour stands: on a line of its own, or on the same.
  const std::size_t before = text_.rfind('\n', all.back().begin);
  const bool own_line =
      before != std::string::npos && before >= *object && scanner.skip_space(before) == all.back().begin;
  const std::string space = own_line ? text_.substr(before, all.back().begin - before) : " ";
  text_.insert(all.back().end, "," + space + member);
  return true;
}

void JsonText::erase(const JsonPath& path) {
  if (path.empty()) return;
  const Scanner scanner(text_);
  const auto object = scanner.find(std::span(path).first(path.size() - 1));
  if (!object) return;
  const auto all = scanner.members(*object);
  for (std::size_t i = 0; i < all.size(); ++i) {
    if (all[i].key != path.back()) continue;
    const std::size_t from = i > 0 ? all[i - 1].end : all[i].begin;
    const std::size_t to = i > 0 || i + 1 == all.size() ? all[i].end : all[i + 1].begin;
    text_.erase(from, to - from);
    return;
  }
}

}  // namespace apsidon::tool
