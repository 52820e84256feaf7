#include "play/order/admit.hpp"
#include "gesture/fields.hpp"
#include "motion/fields.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "apsidon/geometry/error.hpp"
#include "apsidon/play/setup.hpp"
#include "geometry/utf8.hpp"
#include "play/values/input_fields.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {
namespace {

/// Looks at each part of an input, by the lists of input_fields.hpp, and keeps what is wrong first.
class Admission {
 public:
  [[nodiscard]] const std::optional<Refusal>& wrong() const { return wrong_; }

  // Ids, counts, truths, and numbers of the game's: any will do.
  template <class Value>
  void operator()(std::string_view key, Value& value, const std::type_identity_t<Value>& = {}) {
    look_at(key, value);
  }
  template <class Value>
  void operator()(std::string_view key, std::optional<Value>& value) {
    if (value) look_at(key, *value);
  }
  template <class Value, std::size_t N>
  void operator()(std::string_view key, Value& value, const Words<Value, N>& words, Value) {
    expect(key, is_word(value, words));
  }
  template <class Value>
  void always(std::string_view key, Value& value) {
    look_at(key, value);
  }
  template <class Number>
  void number(std::string_view key, Number& value, Number, double least, double most) {
    // In the number's own type, so that 0.01 as a float is no less than 0.01.
    expect(key, value >= static_cast<Number>(least) && value <= static_cast<Number>(most));
  }
  void cut(std::string_view key, float& value, float, double least, double most) {
    expect(key, !std::isnan(value));
    value = std::clamp(value, static_cast<float>(least), static_cast<float>(most));
  }
  void seconds(std::string_view, double& value, double least, double most) {
    value = std::isnan(value) ? std::clamp(0.0, least, most) : std::clamp(value, least, most);
  }
  void seconds(std::string_view key, std::vector<double>& values, double least, double most) {
    for (double& value : values) seconds(key, value, least, most);
  }
  void reason(std::string_view key, Reason& value) { expect(key, static_cast<int>(value) < reason_count); }
  void button(std::string_view key, PointerButton& value) { expect(key, value <= PointerButton::forward); }
  void judged(std::optional<Verdict>& verdict) {
    if (verdict) fields(*verdict, *this);
  }
  template <class Part>
  void part(std::string_view, Part& value) {
    fields(value, *this);
  }
  template <class Part>
  void parts(std::string_view, std::vector<Part>& values) {
    for (Part& value : values) fields(value, *this);
  }

  void tag(std::string_view) {}
  void tag(std::string_view, Move& value) { fields(value, *this); }
  void tag(std::string_view key, Script& value) {
    expect(key, !is_too_large(value), NoticeKind::too_large);
    if (!wrong_) fields(value, *this);
  }
  template <class Value>
  void tag(std::string_view key, Value& value) {
    look_at(key, value);
  }
  template <class Value, std::size_t N>
  void tag(std::string_view key, Value& value, const Words<Value, N>& words) {
    expect(key, is_word(value, words));
  }
  template <std::size_t N>
  void tag(const Words<ReasonInput::What, N>& words, ReasonInput::What& what, std::string& reason) {
    expect("what", is_word(what, words));
    look_at("reason", reason);
  }
  template <std::size_t N>
  void tag(const Words<bool, N>&, bool&) {}
  template <class Options>
  void options(std::string_view key, Options& value) {
    expect_checked(key, value);
  }
  void table(std::string_view key, std::shared_ptr<const TableSetup>& value) {
    expect(key, value != nullptr);
    if (value) expect_checked(key, *value);
  }
  void wanted(std::string_view, std::vector<WantedZone>&) {}
  void arguments(std::string_view key, std::vector<VerdictArgument>& values) {
    for (VerdictArgument& value : values) {
      look_at(key, value.name);
      if (auto* text = std::get_if<std::string>(&value.value)) look_at(key, *text);
    }
  }
  // Whether a number can be called and be that is seen when the edit is made.
  void numbers(std::string_view, Numbers&) {}
  void effect(std::string_view key, std::optional<CardEffect>& value) {
    if (value) expect_checked(key, *value);
  }
  // Whether these are possible is seen when they are taken: it depends on the table.
  void zone(std::string_view, ZoneId, ZoneBehaviour&) {}
  void plans(std::string_view, std::vector<Plan>&) {}

 private:
  void expect(std::string_view key, bool holds, NoticeKind otherwise = NoticeKind::out_of_range) {
    if (!holds && !wrong_) wrong_ = Refusal{.notice = {.kind = otherwise, .part = key}};
  }

  template <class Value, std::size_t N>
  static bool is_word(Value value, const Words<Value, N>& words) {
    return std::any_of(words.begin(), words.end(), [&](const auto& word) { return word.second == value; });
  }
  /// By the check of set-up calls, whose sentence says more than the name of the part.
  template <class Options>
  void expect_checked(std::string_view key, const Options& options) {
    try {
      check(options);
    } catch (const Error& e) {
      expect(key, false);
      if (wrong_->problem.empty()) wrong_->problem = e.what();
    }
  }

  template <class Value>
  void look_at(std::string_view, Value&) {}
  void look_at(std::string_view, std::string& text) {
    if (!geometry_detail::is_utf8(text)) text = geometry_detail::as_utf8(text);
  }
  void look_at(std::string_view key, Vec2& point) { expect(key, is_within(point.x) && is_within(point.y)); }
  void look_at(std::string_view key, Size& size) {
    expect(key, is_length(size.width) && is_length(size.height));
  }
  void look_at(std::string_view key, Insets& i) {
    expect(key, is_length(i.left) && is_length(i.top) && is_length(i.right) && is_length(i.bottom));
  }
  static bool is_within(float px) { return std::abs(double{px}) <= most_input_px; }
  static bool is_length(float px) { return is_within(px) && px >= 0; }

  std::optional<Refusal> wrong_ = {};
};

/// Hears only how an input is called: the key that its list begins with.
struct Naming {
  std::string_view name = {};

  template <class... More>
  void tag(std::string_view key, More&&...) {
    name = key;
  }
  template <class Value, std::size_t N, class... More>
  void tag(const Words<Value, N>& words, Value& value, More&&...) {
    for (const auto& [word, of] : words) {
      if (of == value) name = word;
    }
  }
  template <class... More>
  void operator()(More&&...) const {}
  template <class... More>
  void always(More&&...) const {}
  template <class... More>
  void number(More&&...) const {}
  template <class... More>
  void cut(More&&...) const {}
  template <class... More>
  void seconds(More&&...) const {}
  template <class... More>
  void button(More&&...) const {}
  template <class... More>
  void part(More&&...) const {}
  template <class... More>
  void parts(More&&...) const {}
  void judged(std::optional<Verdict>&) const {}
  template <class Options>
  void options(std::string_view key, Options&) {
    name = key;
  }
  void table(std::string_view key, std::shared_ptr<const TableSetup>&) { name = key; }
  void wanted(std::string_view key, std::vector<WantedZone>&) { name = key; }
  void plans(std::string_view key, std::vector<Plan>&) { name = key; }
  template <class... More>
  void zone(More&&...) const {}
  template <class... More>
  void effect(More&&...) const {}
};

/// Counts acts, no further than too many.
bool grows_too_large(const Script& script, int depth, int& acts) {
  if (depth > most_script_depth || ++acts > most_script_acts) return true;
  return std::any_of(script.parts.begin(), script.parts.end(),
                     [&](const Script& part) { return grows_too_large(part, depth + 1, acts); });
}

}  // namespace

std::optional<Refusal> refuse(AnyInput& input) {
  Admission admission;
  std::visit([&](auto& kind) { fields(kind, admission); }, input);
  std::optional<Refusal> wrong = admission.wrong();
  if (wrong) wrong->notice.input = name_of(input);
  return wrong;
}

std::string_view name_of(const AnyInput& input) {
  Naming naming;
  // The lists are made for readers, too, so they want what can be changed: mostly a blank one of the kind
  // will do.
  const auto look = [&](const auto& kind) {
    using Kind = std::remove_cvref_t<decltype(kind)>;
    constexpr bool by_word = std::is_same_v<Kind, ReasonInput> || std::is_same_v<Kind, UndoInput>;
    Kind like = by_word ? kind : Kind{};
    fields(like, naming);
  };
  std::visit(look, input);
  return naming.name;
}

bool is_too_large(const Script& script) {
  int acts = 0;
  return grows_too_large(script, 1, acts);
}

Verdict usable(Verdict verdict) {
  if (static_cast<int>(verdict.reason) >= reason_count) verdict.reason = Reason::refused_by_game;
  return verdict;
}

Verdict usable(Verdict verdict, const Move& move) {
  verdict = usable(std::move(verdict));
  if (verdict.allowed()) return verdict;
  if (!verdict.card && !verdict.face && rules_detail::carries(move))
    verdict.card = rules_detail::named_by(move).first;
  if (!verdict.zone) verdict.zone = move.to;
  return verdict;
}

}  // namespace apsidon::play_detail

std::string_view apsidon::name_of(const Input& input) {
  return play_detail::name_of(play_detail::any_of(input));
}
