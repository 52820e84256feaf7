#include "files/places.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace apsidon::files_detail {
namespace {

class Walker {
 public:
  explicit Walker(std::string_view text) : text_(text) {}

  Places walk() {
    value("", 0, false);
    return std::move(places_);
  }

 private:
  char peek() {
    while (at_ < text_.size() && std::string_view(" \t\r\n").find(text_[at_]) != std::string_view::npos)
      ++at_;
    return at_ < text_.size() ? text_[at_] : '\0';
  }

  std::string string() {
    const std::size_t begin = at_++;
    while (at_ < text_.size() && text_[at_] != '"') at_ += text_[at_] == '\\' ? 2u : 1u;
    ++at_;
    return nlohmann::json::parse(text_.substr(begin, at_ - begin)).get<std::string>();
  }

  void value(const std::string& pointer, std::size_t key, bool keyed) {
    const char first = peek();
    const std::size_t begin = at_;
    if (first == '{') {
      object(pointer);
    } else if (first == '[') {
      array(pointer);
    } else if (first == '"') {
      string();
    } else {
      while (at_ < text_.size() && std::string_view(",]} \t\r\n").find(text_[at_]) == std::string_view::npos)
        ++at_;
    }
    places_.by_pointer[pointer] = {.begin = begin, .end = at_, .key = keyed ? key : begin};
  }

  void object(const std::string& pointer) {
    ++at_;
    while (peek() == '"') {
      const std::size_t key_at = at_;
      const std::string child = pointer + '/' + pointer_token(string());
      if (places_.by_pointer.contains(child) && !places_.repeated) {
        places_.repeated = child;
        places_.repeated_at = key_at;
      }
      peek();
      ++at_;  // the colon
      value(child, key_at, true);
      if (peek() == ',') ++at_;
    }
    ++at_;
  }

  void array(const std::string& pointer) {
    ++at_;
    for (std::size_t i = 0; peek() != ']' && at_ < text_.size(); ++i) {
      value(pointer + '/' + std::to_string(i), 0, false);
      if (peek() == ',') ++at_;
    }
    ++at_;
  }

  std::string_view text_;
  std::size_t at_ = 0;
  Places places_;
};

}  // namespace

std::optional<std::size_t> too_deep(std::string_view text) {
  std::size_t depth = 0;
  bool in_string = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (in_string) {
      if (c == '\\') ++i;
      if (c == '"') in_string = false;
    } else if (c == '"') {
      in_string = true;
    } else if (c == '{' || c == '[') {
      if (++depth > deepest) return i;
    } else if ((c == '}' || c == ']') && depth > 0) {
      --depth;
    }
  }
  return std::nullopt;
}

Places find_places(std::string_view text) { return Walker(text).walk(); }

LineColumn line_column(std::string_view text, std::size_t at) {
  const std::string_view before = text.substr(0, std::min(at, text.size()));
  const auto feed = before.rfind('\n');
  return {.line = 1 + static_cast<std::size_t>(std::count(before.begin(), before.end(), '\n')),
          .column = feed == std::string_view::npos ? before.size() + 1 : before.size() - feed};
}

std::string pointer_token(std::string_view key) {
  std::string token;
  for (const char c : key) {
    if (c == '~') {
      token += "~0";
    } else if (c == '/') {
      token += "~1";
    } else {
      token += c;
    }
  }
  return token;
}

}  // namespace apsidon::files_detail
