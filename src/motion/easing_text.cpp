// Easings as the CSS Easing Functions standard writes them, and back.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "motion/prepared.hpp"

namespace apsidon {
namespace {

using namespace motion_detail;

struct NamedBezier {
  std::string_view name;
  CubicBezier curve;
};
constexpr std::array<NamedBezier, 5> named_beziers{{{"linear", linear},
                                                    {"ease", ease},
                                                    {"ease-in", ease_in},
                                                    {"ease-out", ease_out},
                                                    {"ease-in-out", ease_in_out}}};

constexpr std::array<std::string_view, 10> shape_names{"quad", "cubic", "quart", "quint",   "sine",
                                                       "expo", "circ",  "back",  "elastic", "bounce"};
constexpr std::array<std::string_view, 3> way_names{"in", "out", "in-out"};
constexpr std::array<std::string_view, 4> position_names{"jump-start", "jump-end", "jump-none", "jump-both"};

std::string_view trimmed(std::string_view text) {
  const auto from = text.find_first_not_of(" \t\r\n");
  if (from == std::string_view::npos) return {};
  return text.substr(from, text.find_last_not_of(" \t\r\n") - from + 1);
}

std::vector<std::string_view> split(std::string_view text, char at) {
  std::vector<std::string_view> parts;
  for (std::size_t from = 0;;) {
    const std::size_t to = text.find(at, from);
    parts.push_back(trimmed(text.substr(from, to - from)));
    if (to == std::string_view::npos) return parts;
    from = to + 1;
  }
}

/// Reads one easing; knows the whole text for its complaints.
class Parser {
 public:
  explicit Parser(std::string_view text) : text_(text) {}

  [[nodiscard]] Easing parse() const {
    const std::string_view all = trimmed(text_);
    const std::size_t open = all.find('(');
    if (open == std::string_view::npos) return keyword(all);
    if (all.back() != ')') stop("')' is expected at the end");
    const std::string_view name = trimmed(all.substr(0, open));
    const std::string_view inside = all.substr(open + 1, all.size() - open - 2);
    if (name == "cubic-bezier") return bezier(inside);
    if (name == "steps") return steps(inside);
    if (name == "linear") return stops(inside);
    stop("cubic-bezier(…), steps(…) or linear(…) is expected");
  }

 private:
  [[noreturn]] void stop(std::string_view wanted) const {
    throw Error(fmt::format("easing '{}': {}", text_, wanted));
  }

  [[nodiscard]] Easing keyword(std::string_view word) const {
    for (const NamedBezier& named : named_beziers) {
      if (word == named.name) return named.curve;
    }
    if (word == "step-start") return EasingMaker::of(Steps{1, StepPosition::jump_start});
    if (word == "step-end") return EasingMaker::of(Steps{1, StepPosition::jump_end});
    for (std::size_t shape = 0; shape < shape_names.size(); ++shape) {
      for (std::size_t way = 0; way < way_names.size(); ++way) {
        if (word == fmt::format("{}-{}", shape_names[shape], way_names[way])) {
          return EasingMaker::of(ShapedEasing{static_cast<Shape>(shape), static_cast<Way>(way)});
        }
      }
    }
    stop(
        "linear, ease, ease-in, ease-out, ease-in-out, step-start, step-end, a shape with its way like "
        "quad-in-out, cubic-bezier(…), steps(…) or linear(…) is expected");
  }

  [[nodiscard]] float number(std::string_view word) const {
    if (word.starts_with('+')) word.remove_prefix(1);
    float value = 0;
    const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), value);
    if (error != std::errc{} || end != word.data() + word.size() || !std::isfinite(value)) {
      stop(fmt::format("'{}' is no number", word));
    }
    return value;
  }

  [[nodiscard]] Easing bezier(std::string_view inside) const {
    const auto words = split(inside, ',');
    if (words.size() != 4) stop(fmt::format("{} numbers: x1, y1, x2, y2 are expected", words.size()));
    return CubicBezier{number(words[0]), number(words[1]), number(words[2]), number(words[3])};
  }

  [[nodiscard]] Easing steps(std::string_view inside) const {
    const auto words = split(inside, ',');
    if (words.size() > 2) stop("a count and a position are expected");
    const float count = number(words[0]);
    if (count != std::floor(count) || !(std::abs(count) <= 1e6f)) stop("a whole number of steps is expected");
    Steps out{.count = static_cast<int>(count)};
    if (words.size() == 2) out.position = position(words[1]);
    return EasingMaker::of(out);
  }

  [[nodiscard]] StepPosition position(std::string_view word) const {
    if (word == "start") return StepPosition::jump_start;
    if (word == "end") return StepPosition::jump_end;
    const auto it = std::find(position_names.begin(), position_names.end(), word);
    if (it == position_names.end())
      stop("jump-start, jump-end, jump-none, jump-both, start or end is expected");
    return static_cast<StepPosition>(it - position_names.begin());
  }

  /// One number and up to two percentages a stop, in any order of number and percentages; two percentages are
  /// two stops.
  [[nodiscard]] Easing stops(std::string_view inside) const {
    LinearStops out;
    for (const std::string_view part : split(inside, ',')) {
      std::optional<float> output;
      std::vector<float> inputs;
      for (const std::string_view word : split(part, ' ')) {
        if (word.empty()) continue;
        if (word.back() == '%') {
          inputs.push_back(number(word.substr(0, word.size() - 1)) / 100);
        } else if (!output) {
          output = number(word);
        } else {
          stop(fmt::format("two numbers in '{}': one, and up to two percentages, are expected", part));
        }
      }
      if (!output || inputs.size() > 2) {
        stop(fmt::format("'{}': one number, and up to two percentages, are expected", part));
      }
      if (inputs.empty()) out.push_back({*output, std::nullopt});
      for (const float input : inputs) out.push_back({*output, input});
    }
    return EasingMaker::of(out);
  }

  std::string_view text_;
};

struct Writer {
  std::string operator()(const PreparedBezier& e) const {
    for (const NamedBezier& named : named_beziers) {
      if (e.curve() == named.curve) return std::string(named.name);
    }
    const CubicBezier& c = e.curve();
    return fmt::format("cubic-bezier({}, {}, {}, {})", c.x1, c.y1, c.x2, c.y2);
  }
  std::string operator()(const Steps& s) const {
    if (s.position == StepPosition::jump_end) return fmt::format("steps({})", s.count);
    return fmt::format("steps({}, {})", s.count, position_names[static_cast<std::size_t>(s.position)]);
  }
  std::string operator()(const FilledStops& s) const {
    std::string out;
    for (const LinearStop& stop : s.written) {
      if (!out.empty()) out += ", ";
      out += fmt::format("{}", stop.output);
      if (stop.input) out += fmt::format(" {}%", shortest_percentage(*stop.input));
    }
    return "linear(" + out + ")";
  }
  std::string operator()(const ShapedEasing& e) const {
    return fmt::format("{}-{}", shape_names[static_cast<std::size_t>(e.shape)],
                       way_names[static_cast<std::size_t>(e.way)]);
  }

  /// The shortest of the percentages that read as exactly this share.
  static float shortest_percentage(float share) {
    const float percent = share * 100;
    for (const float p : {std::round(percent * 100) / 100, percent, std::nextafter(percent, 1e9f),
                          std::nextafter(percent, -1e9f)}) {
      if (p / 100 == share) return p;
    }
    return percent;
  }
};

}  // namespace

Easing Easing::parse(std::string_view text) { return Parser(text).parse(); }

std::string Easing::text() const { return prepared_ ? std::visit(Writer{}, prepared_->as) : "linear"; }

}  // namespace apsidon
