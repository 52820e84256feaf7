// Edits as values.
#include "cards/inside.hpp"

namespace apsidon {

Verdict cards_detail::change(Table& table, const Edit& e) {
  switch (e.kind) {
    case EditKind::move:
      return e.at ? table.move(e.run, e.zone, *e.at) : table.move(e.run, e.zone);
    case EditKind::swap:
      return table.swap(e.card, e.other);
    case EditKind::flip:
      return table.flip(e.card, e.on);
    case EditKind::set_sideways:
      return table.set_sideways(e.card, e.on);
    case EditKind::set_face:
      return table.set_face(e.card, e.face);
    case EditKind::set_cell:
      return table.set_cell(e.card, e.cell);
    case EditKind::set_position:
      return table.set_position(e.card, e.position);
    case EditKind::shuffle:
      return table.shuffle(e.zone, e.seed);
    case EditKind::scatter:
      return table.scatter(e.zone, e.seed);
    case EditKind::conceal:
      return table.conceal(e.zone);
    case EditKind::cut:
      return table.cut(e.zone, e.count);
    case EditKind::remove:
      return table.remove(e.card);
    case EditKind::create:
    case EditKind::mark_move:
      break;
  }
  return {};
}

}  // namespace apsidon
