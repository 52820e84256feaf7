#include "play/trail.hpp"

#include <utility>

#include "play/admit.hpp"

namespace apsidon::play_detail {

Verdict Trail::answer(const OwnRule& rule, const RuleQuestion& question) {
  Verdict verdict = question.answer(Reason::own_rule);
  if (aside_) return rule.judge ? usable(rule.judge(question)) : verdict;
  if (!own_.empty() && own_.front().rule == rule.name) {
    verdict = own_.front().verdict;
    own_.pop_front();
  } else if (rule.judge) {
    verdict = usable(rule.judge(question));
  }
  told_.emplace_back(OwnRuleInput{.rule = rule.name, .verdict = verdict});
  return verdict;
}

std::optional<Verdict> Trail::judge(const Proposal& proposal) {
  std::optional<Verdict> verdict = Verdict{};
  if (!judged_.empty() && judged_.front().proposal == proposal.id) {
    verdict = judged_.front().verdict;
    judged_.pop_front();
  } else if (judge_) {
    verdict = judge_(proposal);
    if (verdict) verdict = usable(*std::move(verdict), proposal.move);
  } else {
    return verdict;  // nobody was asked
  }
  told_.emplace_back(JudgedInput{.proposal = proposal.id, .verdict = verdict});
  return verdict;
}

}  // namespace apsidon::play_detail
