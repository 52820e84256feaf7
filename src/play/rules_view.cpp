#include "apsidon/play/rules_view.hpp"

#include "play/impl.hpp"

namespace apsidon {

PickVerdict RulesView::judge_pick(CardId card) const {
  return apsidon::judge_pick(field_->table(), field_->referee.plain_rulebook(), card);
}
Verdict RulesView::judge_drop(const Run& run, ZoneId to) const {
  return apsidon::judge_drop(field_->table(), field_->referee.plain_rulebook(), run, to);
}
Verdict RulesView::judge_move(const Move& move) const {
  return apsidon::judge_move(field_->table(), field_->referee.plain_rulebook(), move);
}
Verdict RulesView::judge_face(FaceId face, ZoneId to, std::size_t count, ZoneId from) const {
  return apsidon::judge_face(field_->table(), field_->referee.plain_rulebook(), face, to, count, from);
}
MoveVerdict RulesView::best_move(CardId card) const {
  return apsidon::best_move(field_->table(), field_->referee.plain_rulebook(), card);
}
MoveVerdict RulesView::stock_move(ZoneId stock) const {
  return apsidon::stock_move(field_->table(), field_->referee.plain_rulebook(), stock);
}
Verdict RulesView::judge_stock(ZoneId stock) const {
  return apsidon::judge_stock(field_->table(), field_->referee.plain_rulebook(), stock);
}
std::vector<Move> RulesView::legal_moves() const {
  return apsidon::legal_moves(field_->table(), field_->referee.plain_rulebook());
}

std::string_view RulesView::sentence(std::string_view rule) const {
  const auto& all = field_->setup().sentences;
  const auto it = all.find(rule);
  return it == all.end() ? std::string_view{} : std::string_view(it->second);
}

const Names& RulesView::names() const { return field_->setup().names; }

void RulesCalls::ask_again(bool on_turn) { (void)field_->call(AskAgainInput{.on_turn = on_turn}); }

}  // namespace apsidon
