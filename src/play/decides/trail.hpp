#pragma once
// What the game answered when it was asked. Not installed.
#include <deque>
#include <optional>
#include <utility>
#include <vector>

#include "apsidon/play/judge.hpp"
#include "apsidon/play/notice.hpp"
#include "apsidon/rules/rulebook.hpp"
#include "play/decides/callback.hpp"
#include "play/values/any_input.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {

/// Asks the game's judge and its rules in code, and keeps what they said for the log. What a log foretells is
/// the answer instead: then neither has to be there.
///
/// Invariant: every question that is asked is answered once, by the next foretold answer of its kind if there
/// is one, and told once.
class Trail final : public rules_detail::OwnAnswers {
 public:
  Verdict answer(const OwnRule& rule, const RuleQuestion& question) override;
  std::vector<Edit> follow(const std::string& name, const FollowFunction& function,
                           const FollowQuestion& question) override;
  /// Whether somebody is asked about the proposal of this number: the game, or a log in its place.
  [[nodiscard]] bool is_asked(std::uint64_t proposal) const {
    return judge_ || (!judged_.empty() && judged_.front().proposal == proposal);
  }
  /// What the game says of a proposal now; nothing: it answers later.
  std::optional<Verdict> judge(const Proposal& proposal);

  /// What is asked while this lives is only tried: it is no part of the session, and nothing foretells it.
  class Aside {
   public:
    explicit Aside(Trail& trail) : trail_(trail) { trail_.aside_ = true; }
    Aside(const Aside&) = delete;
    Aside& operator=(const Aside&) = delete;
    ~Aside() { trail_.aside_ = false; }

   private:
    Trail& trail_;
  };

  void set_judge(Judge judge) { judge_ = std::move(judge); }
  /// Whether the game is being asked: what it calls meanwhile it calls from within its own function.
  [[nodiscard]] bool asks() const {
    return judge_.runs() || Asking::is_done_by(this) || Asking::is_done_by(&from_outside_);
  }
  /// Asks the rules in code for a question from outside, of which a log need not know.
  [[nodiscard]] rules_detail::OwnAnswers& from_outside() const { return from_outside_; }
  /// What the game's functions threw since this was asked last, and which these were.
  [[nodiscard]] std::vector<Notice> take_thrown() { return std::exchange(thrown_, {}); }
  void foretell(const OwnRuleInput& answer) { own_.push_back(answer); }
  void foretell(const JudgedInput& answer) { judged_.push_back(answer); }
  void foretell(const FollowedInput& answer) { followed_.push_back(answer); }
  /// Whether anything was said that has not been taken.
  [[nodiscard]] bool has_told() const { return !told_.empty(); }
  /// What was said since this was asked last, without times.
  [[nodiscard]] std::vector<AnyInput> take_told() { return std::exchange(told_, {}); }

 private:
  struct FromOutside final : rules_detail::OwnAnswers {
    Verdict answer(const OwnRule& rule, const RuleQuestion& question) override {
      const Asking asking(this);
      return rule.answer(question);
    }
    std::vector<Edit> follow(const std::string& /*name*/, const FollowFunction& function,
                             const FollowQuestion& question) override {
      const Asking asking(this);
      return rules_detail::follow_of(function, question);
    }
  };

  Verdict ask(const OwnRule& rule, const RuleQuestion& question);

  Callback<Judge> judge_ = {};
  mutable FromOutside from_outside_ = {};  // may be asked on several threads: it has no state
  std::vector<Notice> thrown_ = {};
  std::deque<OwnRuleInput> own_ = {};
  std::deque<JudgedInput> judged_ = {};
  std::deque<FollowedInput> followed_ = {};
  std::vector<AnyInput> told_ = {};
  bool aside_ = false;
};

}  // namespace apsidon::play_detail
