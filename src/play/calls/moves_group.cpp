#include "apsidon/play/moves_group.hpp"

#include <utility>

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

bool MovesGroup::can_undo() const { return field()->gate.lets_undo() && field()->referee.can_undo(); }
bool MovesGroup::can_redo() const { return field()->gate.lets_undo() && field()->referee.can_redo(); }
Standing MovesGroup::standing() const { return field()->referee.standing(); }
std::span<const Proposal> MovesGroup::waiting() const { return field()->referee.waiting(); }

std::vector<Move> MovesGroup::finishing_moves() const {
  return apsidon::finishing_moves(field()->table(), field()->referee.plain_rulebook(),
                                  field()->setup().finish.into);
}

Verdict MovesGroup::make(const Move& move) { return field()->call(MoveInput{.move = move}).verdict; }
Verdict MovesGroup::make(std::string_view name) {
  const MoveVerdict found = named_move(field()->table(), field()->referee.plain_rulebook(), name);
  return found.verdict.reason == Reason::unknown_move ? found.verdict : make(found.move);
}
Verdict MovesGroup::draw_from(ZoneId stock) {
  return field()->call(TapInput{.tap = TapKind::draw, .zone = stock}).verdict;
}
Verdict MovesGroup::play_selection(ZoneId to) {
  const auto chosen = field()->selection.cards();
  if (chosen.empty()) return {.reason = Reason::nothing_chosen, .zone = to};
  if (!to) return send_to_best(chosen.front());
  return make({.kind = MoveKind::several,
               .cards = std::vector<CardId>(chosen.begin(), chosen.end()),
               .from = field()->table().card(chosen.front())->zone,
               .to = to});
}
Verdict MovesGroup::send_to_best(CardId card) {
  return field()->call(TapInput{.tap = TapKind::send, .card = card}).verdict;
}
Verdict MovesGroup::flip(CardId card) {
  return field()->call(TapInput{.tap = TapKind::flip, .card = card}).verdict;
}

Verdict MovesGroup::reorient(CardId card) {
  return field()->call(TapInput{.tap = TapKind::reorient, .card = card}).verdict;
}
Verdict MovesGroup::finish() { return field()->call(FinishInput{}).verdict; }
Verdict MovesGroup::undo() { return field()->call(UndoInput{.redo = false}).verdict; }
Verdict MovesGroup::redo() { return field()->call(UndoInput{.redo = true}).verdict; }
Verdict MovesGroup::forbid_undo(std::string_view reason, bool lasts) {
  return field()
      ->call(
          ReasonInput{.what = ReasonInput::What::forbid_undo, .reason = std::string(reason), .lasts = lasts})
      .verdict;
}
Verdict MovesGroup::allow_undo(std::string_view reason) {
  return field()
      ->call(ReasonInput{.what = ReasonInput::What::allow_undo, .reason = std::string(reason)})
      .verdict;
}
void MovesGroup::set_judge(Judge judge) { field()->referee.trail().set_judge(std::move(judge)); }
Verdict MovesGroup::answer(std::uint64_t proposal, const Verdict& verdict, bool is_final) {
  return field()->call(AnswerInput{.proposal = proposal, .verdict = verdict, .is_final = is_final}).verdict;
}

}  // namespace apsidon
