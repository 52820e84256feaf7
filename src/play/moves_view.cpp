#include "apsidon/play/moves_view.hpp"

#include <utility>

#include "play/impl.hpp"

namespace apsidon {

bool MovesView::can_undo() const { return field_->gate.lets_undo() && field_->referee.can_undo(); }
bool MovesView::can_redo() const { return field_->gate.lets_undo() && field_->referee.can_redo(); }
Standing MovesView::standing() const { return field_->referee.standing(); }
std::span<const Proposal> MovesView::waiting() const { return field_->referee.waiting(); }

std::vector<Move> MovesView::finishing_moves() const {
  return apsidon::finishing_moves(field_->table(), field_->referee.plain_rulebook(),
                                  field_->setup().finish.into);
}

Verdict MovesCalls::make(const Move& move) { return field_->call(MoveInput{.move = move}).verdict; }
Verdict MovesCalls::draw_from(ZoneId stock) {
  return field_->call(TapInput{.tap = TapKind::draw, .zone = stock}).verdict;
}
Verdict MovesCalls::send_to_best(CardId card) {
  return field_->call(TapInput{.tap = TapKind::send, .card = card}).verdict;
}
Verdict MovesCalls::flip(CardId card) {
  return field_->call(TapInput{.tap = TapKind::flip, .card = card}).verdict;
}
Verdict MovesCalls::finish() { return field_->call(FinishInput{}).verdict; }
Verdict MovesCalls::undo() { return field_->call(UndoInput{.redo = false}).verdict; }
Verdict MovesCalls::redo() { return field_->call(UndoInput{.redo = true}).verdict; }
void MovesCalls::forbid_undo(std::string_view reason, bool lasts) {
  (void)field_->call(
      ReasonInput{.what = ReasonInput::What::forbid_undo, .reason = std::string(reason), .lasts = lasts});
}
void MovesCalls::allow_undo(std::string_view reason) {
  (void)field_->call(ReasonInput{.what = ReasonInput::What::allow_undo, .reason = std::string(reason)});
}
void MovesCalls::set_judge(Judge judge) { field_->referee.trail().set_judge(std::move(judge)); }
Verdict MovesCalls::answer(std::uint64_t proposal, const Verdict& verdict) {
  return field_->call(AnswerInput{.proposal = proposal, .verdict = verdict}).verdict;
}

}  // namespace apsidon
