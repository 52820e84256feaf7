#pragma once
// Checking options against their ranges. Not installed.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <string_view>

#include "apsidon/geometry/angle.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "geometry/utf8.hpp"

namespace apsidon::geometry_detail {

/// Throws Error when a number is outside of its range, or not a number.
template <class Number>
void check_range(std::string_view what, Number value, double least, double most) {
  // In the number's own type, so that 0.2 as a float is within 0.2.
  const auto low = static_cast<Number>(least);
  const auto high = static_cast<Number>(most);
  if (!(value >= low && value <= high)) {
    throw Error(fmt::format("{} is {}: {} to {} is expected", what, value, low, high));
  }
}

/// Throws Error when a text is longer than that, or is not UTF-8.
inline void check_text(std::string_view what, std::string_view text,
                       std::size_t most_bytes = most_text_bytes) {
  if (text.size() > most_bytes) {
    throw Error(fmt::format("{}: {} bytes: at most {} are expected", what, text.size(), most_bytes));
  }
  if (!is_utf8(text)) throw Error(fmt::format("{}: it is not UTF-8: text in UTF-8 is expected", what));
}

/// Throws Error when a name is longer than a name may be, is not UTF-8, or has control characters in it,
/// which would do more than be shown.
inline void check_name(std::string_view what, std::string_view name) {
  check_text(what, name, most_name_bytes);
  while (!name.empty()) {
    const std::size_t bytes = character_bytes(name);  // it is UTF-8
    const char32_t point = code_point(name, bytes);
    if (is_control(point)) {
      throw Error(fmt::format("{}: it has the control character U+{:04X}: a name without such is expected",
                              what, static_cast<std::uint32_t>(point)));
    }
    name.remove_prefix(bytes);
  }
}

/// The number as people write it: 0.8, not 0.800000011920929.
inline double decimal_of(float value) { return std::stod(fmt::format("{}", value)); }

/// Visits the options of a struct, as its `fields` lists them, and throws Error for the first that is outside
/// of its range. The readers and writers of files visit the same lists, so that each range is written once.
class OptionChecker {
 public:
  /// "hand layout": whose options these are, for the message.
  explicit OptionChecker(std::string whose) : whose_(std::move(whose)) {}

  template <class Number>
  void number(std::string_view key, const Number& value, double least, double most) const {
    check_range(name(key), value, least, most);
  }
  /// A least strip is not above the preferred one.
  void least(std::string_view key, float value, float preferred, double) const {
    number(key, value, 0, double{preferred});
  }
  void whole(std::string_view key, int value, int least, int most) const {
    check_range(name(key), value, least, most);
  }
  void angle(std::string_view key, Angle value, double least, double most) const {
    constexpr double rounding = 0.01;  // degrees; an angle is kept in radians
    const double within = std::clamp(value.degrees(), least, most);
    const bool as_good = std::abs(value.degrees() - within) <= rounding;
    check_range(name(key), static_cast<float>(as_good ? within : value.degrees()), least, most);
  }
  template <class Cues>
  void cues(std::string_view key, const Cues& cues) const {
    for (const auto& cue : cues) {
      if (cue.name.empty())
        throw Error(fmt::format("{} has a cue without a name: a name is expected", name(key)));
      check_name(name(key), cue.name);
      check_range(fmt::format("{} '{}'", name(key), cue.name), cue.at, 0, 1);
    }
  }
  template <class Part>
  void part(std::string_view key, const Part& part) const {
    Part copy = part;
    OptionChecker own(name(key));
    fields(copy, own);
  }
  template <class Spring>
  void spring(std::string_view key, const Spring& spring) const {
    if (spring) part(key, *spring);
  }
  template <class Layout>
  void layout(std::string_view, const Layout& layout) const {
    check(layout);
  }
  void longest(std::string_view key, int longest, int covered) const {
    whole(key, longest, 0, static_cast<int>(most_cards));
    whole(fmt::format("{} covered", key), covered, 0, longest);
  }
  // Every value of these is in its range.
  template <class Value, class... More>
  void word(std::string_view, const Value&, const More&...) const {}
  template <class Value, class Names>
  void words(std::string_view, const Value&, const Names&) const {}
  template <class Value>
  void easing(std::string_view, const Value&) const {}
  template <class Text>
  void text(std::string_view key, const Text& value) const {
    check_name(name(key), value);
  }
  template <class Value>
  void truth(std::string_view, const Value&) const {}
  template <class Value>
  void seed(std::string_view, const Value&) const {}

 private:
  [[nodiscard]] std::string name(std::string_view key) const { return fmt::format("{}: {}", whose_, key); }

  std::string whose_;
};

/// Checks all options that `fields` lists.
template <class Options>
void check_options(std::string whose, const Options& options) {
  Options copy = options;  // the lists are made for readers, too
  OptionChecker checker(std::move(whose));
  fields(copy, checker);
}

}  // namespace apsidon::geometry_detail
