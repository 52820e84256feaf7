#include "art/art_json.hpp"

#include <fmt/format.h>

#include <charconv>

#include "files/names.hpp"

namespace apsidon::art_detail {

using namespace files_detail;

Sampling sampling_from(const Node& node) {
  if (!node.has("sampling")) return Sampling::smooth;
  return named(node.child("sampling"), "sampling", node.child("sampling").text(), sampling_names);
}

Rgb rgb_from(const Node& node) {
  const std::string text = node.text();
  std::uint32_t number = 0;
  const char* end = text.data() + text.size();
  const bool form = text.size() == 7 && text.front() == '#';
  if (!form || std::from_chars(text.data() + 1, end, number, 16).ptr != end) {
    node.stop(ProblemCode::wrong_type,
              fmt::format("'{}': a colour like \"#155E46\" is expected, red, green and blue", shown(text)));
  }
  const auto part = [&](unsigned shift) { return static_cast<std::uint8_t>(number >> shift & 255); };
  return {part(16), part(8), part(0)};
}

std::string text_of(const Rgb& colour) {
  return fmt::format("#{:02X}{:02X}{:02X}", colour.red, colour.green, colour.blue);
}

Size size_from(const Node& node, double most) {
  node.expect_keys({"width", "height"});
  return {static_cast<float>(node.at("width").number(1, most)),
          static_cast<float>(node.at("height").number(1, most))};
}

std::map<std::string, std::string> texts_from(const Node& node, std::string_view key, std::string_view what) {
  std::map<std::string, std::string> out;
  if (!node.has(key)) return out;
  const Node texts = node.child(key);
  texts.expect_form(texts.json().is_object(), what);
  for (const auto& item : texts.json().items()) out[item.key()] = texts.child(item.key()).text();
  return out;
}

}  // namespace apsidon::art_detail
