#include "files/places.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <unordered_set>
#include <vector>

namespace apsidon::files_detail {
namespace {

constexpr std::string_view spaces = " \t\r\n";

/// Goes through a text, value by value.
class Walker {
 public:
  explicit Walker(std::string_view text) : text_(text) {
    if (text.starts_with("\xEF\xBB\xBF")) at_ = 3;  // a byte order mark
  }

  std::optional<Place> find(std::string_view pointer) {
    value(Sought{pointer, 0, false});
    return found_;
  }

  std::unordered_map<std::string, Place> find_values(std::string_view key) {
    wanted_ = key;
    keeps_path_ = true;
    value(std::nullopt);
    return std::move(values_);
  }

  std::optional<Repeated> find_repeated() {
    looks_for_repeated_ = true;
    keeps_path_ = true;
    value(std::nullopt);
    return repeated_;
  }

 private:
  /// What is left of the pointer at a value that it leads to, and the value's key.
  struct Sought {
    std::string_view rest;
    std::size_t key = 0;
    bool keyed = false;
  };

  char peek() {
    while (at_ < text_.size() && spaces.find(text_[at_]) != std::string_view::npos) ++at_;
    return at_ < text_.size() ? text_[at_] : '\0';
  }

  /// As it stands in the text, with its quotes.
  std::string_view string() {
    const std::size_t begin = at_++;
    while (at_ < text_.size() && text_[at_] != '"') at_ += text_[at_] == '\\' ? 2u : 1u;
    ++at_;
    return text_.substr(begin, at_ - begin);
  }

  void value(const std::optional<Sought>& sought) {
    const char first = peek();
    const std::size_t begin = at_;
    if (first == '{') {
      object(sought);
    } else if (first == '[') {
      array(sought);
    } else if (first == '"') {
      string();
    } else {
      while (at_ < text_.size() && std::string_view(",]} \t\r\n").find(text_[at_]) == std::string_view::npos)
        ++at_;
    }
    if (sought && sought->rest.empty())
      found_ = Place{.begin = begin, .end = at_, .key = sought->keyed ? sought->key : begin};
  }

  /// The value at this token, if the pointer leads there.
  static std::optional<Sought> next(const std::optional<Sought>& sought, std::string_view token,
                                    std::size_t key, bool keyed) {
    if (!sought || !sought->rest.starts_with('/')) return std::nullopt;
    std::string_view rest = sought->rest.substr(1);
    if (!rest.starts_with(token)) return std::nullopt;
    rest.remove_prefix(token.size());
    if (!rest.empty() && rest.front() != '/') return std::nullopt;
    return Sought{rest, key, keyed};
  }

  void object(const std::optional<Sought>& sought) {
    ++at_;
    std::unordered_set<std::string> keys;
    while (peek() == '"' && !done()) {
      const std::size_t key_at = at_;
      const std::string_view written = string();
      // Most keys stand as they are meant.
      const bool plain = written.find('\\') == std::string_view::npos;
      const std::string key = plain ? std::string(written.substr(1, written.size() - 2))
                                    : nlohmann::json::parse(written).get<std::string>();
      if (keeps_path_) path_.push_back(key);
      if (looks_for_repeated_ && !keys.insert(key).second && !repeated_)
        repeated_ = Repeated{pointer(), key_at};
      peek();
      ++at_;  // the colon
      const bool wanted = !wanted_.empty() && key == wanted_ && !within_;
      within_ = within_ || wanted;
      (void)peek();
      const std::size_t begin = at_;
      value(sought ? next(sought, pointer_token(key), key_at, true) : std::nullopt);
      if (wanted) values_[pointer()] = {.begin = begin, .end = at_, .key = key_at};
      within_ = within_ && !wanted;
      if (keeps_path_) path_.pop_back();
      if (peek() == ',') ++at_;
    }
    ++at_;
  }

  void array(const std::optional<Sought>& sought) {
    ++at_;
    for (std::size_t i = 0; peek() != ']' && at_ < text_.size() && !done(); ++i) {
      if (keeps_path_) path_.push_back(std::to_string(i));
      value(sought ? next(sought, std::to_string(i), 0, false) : std::nullopt);
      if (keeps_path_) path_.pop_back();
      if (peek() == ',') ++at_;
    }
    ++at_;
  }

  [[nodiscard]] bool done() const { return found_ || repeated_; }

  [[nodiscard]] std::string pointer() const {
    std::string out;
    for (const std::string& token : path_) out.append("/").append(pointer_token(token));
    return out;
  }

  std::string_view text_;
  std::size_t at_ = 0;
  bool looks_for_repeated_ = false;
  std::string_view wanted_ = {};  // the key whose values are looked for
  bool within_ = false;           // one of them
  std::unordered_map<std::string, Place> values_ = {};
  bool keeps_path_ = false;
  std::vector<std::string> path_ = {};
  std::optional<Place> found_ = {};
  std::optional<Repeated> repeated_ = {};
};

/// Calls `with` for each character outside of strings, until it says that it is done.
template <class With>
void outside_strings(std::string_view text, With with) {
  bool in_string = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (in_string && text[i] == '\\') {
      ++i;
    } else if (text[i] == '"') {
      in_string = !in_string;
    } else if (!in_string && with(i)) {
      return;
    }
  }
}

}  // namespace

std::optional<std::size_t> too_deep(std::string_view text) {
  std::optional<std::size_t> found;
  std::size_t depth = 0;
  outside_strings(text, [&](std::size_t i) {
    const char c = text[i];
    if ((c == '}' || c == ']') && depth > 0) --depth;
    if ((c == '{' || c == '[') && ++depth > deepest) found = i;
    return found.has_value();
  });
  return found;
}

std::optional<std::size_t> find_number(std::string_view text, std::string_view number) {
  std::optional<std::size_t> found;
  outside_strings(text, [&](std::size_t i) {
    if (text.substr(i).starts_with(number)) found = i;
    return found.has_value();
  });
  return found;
}

std::optional<Place> find_place(std::string_view text, std::string_view pointer) {
  return Walker(text).find(pointer);
}

std::unordered_map<std::string, Place> find_values(std::string_view text, std::string_view key) {
  return Walker(text).find_values(key);
}

std::optional<Repeated> find_repeated(std::string_view text) { return Walker(text).find_repeated(); }

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
