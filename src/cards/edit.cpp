// Edits as values.
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "geometry/thrown.hpp"

namespace apsidon {
namespace {

NumberOwner owner_of(const Edit& e) {
  if (e.card) return e.card;
  if (e.zone) return e.zone;
  return e.seat;
}

/// Why no such card can be made; allowed when it can.
Verdict check_made(const Table& table, ZoneId zone, const CardOptions& made) {
  if (!table.zone(zone)) return {.reason = Reason::unknown_zone, .zone = zone};
  if (made.face != hidden_face && !table.deck().has(made.face))
    return {.reason = Reason::unknown_face, .face = made.face, .zone = zone};
  if (made.key != 0 && table.find_card_by_key(made.key))
    return {.reason = Reason::repeated_key, .zone = zone, .key = made.key};
  if (made.cell < -1 || made.cell > static_cast<int>(most_cards) || table.card_count() >= most_cards)
    return {.reason = Reason::unknown_index, .zone = zone};
  if (auto problem = geometry_detail::thrown_by([&] { (void)cards_detail::checked(made.numbers, "card"); }))
    return {.reason = Reason::out_of_range, .zone = zone, .arguments = {{"problem", *std::move(problem)}}};
  return {};
}

Verdict create(Table& table, ZoneId zone, const CardOptions& made) {
  const Verdict verdict = check_made(table, zone, made);
  if (verdict) (void)table.create_card(zone, made);
  return verdict;
}

}  // namespace

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
    case EditKind::set_number:
      return table.set_number(e.name, e.value, owner_of(e));
    case EditKind::set_turn:
      return table.set_turn(e.seats);
    case EditKind::create:
      return create(table, e.zone, e.made);
    case EditKind::mark_move:
      break;
  }
  return {};
}

}  // namespace apsidon
