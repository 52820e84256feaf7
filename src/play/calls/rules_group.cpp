#include "apsidon/play/rules_group.hpp"

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

PickVerdict RulesGroup::judge_pick(CardId card) const {
  return apsidon::judge_pick(field()->table(), field()->referee.plain_rulebook(), card);
}
Verdict RulesGroup::judge_select(CardId card) const {
  return field()->selection.judge(card, field()->table(), field()->referee.plain_rulebook());
}
std::vector<CardId> RulesGroup::addable() const {
  const Rulebook rules = field()->referee.plain_rulebook();
  std::vector<CardId> cards;
  for (const Zone& zone : field()->table().zones()) {
    if (!field()->setup().rules_of(zone.id).select) continue;
    for (const CardId card : zone.cards) {
      // One that is chosen is refused.
      if (rules_detail::may_select(field()->table(), rules, field()->selection.cards(), card))
        cards.push_back(card);
    }
  }
  return cards;
}
Verdict RulesGroup::judge_drop(const Run& run, ZoneId to) const {
  return apsidon::judge_drop(field()->table(), field()->referee.plain_rulebook(), run, to);
}
Verdict RulesGroup::judge_move(const Move& move) const {
  return apsidon::judge_move(field()->table(), field()->referee.plain_rulebook(), move);
}
Verdict RulesGroup::judge_face(FaceId face, ZoneId to, std::size_t count, ZoneId from) const {
  return apsidon::judge_face(field()->table(), field()->referee.plain_rulebook(), face, to, count, from);
}
MoveVerdict RulesGroup::best_move(CardId card) const {
  return apsidon::best_move(field()->table(), field()->referee.plain_rulebook(), card);
}
MoveVerdict RulesGroup::stock_move(ZoneId stock) const {
  return apsidon::stock_move(field()->table(), field()->referee.plain_rulebook(), stock);
}
Verdict RulesGroup::judge_stock(ZoneId stock) const {
  return apsidon::judge_stock(field()->table(), field()->referee.plain_rulebook(), stock);
}
std::vector<Move> RulesGroup::legal_moves() const {
  return apsidon::legal_moves(field()->table(), field()->referee.plain_rulebook());
}

std::string_view RulesGroup::sentence(std::string_view rule) const {
  const auto& all = field()->setup().sentences;
  const auto it = all.find(rule);
  return it == all.end() ? std::string_view{} : std::string_view(it->second);
}

const Names& RulesGroup::names() const { return field()->setup().names; }

Verdict RulesGroup::ask_again(bool on_turn) {
  return field()->call(AskAgainInput{.on_turn = on_turn}).verdict;
}

}  // namespace apsidon
