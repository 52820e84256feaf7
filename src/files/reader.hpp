#pragma once
// Reads JSON values with their place, so that every refusal can say where. Not installed.
#include <filesystem>
#include <functional>
#include <initializer_list>
#include <nlohmann/json.hpp>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/files/result.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/vec2.hpp"
#include "files/places.hpp"

namespace apsidon::files_detail {

/// Ends the reading of a file; caught where the file is opened, never seen by clients.
struct Stop {
  Problem problem;
  bool at_key = false;  ///< the place is the key rather than the value
};

/// A JSON value and its pointer.
class APSIDON_FILES_EXPORT Node {
 public:
  Node(const nlohmann::json& json, std::string pointer) : json_(&json), pointer_(std::move(pointer)) {}

  [[nodiscard]] const nlohmann::json& json() const { return *json_; }
  [[nodiscard]] const std::string& pointer() const { return pointer_; }

  [[noreturn]] void stop(ProblemCode code, std::string message) const;
  /// "unknown X 'found': one of … is expected", with the nearest name first when one is near.
  [[noreturn]] void stop_unknown(std::string_view what, const std::string& found,
                                 const std::vector<std::string>& names) const;

  /// For a value that may have several forms: where it has none of them, all are named.
  void expect_form(bool fits, std::string_view forms) const;
  /// The value is an object with no other keys than these.
  void expect_keys(std::span<const std::string_view> keys) const;
  void expect_keys(std::initializer_list<std::string_view> keys) const {
    expect_keys(std::span(keys.begin(), keys.size()));
  }
  [[nodiscard]] bool has(std::string_view key) const { return json_->is_object() && json_->contains(key); }
  [[nodiscard]] Node at(std::string_view key) const;     ///< missing: stops
  [[nodiscard]] Node child(std::string_view key) const;  ///< must be there
  [[nodiscard]] std::vector<Node> items() const;         ///< the value is an array

  [[nodiscard]] std::string text() const;
  [[nodiscard]] std::string name() const;  ///< a text that may be a name
  [[nodiscard]] bool truth() const;
  [[nodiscard]] double number(double least, double most) const;
  [[nodiscard]] double whole_number(double least, double most) const;
  [[nodiscard]] int whole(int least, int most) const;
  [[nodiscard]] Vec2 point(double least, double most) const;  ///< an array of two numbers
  [[nodiscard]] std::uint64_t key_number() const;             ///< a whole number from 1

  // What the object has at this key, or the given value.
  [[nodiscard]] std::string text_or(std::string_view key, std::string otherwise) const;
  [[nodiscard]] bool truth_or(std::string_view key, bool otherwise) const;
  [[nodiscard]] float number_or(std::string_view key, float otherwise, double least, double most) const;
  [[nodiscard]] int whole_or(std::string_view key, int otherwise, int least, int most) const;

  /// Runs a set-up call; an Error it throws becomes a problem here.
  template <class Call>
  auto guard(ProblemCode code, Call&& call) const {
    try {
      return call();
    } catch (const Error& e) {
      stop(code, e.what());
    }
  }

 private:
  const nlohmann::json* json_;
  std::string pointer_;
};

/// Checks that a text is JSON of this kind ("table") and version 1, hands its top to `read`, and turns a stop
/// into a problem with file, line and column.
template <class T>
Result<T> read_document(std::string_view text, const std::filesystem::path& file, std::string_view kind,
                        const std::function<T(const Node& top)>& read);

/// A text as a message shows it: on one line, without control characters, and cut where it is long.
[[nodiscard]] std::string shown(std::string_view text, std::size_t most = 80);

// The parts of read_document that do not depend on T.
APSIDON_FILES_EXPORT Problem not_json(std::string_view text, const std::filesystem::path& file,
                                      const nlohmann::json::exception& e);
APSIDON_FILES_EXPORT Problem nested_too_deep(std::string_view text, std::size_t at,
                                             const std::filesystem::path& file);
APSIDON_FILES_EXPORT Problem repeated_key(const Repeated& repeated, std::string_view text,
                                          const std::filesystem::path& file);
APSIDON_FILES_EXPORT Problem located(Stop stop, std::string_view text, const std::filesystem::path& file);
APSIDON_FILES_EXPORT void expect_kind(const Node& top, std::string_view kind);

template <class T>
Result<T> read_json(std::string_view text, const std::filesystem::path& file,
                    const std::function<T(const Node& top)>& read) {
  if (const auto deep = too_deep(text)) return nested_too_deep(text, *deep, file);
  nlohmann::json json;
  try {
    json = nlohmann::json::parse(text);
  } catch (const nlohmann::json::exception& e) {
    return not_json(text, file, e);
  }
  if (const auto repeated = find_repeated(text)) return repeated_key(*repeated, text, file);
  try {
    return read(Node(json, ""));
  } catch (const Stop& stop) {
    return located(stop, text, file);
  }
}

template <class T>
Result<T> read_document(std::string_view text, const std::filesystem::path& file, std::string_view kind,
                        const std::function<T(const Node& top)>& read) {
  return read_json<T>(text, file, [&](const Node& top) {
    expect_kind(top, kind);
    return read(top);
  });
}

}  // namespace apsidon::files_detail
