#include "play/admit.hpp"

#include <algorithm>
#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "apsidon/play/setup.hpp"
#include "geometry/utf8.hpp"
#include "play/input_fields.hpp"

namespace apsidon::play_detail {
namespace {

/// Looks at each part of an input, by the lists of input_fields.hpp.
class Admission {
 public:
  [[nodiscard]] bool admitted() const { return admitted_; }

  // Ids, counts, truths, and numbers of the game's: any will do.
  template <class Value>
  void operator()(std::string_view, Value& value, const std::type_identity_t<Value>& = {}) {
    look_at(value);
  }
  template <class Value>
  void operator()(std::string_view, std::optional<Value>& value) {
    if (value) look_at(*value);
  }
  template <class Value, std::size_t N>
  void operator()(std::string_view, Value& value, const Words<Value, N>& words, Value) {
    expect(is_word(value, words));
  }
  template <class Value>
  void always(std::string_view, Value& value) {
    look_at(value);
  }
  template <class Number>
  void number(std::string_view, Number& value, Number, double least, double most) {
    expect(double{value} >= least && double{value} <= most);
  }
  void cut(std::string_view, float& value, float, double least, double most) {
    expect(!std::isnan(value));
    value = std::clamp(value, static_cast<float>(least), static_cast<float>(most));
  }
  void seconds(std::string_view, double& value, double least, double most) {
    value = std::isnan(value) ? std::clamp(0.0, least, most) : std::clamp(value, least, most);
  }
  void seconds(std::string_view key, std::vector<double>& values, double least, double most) {
    for (double& value : values) seconds(key, value, least, most);
  }
  void reason(std::string_view, Reason& value) { expect(static_cast<int>(value) < reason_count); }
  void button(std::string_view, PointerButton& value) { expect(value <= PointerButton::forward); }
  void judged(std::optional<Verdict>& verdict) {
    if (verdict) fields(*verdict, *this);
  }
  template <class Part>
  void part(std::string_view, Part& value) {
    fields(value, *this);
  }
  void parts(std::string_view, std::vector<Script>& values) {
    for (Script& value : values) fields(value, *this);
  }

  void tag(std::string_view) {}
  void tag(std::string_view, Move& value) { fields(value, *this); }
  void tag(std::string_view, Script& value) {
    expect(!is_too_large(value));
    if (admitted_) fields(value, *this);
  }
  template <class Value>
  void tag(std::string_view, Value& value) {
    look_at(value);
  }
  template <class Value, std::size_t N>
  void tag(std::string_view, Value& value, const Words<Value, N>& words) {
    expect(is_word(value, words));
  }
  template <std::size_t N>
  void tag(const Words<ReasonInput::What, N>& words, ReasonInput::What& what, std::string& reason) {
    expect(is_word(what, words));
    look_at(reason);
  }
  template <std::size_t N>
  void tag(const Words<bool, N>&, bool&) {}
  template <class Options>
  void options(std::string_view, Options& value) {
    expect(passes(value));
  }
  void table(std::string_view, std::shared_ptr<const TableSetup>& value) { expect(value && passes(*value)); }
  void wanted(std::string_view, std::vector<WantedZone>&) {}

 private:
  void expect(bool holds) { admitted_ = admitted_ && holds; }

  template <class Value, std::size_t N>
  static bool is_word(Value value, const Words<Value, N>& words) {
    return std::any_of(words.begin(), words.end(), [&](const auto& word) { return word.second == value; });
  }
  template <class Options>
  static bool passes(const Options& options) {
    try {
      check(options);
      return true;
    } catch (const Error&) {
      return false;
    }
  }

  template <class Value>
  void look_at(Value&) {}
  void look_at(std::string& text) {
    if (!geometry_detail::is_utf8(text)) text = geometry_detail::as_utf8(text);
  }
  void look_at(Vec2& point) { expect(is_within(point.x) && is_within(point.y)); }
  void look_at(Size& size) { expect(is_length(size.width) && is_length(size.height)); }
  void look_at(Insets& i) {
    expect(is_length(i.left) && is_length(i.top) && is_length(i.right) && is_length(i.bottom));
  }
  static bool is_within(float px) { return std::abs(double{px}) <= most_input_px; }
  static bool is_length(float px) { return is_within(px) && px >= 0; }

  bool admitted_ = true;
};

/// Counts acts, no further than too many.
bool grows_too_large(const Script& script, int depth, int& acts) {
  if (depth > most_script_depth || ++acts > most_script_acts) return true;
  return std::any_of(script.parts.begin(), script.parts.end(),
                     [&](const Script& part) { return grows_too_large(part, depth + 1, acts); });
}

}  // namespace

bool admit(Input& input) {
  Admission admission;
  std::visit([&](auto& kind) { fields(kind, admission); }, input);
  return admission.admitted();
}

bool is_too_large(const Script& script) {
  int acts = 0;
  return grows_too_large(script, 1, acts);
}

Verdict usable(Verdict verdict) {
  if (static_cast<int>(verdict.reason) >= reason_count) verdict.reason = Reason::refused_by_game;
  return verdict;
}

}  // namespace apsidon::play_detail
