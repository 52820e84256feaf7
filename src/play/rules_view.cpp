#include "apsidon/play/rules_view.hpp"

#include "play/impl.hpp"

namespace apsidon {

PickVerdict RulesView::judge_pick(CardId card) const { return field_->referee.judge_pick(card); }
Verdict RulesView::judge_drop(const Run& run, ZoneId to) const {
  return apsidon::judge_drop(field_->table(), field_->setup().rulebook(), run, to);
}
Verdict RulesView::judge_stock(ZoneId stock) const { return field_->referee.judge_stock(stock); }
std::vector<LegalMove> RulesView::legal_moves() const {
  return apsidon::legal_moves(field_->table(), field_->setup().rulebook());
}

}  // namespace apsidon
