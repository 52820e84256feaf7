// What follows a move by rules of the table, and what the game's code says.
#include "apsidon/rules/consequence.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"
#include "cards/inside.hpp"
#include "geometry/options.hpp"
#include "geometry/thrown.hpp"
#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {
namespace {

using rules_detail::Asked;
using rules_detail::Patience;
using rules_detail::uncover;
using Did = MoveStep::Kind;

/// Whether any of these waits for an answer: nothing moves it then.
bool any_locked(const Rulebook& rules, std::span<const CardId> cards) {
  const auto locked = [&](CardId card) {
    return std::find(rules.locked.begin(), rules.locked.end(), card) != rules.locked.end();
  };
  return !rules.locked.empty() && std::any_of(cards.begin(), cards.end(), locked);
}

/// How many of the topmost cards of a zone go; none: nothing follows there.
std::size_t linked(const Table& table, const Rulebook& rules, const Consequence& c, const Zone& zone) {
  const auto count = static_cast<std::size_t>(c.cards);
  if (zone.cards.size() < count) return 0;
  const auto top = std::span(zone.cards).last(count);
  for (std::size_t i = 0; i < count; ++i) {
    const Card& card = *table.card(top[i]);
    if (!card.face_up) return 0;
    if (i == 0) continue;
    Asked q(table, rules);
    q.set_card(card);
    q.set_onto(top[i - 1]);
    q.zone = zone.id;
    if (!rules_detail::ask<bool>(c.link, q)) return 0;
  }
  return count;
}

std::size_t summed(const Table& table, const Consequence& c, const Zone& zone) {
  int sum = 0;
  for (std::size_t count = 1; count <= std::min<std::size_t>(zone.cards.size(), 2); ++count) {
    const Card& card = *table.card(zone.cards[zone.cards.size() - count]);
    const int rank = table.deck().rank_of(card.face);
    if (!card.face_up || rank < 0) return 0;
    sum += rank + 1;
    if (sum == c.sum) return count;
  }
  return 0;
}

bool take_from(Table& table, const Rulebook& rules, const Consequence& c, ZoneId from, Patience& patience,
               std::vector<MoveStep>& steps) {
  patience.add(1);
  if (from == c.to || patience.over()) return false;
  const Zone& zone = *table.zone(from);
  const std::size_t count = c.cards > 0 ? linked(table, rules, c, zone) : summed(table, c, zone);
  const auto cards = std::span(zone.cards).last(count);
  if (count == 0 || any_locked(rules, cards)) return false;
  const Run run{cards.front(), count};
  (void)table.move(run, c.to);
  steps.push_back({.kind = Did::taken, .card = run.first, .count = count, .from = from, .to = c.to});
  uncover(table, rules, from, steps);
  if (!c.counts.empty() && table.set_number(c.counts, table.number(c.counts) + 1))
    steps.push_back({.kind = Did::counted, .name = c.counts});
  return true;
}

/// What an edit has done; nothing where it could not be done.
void do_edit(Table& table, const Rulebook& rules, const Edit& e, std::vector<MoveStep>& steps) {
  const bool of_run = e.kind == EditKind::move;
  const Card* card = table.card(of_run ? e.run.first : e.card);
  const ZoneId from = card ? card->zone : ZoneId{};
  const auto cards = of_run ? table.cards_of(e.run) : std::span(&e.card, 1);
  if (any_locked(rules, cards)) return;
  const CardId first = card ? card->id : CardId{};
  const std::uint64_t before = table.revision();
  if (!cards_detail::change(table, e) || table.revision() == before) return;
  switch (e.kind) {
    case EditKind::move:
      steps.push_back({.kind = Did::taken, .card = first, .count = e.run.count, .from = from, .to = e.zone});
      if (from != e.zone) uncover(table, rules, from, steps);
      return;
    case EditKind::swap: {
      const ZoneId there = table.card(first)->zone;
      steps.push_back({.kind = Did::exchanged, .card = e.other, .count = 1, .from = there, .to = from});
      steps.push_back({.kind = Did::taken, .card = first, .count = 1, .from = from, .to = there});
      return;
    }
    case EditKind::flip:
      return steps.push_back({.kind = Did::flipped, .card = first, .count = 1, .from = from});
    case EditKind::set_face:
      return steps.push_back({.kind = Did::face_changed, .card = first, .count = 1, .from = from});
    case EditKind::set_sideways:
      return steps.push_back({.kind = Did::turned, .card = first, .count = 1, .from = from});
    case EditKind::create:
      return steps.push_back({.kind = Did::created, .card = table.last_id(), .count = 1, .to = e.zone});
    case EditKind::remove:
      steps.push_back({.kind = Did::removed, .card = e.card, .count = 1, .from = from});
      return uncover(table, rules, from, steps);
    case EditKind::set_number:
      return steps.push_back(
          {.kind = Did::counted, .card = e.card, .to = e.zone, .seat = e.seat, .name = e.name});
    case EditKind::set_turn:
      return steps.push_back({.kind = Did::turn_passed});
    default:
      return;
  }
}

bool may_follow(EditKind kind) {
  switch (kind) {
    case EditKind::conceal:
    case EditKind::mark_move:
      return false;
    default:
      return true;
  }
}

bool follow_code(Table& table, const Rulebook& rules, const Consequence& c, Patience& patience,
                 std::vector<MoveStep>& steps) {
  const std::uint64_t before = table.revision();
  patience.add(1 + rules_detail::do_as_told(table, rules, c.name, c.follow, steps));
  return table.revision() != before;
}

bool follow_one(Table& table, const Rulebook& rules, const Consequence& c, Patience& patience,
                std::vector<MoveStep>& steps) {
  if (c.cards == 0 && c.sum == 0) return follow_code(table, rules, c, patience, steps);
  bool any = false;
  for (const ZoneId zone : c.in) any = take_from(table, rules, c, zone, patience, steps) || any;
  if (c.in.empty()) {
    for (std::uint32_t i = 1; i <= table.zones().size(); ++i)
      any = take_from(table, rules, c, {i}, patience, steps) || any;
  }
  return any;
}

}  // namespace

std::vector<Edit> rules_detail::follow_of(const FollowFunction& function, const FollowQuestion& question,
                                          std::string* problem) {
  std::vector<Edit> edits;
  if (!function) return edits;
  const auto thrown = geometry_detail::thrown_by([&] { edits = function(question); });
  if (thrown && problem) *problem = thrown->empty() ? "something" : *thrown;
  return edits;
}

std::size_t rules_detail::do_as_told(Table& table, const Rulebook& rules, const std::string& name,
                                     const FollowFunction& function, std::vector<MoveStep>& steps) {
  const FollowQuestion question{table, steps};
  const std::vector<Edit> edits =
      rules.own ? rules.own->follow(name, function, question) : follow_of(function, question);
  for (const Edit& edit : edits) {
    if (may_follow(edit.kind)) do_edit(table, rules, edit, steps);
  }
  return edits.size();
}

std::size_t rules_detail::count_parts(const Consequence& c) { return count_parts(c.link) + c.in.size(); }

bool rules_detail::follow_consequences(Table& table, const Rulebook& rules, Patience& patience,
                                       std::vector<MoveStep>& steps) {
  bool any = false;
  for (const Consequence& c : rules.consequences) {
    if (patience.over()) break;
    any = follow_one(table, rules, c, patience, steps) || any;
  }
  return any;
}

void check(const Consequence& c, const Table& table) {
  const int kinds = (c.cards != 0) + (c.sum != 0) + (!c.name.empty() || c.follow ? 1 : 0);
  if (kinds != 1) throw Error("consequence: either cards, a sum or the name of a function is expected");
  if (c.cards == 0 && c.sum == 0) {
    if (c.name.empty()) throw Error("consequence: the name of its function is empty: a name is expected");
    return geometry_detail::check_name("consequence: name", c.name);
  }
  if (c.cards != 0) geometry_detail::check_range("consequence: cards", c.cards, 2, 100'000);
  if (c.sum != 0) geometry_detail::check_range("consequence: sum", c.sum, 1, 1'000'000);
  rules_detail::check(c.link, table);
  geometry_detail::check_name("consequence: what it counts", c.counts);
  if (!table.zone(c.to))
    throw Error(fmt::format("consequence: cards go to zone {}: a zone of the table is expected", c.to.value));
  for (const ZoneId zone : c.in) {
    if (!table.zone(zone) || zone == c.to)
      throw Error(fmt::format(
          "consequence: cards are taken from zone {}: another zone of the table is expected", zone.value));
  }
}

}  // namespace apsidon
