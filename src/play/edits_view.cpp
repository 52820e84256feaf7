#include "apsidon/play/edits_view.hpp"

#include <cmath>
#include <utility>

#include "play/impl.hpp"

namespace apsidon {
namespace {

/// An edit of the table, and what comes after it.
template <class Edit>
Verdict edited(play_detail::Impl& field, Edit edit) {
  const Verdict verdict = field.referee.edit(edit);
  if (verdict) field.after_change();
  return verdict;
}

}  // namespace

Verdict EditsCalls::move(const Run& run, ZoneId to) {
  const Card* first = field_->table().card(run.first);
  const ZoneId from = first ? first->zone : ZoneId{};
  const Verdict verdict = edited(*field_, [&](Table& table) { return table.move(run, to); });
  if (verdict && from != to && field_->table().zone(from)->cards.empty()) {
    field_->events.tell({.kind = EventKind::emptied, .time = field_->now(), .from = from});
  }
  return verdict;
}

Verdict EditsCalls::flip(CardId card, bool face_up) {
  return edited(*field_, [&](Table& table) { return table.flip(card, face_up); });
}

Verdict EditsCalls::set_sideways(CardId card, bool sideways) {
  return edited(*field_, [&](Table& table) { return table.set_sideways(card, sideways); });
}

Verdict EditsCalls::set_face(CardId card, FaceId face) {
  return edited(*field_, [&](Table& table) { return table.set_face(card, face); });
}

Verdict EditsCalls::set_cell(CardId card, int cell) {
  return edited(*field_, [&](Table& table) { return table.set_cell(card, cell); });
}

Verdict EditsCalls::set_position(CardId card, Vec2 at) {
  return edited(*field_, [&](Table& table) { return table.set_position(card, at); });
}

SyncReport EditsCalls::sync(std::span<const WantedZone> wanted) {
  field_->record(SyncInput{{wanted.begin(), wanted.end()}, field_->now()});
  const std::uint64_t before = field_->table().revision();
  SyncReport report = field_->referee.edit([&](Table& table) { return table.sync(wanted); });
  if (!report.verdict || field_->table().revision() == before) return report;
  if (!report.retired.empty()) field_->traffic.clear_retired(field_->table());
  field_->after_change();
  field_->referee.forget_history();  // what the game's own truth has replaced cannot come back
  return report;
}

Verdict EditsCalls::remove(CardId card) {
  const Verdict verdict = field_->referee.edit([&](Table& table) { return table.remove(card); });
  if (!verdict) return verdict;
  field_->traffic.clear_retired(field_->table());
  field_->after_change();
  field_->referee.forget_history();
  return verdict;
}

void EditsCalls::mark_move() { field_->referee.mark_move(); }

void EditsCalls::set_panel(PanelId panel, std::string text, float fill) {
  if (field_->is_finite_or_ignored(double{fill})) field_->panels.show(panel, std::move(text), fill);
}

}  // namespace apsidon
