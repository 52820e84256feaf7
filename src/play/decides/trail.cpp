#include "play/decides/trail.hpp"

#include <fmt/format.h>

#include <utility>

#include "geometry/utf8.hpp"
#include "play/order/admit.hpp"

namespace apsidon::play_detail {
namespace {

/// What an exception said, as a verdict tells it.
std::string problem_in(const Verdict& verdict) {
  for (const VerdictArgument& argument : verdict.arguments) {
    if (const auto* text = std::get_if<std::string>(&argument.value)) return geometry_detail::as_utf8(*text);
  }
  return "something";
}

/// Edits that no log could have are left out: nothing of them could be meant.
std::vector<Edit> writable(std::vector<Edit> edits) {
  std::erase_if(edits, [](const Edit& e) {
    AnyInput tried = EditInput{.edit = e};
    return refuse(tried).has_value();
  });
  return edits;
}

}  // namespace

Verdict Trail::ask(const OwnRule& rule, const RuleQuestion& question) {
  const auto asked = [&] {
    const Asking asking(this);
    return rule.answer(question);
  };
  Verdict verdict = usable(asked());
  if (verdict.reason == Reason::game_failed) {
    Notice notice{.kind = NoticeKind::callback, .input = "rule"};
    notice.problem = fmt::format("{} (of '{}')", problem_in(verdict), rule.name);
    thrown_.push_back(std::move(notice));
  }
  return verdict;
}

Verdict Trail::answer(const OwnRule& rule, const RuleQuestion& question) {
  if (aside_) return ask(rule, question);
  Verdict verdict;
  if (!own_.empty() && own_.front().rule == rule.name) {
    verdict = own_.front().verdict;
    own_.pop_front();
  } else {
    verdict = ask(rule, question);
  }
  told_.emplace_back(OwnRuleInput{.rule = rule.name, .verdict = verdict});
  return verdict;
}

std::vector<Edit> Trail::follow(const std::string& name, const FollowFunction& function,
                                const FollowQuestion& question) {
  const auto ask = [&] {
    const Asking asking(this);
    std::string problem;
    std::vector<Edit> edits = writable(rules_detail::follow_of(function, question, &problem));
    if (!problem.empty()) {
      thrown_.push_back({.kind = NoticeKind::callback,
                         .input = "consequence",
                         .problem = fmt::format("{} (of '{}')", problem, name)});
    }
    return edits;
  };
  if (aside_) return ask();
  const bool known = !followed_.empty() && followed_.front().name == name;
  std::vector<Edit> edits = known ? std::move(followed_.front().edits) : ask();
  if (known) followed_.pop_front();
  told_.emplace_back(FollowedInput{.name = name, .edits = edits});
  return edits;
}

std::optional<Verdict> Trail::judge(const Proposal& proposal) {
  std::optional<Verdict> verdict = Verdict{};
  if (!judged_.empty() && judged_.front().proposal == proposal.id) {
    verdict = judged_.front().verdict;
    judged_.pop_front();
  } else if (judge_) {
    const auto thrown = judge_.call([&](const auto& asked) { verdict = asked(); }, proposal);
    if (thrown) {
      thrown_.push_back({.kind = NoticeKind::callback, .input = "judge", .problem = *thrown});
      verdict = Verdict{.reason = Reason::game_failed, .arguments = {{"problem", *thrown}}};
    }
    if (verdict) verdict = usable(*std::move(verdict), proposal.move);
  } else {
    return verdict;  // nobody was asked
  }
  told_.emplace_back(JudgedInput{.proposal = proposal.id, .verdict = verdict});
  return verdict;
}

}  // namespace apsidon::play_detail
