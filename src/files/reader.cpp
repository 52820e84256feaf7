#include "files/reader.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "apsidon/files/nearest.hpp"
#include "geometry/options.hpp"
#include "geometry/utf8.hpp"

namespace apsidon::files_detail {
namespace {

std::string kind_of(const nlohmann::json& json) {
  if (json.is_string()) return fmt::format("the text \"{}\"", shown(json.get<std::string>()));
  if (json.is_number()) return fmt::format("the number {}", json.dump());
  if (json.is_boolean()) return json.get<bool>() ? "true" : "false";
  if (json.is_null()) return "null";
  return json.is_array() ? "an array" : "an object";
}

}  // namespace

std::string shown(std::string_view text, std::size_t most) {
  std::string out;
  while (!text.empty() && out.size() < most) {
    const std::size_t bytes = std::max<std::size_t>(geometry_detail::character_bytes(text), 1);
    out += geometry_detail::printable(text.substr(0, bytes), false);
    text.remove_prefix(bytes);
  }
  return text.empty() ? out : out + "…";
}

void Node::stop(ProblemCode code, std::string message) const {
  throw Stop{{.code = code, .pointer = pointer_, .message = std::move(message)}};
}

void Node::stop_unknown(std::string_view what, const std::string& found,
                        const std::vector<std::string>& names) const {
  const auto near = nearest_name(found, names);
  std::string hint;
  if (near) {
    hint = fmt::format("did you mean '{}'?", *near);
  } else if (names.size() <= 20) {
    hint = fmt::format("one of '{}' is expected", fmt::join(names, "', '"));
  } else {
    hint = fmt::format("one like '{}' is expected", names.front());
  }
  stop(ProblemCode::unknown_name, fmt::format("unknown {} '{}': {}", what, shown(found), hint));
}

void Node::expect_form(bool fits, std::string_view forms) const {
  if (!fits) stop(ProblemCode::wrong_type, fmt::format("{}: {} is expected", kind_of(*json_), forms));
}

void Node::expect_keys(std::span<const std::string_view> keys) const {
  if (!json_->is_object())
    stop(ProblemCode::wrong_type, fmt::format("{}: an object is expected", kind_of(*json_)));
  const std::vector<std::string> names(keys.begin(), keys.end());
  for (const auto& item : json_->items()) {
    if (std::find(names.begin(), names.end(), item.key()) != names.end()) continue;
    const auto near = nearest_name(item.key(), names);
    const std::string hint = near ? fmt::format("did you mean '{}'?", *near)
                                  : fmt::format("one of '{}' is expected", fmt::join(names, "', '"));
    throw Stop{{.code = ProblemCode::unknown_key,
                .pointer = pointer_ + '/' + pointer_token(item.key()),
                .message = fmt::format("unknown key '{}': {}", shown(item.key()), hint)},
               true};
  }
}

Node Node::child(std::string_view key) const {
  return {json_->at(std::string(key)), pointer_ + '/' + pointer_token(key)};
}

Node Node::at(std::string_view key) const {
  if (!has(key))
    stop(ProblemCode::missing_key, fmt::format("the key '{}' is missing: it is expected here", key));
  return child(key);
}

std::vector<Node> Node::items() const {
  if (!json_->is_array())
    stop(ProblemCode::wrong_type, fmt::format("{}: an array is expected", kind_of(*json_)));
  std::vector<Node> nodes;
  for (std::size_t i = 0; i < json_->size(); ++i)
    nodes.push_back({(*json_)[i], pointer_ + '/' + std::to_string(i)});
  return nodes;
}

std::string Node::text() const {
  if (!json_->is_string())
    stop(ProblemCode::wrong_type, fmt::format("{}: a text is expected", kind_of(*json_)));
  return json_->get<std::string>();
}

std::string Node::name() const {
  std::string name = text();
  guard(ProblemCode::out_of_range, [&] { geometry_detail::check_name("the name", name); });
  return name;
}

bool Node::truth() const {
  if (!json_->is_boolean()) {
    stop(ProblemCode::wrong_type, fmt::format("{}: true or false is expected", kind_of(*json_)));
  }
  return json_->get<bool>();
}

double Node::number(double least, double most) const {
  if (!json_->is_number())
    stop(ProblemCode::wrong_type, fmt::format("{}: a number is expected", kind_of(*json_)));
  const double value = json_->get<double>();
  if (!(value >= least && value <= most)) {
    stop(ProblemCode::out_of_range, fmt::format("{}: {} to {} is expected", json_->dump(), least, most));
  }
  return value;
}

double Node::whole_number(double least, double most) const {
  const double value = number(least, most);
  if (value != std::floor(value)) {
    stop(ProblemCode::wrong_type, fmt::format("{}: a whole number is expected", json_->dump()));
  }
  return value;
}

int Node::whole(int least, int most) const { return static_cast<int>(whole_number(least, most)); }

Vec2 Node::point(double least, double most) const {
  const auto both = items();
  if (both.size() != 2)
    stop(ProblemCode::wrong_type, fmt::format("{} numbers: two, [x, y], are expected", both.size()));
  return {static_cast<float>(both[0].number(least, most)), static_cast<float>(both[1].number(least, most))};
}

std::uint64_t Node::key_number() const {
  if (!json_->is_number_unsigned() || json_->get<std::uint64_t>() == 0) {
    const auto code = json_->is_number() ? ProblemCode::out_of_range : ProblemCode::wrong_type;
    stop(code, fmt::format("{}: a whole number from 1 to 18446744073709551615 is expected", kind_of(*json_)));
  }
  return json_->get<std::uint64_t>();
}

std::string Node::text_or(std::string_view key, std::string otherwise) const {
  return has(key) ? child(key).text() : otherwise;
}
bool Node::truth_or(std::string_view key, bool otherwise) const {
  return has(key) ? child(key).truth() : otherwise;
}
float Node::number_or(std::string_view key, float otherwise, double least, double most) const {
  return has(key) ? static_cast<float>(child(key).number(least, most)) : otherwise;
}
int Node::whole_or(std::string_view key, int otherwise, int least, int most) const {
  return has(key) ? child(key).whole(least, most) : otherwise;
}

Problem not_json(std::string_view text, const std::filesystem::path& file,
                 const nlohmann::json::exception& e) {
  Problem problem{.code = ProblemCode::not_json, .file = file.string()};
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos) {
    problem.message = "the file is empty: a JSON object is expected";
    return problem;
  }
  const auto* parse = dynamic_cast<const nlohmann::json::parse_error*>(&e);
  std::size_t at = parse && parse->byte > 0 ? parse->byte - 1 : 0;
  // Of a number that is too large it says which, but not where.
  const std::string_view what = e.what();
  const auto quote = what.find('\'');
  if (!parse && quote != std::string_view::npos) {
    const auto number = what.substr(quote + 1, what.rfind('\'') - quote - 1);
    at = find_number(text, number).value_or(0);
  }
  const auto [line, column] = line_column(text, at);
  problem.line = line;
  problem.column = column;
  // The library says "[json.exception…] parse error at line 3, column 5: syntax error while parsing object -
  // …"; number and place are said better elsewhere.
  std::string reason = e.what();
  const auto bracket = reason.find("] ");
  if (bracket != std::string::npos) reason.erase(0, bracket + 2);
  const auto colon = reason.find(": ");
  if (reason.starts_with("parse error") && colon != std::string::npos) reason.erase(0, colon + 2);
  // It expects the end where a comma would do as well, and a forgotten comma is what a person has to look
  // for.
  for (const char end : {'}', ']'}) {
    const std::string only_end = fmt::format("; expected '{}'", end);
    if (reason.ends_with(only_end)) {
      reason.replace(reason.size() - only_end.size(), std::string::npos,
                     fmt::format("; a comma or '{}' is expected before it", end));
    }
  }
  problem.message = "this is not JSON: " + shown(reason, 300);
  return problem;
}

Problem nested_too_deep(std::string_view text, std::size_t at, const std::filesystem::path& file) {
  const auto [line, column] = line_column(text, at);
  return {.code = ProblemCode::not_json,
          .file = file.string(),
          .line = line,
          .column = column,
          .message = fmt::format("values are nested deeper than {} levels: fewer are expected", deepest)};
}

Problem repeated_key(const Repeated& repeated, std::string_view text, const std::filesystem::path& file) {
  const auto [line, column] = line_column(text, repeated.key);
  return {.code = ProblemCode::repeated_key,
          .file = file.string(),
          .pointer = repeated.pointer,
          .line = line,
          .column = column,
          .message = "the key stands twice in its object: each key is expected once"};
}

Problem located(Stop stop, std::string_view text, const std::filesystem::path& file) {
  Problem problem = std::move(stop.problem);
  if (!problem.file.empty()) return problem;  // of another file, that has its place already
  problem.file = file.string();
  if (const auto place = find_place(text, problem.pointer)) {
    const auto [line, column] = line_column(text, stop.at_key ? place->key : place->begin);
    problem.line = line;
    problem.column = column;
  }
  return problem;
}

void expect_kind(const Node& top, std::string_view kind) {
  if (!top.json().is_object()) {
    top.stop(ProblemCode::wrong_format,
             fmt::format("{}: an object with \"apsidon\": \"{}\" is expected", kind_of(top.json()), kind));
  }
  if (!top.has("apsidon")) {
    top.stop(ProblemCode::wrong_format,
             fmt::format("the key 'apsidon' is missing: \"apsidon\": \"{}\" is expected", kind));
  }
  const Node found = top.child("apsidon");
  if (found.json() != nlohmann::json(std::string(kind))) {
    found.stop(ProblemCode::wrong_format, fmt::format("{}: \"{}\" is expected", kind_of(found.json()), kind));
  }
  const Node version = top.at("version");
  if (version.json() != nlohmann::json(1)) {
    version.stop(ProblemCode::wrong_format,
                 fmt::format("{}: version 1 is expected", kind_of(version.json())));
  }
}

}  // namespace apsidon::files_detail
