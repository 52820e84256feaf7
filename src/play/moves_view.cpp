#include "apsidon/play/moves_view.hpp"

#include <utility>

#include "play/impl.hpp"

namespace apsidon {

bool MovesView::can_undo() const { return field_->referee.can_undo(); }
bool MovesView::can_redo() const { return field_->referee.can_redo(); }
std::span<const Proposal> MovesView::waiting() const { return field_->referee.waiting(); }

Verdict MovesCalls::make(const Move& move) { return field_->make(move, field_->now()); }
Verdict MovesCalls::draw_from(ZoneId stock) { return field_->draw_from(stock, field_->now()); }

Verdict MovesCalls::send_to_best(CardId card) { return field_->send_best(card, field_->now()); }

Verdict MovesCalls::undo() {
  field_->record(UndoInput{.redo = false, .time = field_->now()});
  return field_->go_back(false);
}

Verdict MovesCalls::redo() {
  field_->record(UndoInput{.redo = true, .time = field_->now()});
  return field_->go_back(true);
}

void MovesCalls::set_judge(Judge judge) { field_->referee.set_judge(std::move(judge)); }

Verdict MovesCalls::answer(std::uint64_t proposal, const Verdict& verdict) {
  field_->record(AnswerInput{proposal, verdict, field_->now()});
  return field_->answer(proposal, verdict);
}

}  // namespace apsidon
