// What the game changes by itself.
#include <algorithm>
#include <utility>

#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {
namespace {

/// A layout that has so many cells has none beyond them.
Verdict set_cell(Table& table, const TableSetup& setup, const Edit& e) {
  const Card* card = table.card(e.card);
  if (!card) return {.reason = Reason::unknown_card, .card = e.card};
  const std::size_t cells = traits_of(setup.layout_of(card->zone).kind).cells;
  if (cells > 0 && e.cell >= 0 && static_cast<std::size_t>(e.cell) >= cells)
    return {.reason = Reason::unknown_index, .card = e.card, .zone = card->zone};
  return table.set_cell(e.card, e.cell);
}

Verdict change(Table& table, const TableSetup& setup, const Edit& e) {
  return e.kind == EditKind::set_cell ? set_cell(table, setup, e) : cards_detail::change(table, e);
}

}  // namespace

namespace {

void show_on(Impl& field, CardId card);
void show_on(Impl& field, std::span<const WantedZone> wanted);
void arrange_anew(Impl& field);

/// What is told of an edit, of those of which anything is.
std::optional<EventKind> told_of(EditKind kind) {
  switch (kind) {
    case EditKind::set_face:
      return EventKind::face_changed;
    case EditKind::set_sideways:
      return EventKind::reoriented;
    case EditKind::set_number:
      return EventKind::counted;
    case EditKind::set_turn:
      return EventKind::turn_passed;
    default:
      return std::nullopt;
  }
}

/// A card that is covered, and gets another face or none, shows on what it shows until it is edge-on.
void show_on(Impl& field, CardId card) {
  const std::size_t s = field.slot(card);
  const FaceId face = field.table().card(card)->face;
  if (!field.traffic.card(s).still_shows && face && shows_face(field.traffic.motion().pose(s).flip))
    field.traffic.show_on(s, face);
}

void show_on(Impl& field, std::span<const WantedZone> wanted) {
  for (const WantedZone& zone : wanted) {
    for (const WantedCard& card : zone.cards) {
      const auto id = field.table().find_card_by_key(card.key);
      if (!id) continue;
      const Card& now = *field.table().card(*id);
      const bool covered = !card.face_up.value_or(now.face_up);
      if (covered && card.face.value_or(now.face) != now.face) show_on(field, *id);
    }
  }
}

/// Zones lie in another way, or elsewhere: everything glides there.
void arrange_anew(Impl& field) {
  field.traffic.begin_change();
  field.referee.give_cells();
  Following follows(field);
  follows.send(field.arrangement.arrange_anew(field.setup(), field.layout_request()), Change::plan);
  Following(field).table_changed();
}

}  // namespace

Outcome Impl::edit(const Edit& e) {
  if (e.kind == EditKind::mark_move) return referee.mark_move(), Outcome{.used = true};
  const Card* first = table().card(e.run.first);
  const ZoneId from = e.kind == EditKind::move && first ? first->zone : ZoneId{};
  if (e.kind == EditKind::conceal && table().zone(e.zone)) {
    for (const CardId card : table().zone(e.zone)->cards) show_on(*this, card);
  }
  if (e.kind == EditKind::set_face && table().card(e.card) && !table().card(e.card)->face_up)
    show_on(*this, e.card);
  const std::uint64_t before = table().revision();
  const Verdict verdict = referee.edit([&](Table& table) { return change(table, setup(), e); });
  Outcome outcome{.used = verdict.allowed(), .verdict = verdict};
  if (!verdict) return outcome;
  if (e.kind == EditKind::create) outcome.card = table().last_id();
  if (const auto kind = told_of(e.kind)) {
    const Card* card = table().card(e.card);
    const bool counts = e.kind == EditKind::set_number;
    const bool tells = table().revision() != before || !(counts || e.kind == EditKind::set_turn);
    if (tells) {
      events.tell({.kind = *kind,
                   .time = now(),
                   .card = e.card,
                   .count = e.card ? std::size_t{1} : std::size_t{0},
                   .from = card ? card->zone : ZoneId{},
                   .to = counts ? e.zone : ZoneId{},
                   .seat = e.seat,
                   .name = e.name},
                  table());
    }
  }
  if (e.kind == EditKind::remove) traffic.clear_retired(table());
  Following(*this).table_changed();
  // What came before cannot be undone any more: this client does not know the faces.
  if (e.kind == EditKind::conceal) referee.forget_history();
  if (from && from != e.zone && table().zone(from)->cards.empty()) {
    events.tell({.kind = EventKind::emptied, .time = now(), .from = from});
  }
  return outcome;
}

SyncReport Impl::sync(std::span<const WantedZone> wanted) {
  const std::uint64_t before = table().revision();
  show_on(*this, wanted);
  SyncReport report = referee.edit([&](Table& table) { return table.sync(wanted); });
  if (!report.verdict || table().revision() == before) return report;
  if (!report.retired.empty()) traffic.clear_retired(table());
  end_made();
  Following(*this).table_changed();
  referee.forget_history();  // what the game's own truth has replaced cannot come back
  return report;
}

void Impl::set_behaviour(ZoneId zone, const ZoneBehaviour& options) {
  const bool lies_otherwise = options.layout != setup().layout_of(zone);
  referee.set_behaviour(zone, options);
  if (lies_otherwise) {
    arrange_anew(*this);
  } else {
    Following(*this).table_changed();
  }
  Following(*this).ask_again();
}

void Impl::set_plans(std::vector<Plan> plans) {
  referee.set_plans(std::move(plans));
  arrange_anew(*this);
}

Verdict Impl::scroll_to(ZoneId zone, float offset) {
  if (!table().zone(zone)) return {.reason = Reason::unknown_zone, .zone = zone};
  if (!setup().layout_of(zone).scrolls) return {};
  const float cut = std::clamp(offset, 0.0f, arrangement.last_offset(setup(), zone));
  if (cut == arrangement.offset(zone)) return {};
  Following follows(*this);
  // Content follows the finger at once.
  follows.send(arrangement.scroll_to(setup(), zone, cut, layout_request()), Change::window);
  Following(*this).aim_carries_again();
  Following(*this).consider_hover();
  return {};
}

}  // namespace apsidon::play_detail
