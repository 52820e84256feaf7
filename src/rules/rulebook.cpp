#include "apsidon/rules/rulebook.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"
#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {

using rules_detail::ask;
using rules_detail::Asked;
using rules_detail::is_off;
using rules_detail::refuse_off;

std::size_t rules_detail::count_parts(const ZoneRules& rules) {
  std::size_t parts = rules.sends_to.size() + rules.takes_from.size();
  for (const Rule* rule : {&rules.drop, &rules.pick.link, &rules.pick.when})
    parts += rules_detail::count_parts(*rule);
  for (const Rule* rule : {&rules.flip, &rules.reorient}) {
    // Most zones let nobody do that, and are not asked about it.
    if (rule->kind != RuleKind::nothing) parts += rules_detail::count_parts(*rule);
  }
  if (rules.select) {
    for (const Rule* rule : {&rules.select->when, &rules.select->link})
      parts += rules_detail::count_parts(*rule);
  }
  return parts + (rules.stock ? rules.stock->gives.size() : 0);
}

void check(const ZoneRules& rules, const Table& table) {
  rules_detail::each_rule(rules, [&](const Rule& rule) { rules_detail::check(rule, table); });
  const auto there = [&](const SharedList<ZoneId>& zones, const char* what) {
    for (const ZoneId zone : zones) {
      if (!table.zone(zone))
        throw Error(
            fmt::format("rules: cards are {} zone {}: a zone of the table is expected", what, zone.value));
    }
  };
  there(rules.sends_to, "sent to");
  there(rules.takes_from, "taken from");
  if (!rules.takes_from.empty() && !rules.takes_itself)
    throw Error("rules: takes_from without takes_itself: both are expected, or neither");
  if (!rules.stock) return;
  const StockRule& stock = *rules.stock;
  if (!table.zone(stock.to)) {
    throw Error(fmt::format("stock: it gives to zone {}: a zone of the table is expected", stock.to.value));
  }
  if (stock.gives.empty()) throw Error("stock: it gives nothing: at least one number is expected");
  for (const int gives : stock.gives) {
    if (gives < 1) throw Error(fmt::format("stock: it gives {} cards: 1 or more is expected", gives));
  }
  if (stock.passes < 0) throw Error(fmt::format("stock: {} passes: 0 or more is expected", stock.passes));
}

namespace {

PickVerdict refused(CardId picked, const Verdict& verdict) { return {verdict, {picked, 0}}; }

/// What the rule of picking says of a card.
PickVerdict judge_run(const Table& table, const Rulebook& rules, const Card& card) {
  const CardId id = card.id;
  const ZoneId zone = card.zone;
  const auto refuse = [&](Reason reason, CardId of, CardId onto = {}) {
    return refused(id, {.reason = reason, .card = of, .onto = onto, .zone = zone});
  };
  if (zone.value > rules.zones.size()) return refuse(Reason::pick_nothing, id);
  const PickRule& pick = rules.zones[zone.value - 1].pick;
  if (pick.kind == PickKind::nothing) return refuse(Reason::pick_nothing, id);
  if (!card.face_up && !pick.covered) return refuse(Reason::face_down, id);
  if (pick.kind == PickKind::top && table.top(zone) != id) return refuse(Reason::not_top, id);
  if (pick.kind != PickKind::run) return {{}, {id, 1}};

  const Run run = table.run_from(id);
  const auto cards = table.cards_of(run);
  for (std::size_t i = 1; i < cards.size(); ++i) {
    const Card& next = *table.card(cards[i]);
    if (!next.face_up && !pick.covered) return refuse(Reason::face_down, cards[i]);
    Asked q(table, rules);
    q.set_card(next);
    q.set_onto(cards[i - 1]);
    q.zone = zone;
    if (!ask<bool>(pick.link, q)) return refuse(Reason::not_linked, cards[i], cards[i - 1]);
  }
  return {{}, run};
}

/// What the game's own conditions say of a run.
Verdict judge_when(const Table& table, const Rulebook& rules, const Card& card, const Run& run) {
  if (card.zone.value > rules.zones.size()) return {};
  const Rule& when = rules.zones[card.zone.value - 1].pick.when;
  if (when.kind == RuleKind::anything) return {};
  return ask<Verdict>(when, Asked::where_it_lies(table, rules, card, run.count));
}

/// As if the zone were empty; and the other way round, as if the card had left its home.
Verdict judge_exchange(const Table& table, const Rulebook& rules, const Card& card, ZoneId to) {
  const CardId other = *table.top(to);
  const ZoneId home = card.zone;
  Asked there(table, rules);
  there.set_card(card);
  there.zone = to;
  const Verdict verdict = ask<Verdict>(rules.zones[to.value - 1].drop, there);
  if (!verdict) return verdict;
  Asked back(table, rules);
  back.set_card(*table.card(other));
  if (card.index > 0) back.set_onto(table.zone(home)->cards[card.index - 1]);
  back.zone = home;
  const bool may_go = home.value <= rules.zones.size() &&
                      (rules.zones[home.value - 1].sorts || rules.zones[home.value - 1].exchanges ||
                       ask<bool>(rules.zones[home.value - 1].drop, back));
  if (may_go) return verdict;
  return {.reason = Reason::no_exchange, .card = card.id, .onto = other, .zone = home};
}

}  // namespace

Verdict rules_detail::judge_switches(const Rulebook& rules, const Card& card) {
  const bool off = is_off(rules, card.id) || is_off(rules, card.zone);
  return off ? refuse_off(rules, {.card = card.id, .zone = card.zone}) : Verdict{};
}

PickVerdict judge_pick(const Table& table, const Rulebook& rules, CardId id) {
  const Card* card = table.card(id);
  if (!card) return refused(id, {.reason = Reason::unknown_card, .card = id});
  const PickVerdict pick = judge_run(table, rules, *card);
  if (!pick.verdict) return pick;
  const bool may_be_off = !rules.cards_off.empty() || !rules.zones_off.empty();
  if (!rules.locked.empty() || may_be_off) {
    for (const CardId of_run : table.cards_of(pick.run)) {
      if (std::find(rules.locked.begin(), rules.locked.end(), of_run) != rules.locked.end())
        return refused(id, {.reason = Reason::locked, .card = of_run, .zone = card->zone});
      if (Verdict off = rules_detail::judge_switches(rules, *table.card(of_run)); !off)
        return refused(id, off);
    }
  }
  if (Verdict own = judge_when(table, rules, *card, pick.run); !own) return refused(id, own);
  return pick;
}

bool rules_detail::would_exchange(const Table& table, const Rulebook& rules, const Run& run, ZoneId to) {
  const Zone* zone = table.zone(to);
  const Card* card = table.card(run.first);
  return zone && card && to.value <= rules.zones.size() && rules.zones[to.value - 1].exchanges &&
         run.count == 1 && zone->cards.size() == 1 && card->zone != to;
}

Verdict judge_drop(const Table& table, const Rulebook& rules, const Run& run, ZoneId to) {
  const Card* first = table.card(run.first);
  if (!first) return {.reason = Reason::unknown_card, .card = run.first};
  if (!table.zone(to)) return {.reason = Reason::unknown_zone, .card = run.first, .zone = to};
  if (table.cards_of(run).empty())
    return {.reason = Reason::unknown_index, .card = run.first, .zone = first->zone};
  Asked q(table, rules);
  q.set_card(*first);
  q.count = run.count;
  q.zone = to;
  q.set_onto(table.top(to).value_or(CardId{}));
  if (first->zone == to && !is_off(rules, to)) {
    const bool sorts = to.value <= rules.zones.size() && rules.zones[to.value - 1].sorts;
    return sorts ? Verdict{} : q.question().answer(Reason::same_zone);
  }
  if (to.value > rules.zones.size()) return q.question().answer(Reason::drop_nothing);
  if (is_off(rules, to)) return refuse_off(rules, q.question().answer(Reason::switched_off));
  if (rules_detail::would_exchange(table, rules, run, to)) {
    const auto locked = std::find(rules.locked.begin(), rules.locked.end(), *table.top(to));
    if (locked != rules.locked.end()) return {.reason = Reason::locked, .card = *locked, .zone = to};
    return judge_exchange(table, rules, *first, to);
  }
  return ask<Verdict>(rules.zones[to.value - 1].drop, q);
}

Verdict judge_face(const Table& table, const Rulebook& rules, FaceId face, ZoneId to, std::size_t count,
                   ZoneId from) {
  if (!table.zone(to)) return {.reason = Reason::unknown_zone, .face = face, .zone = to};
  Asked q(table, rules);
  q.set_face(face);
  q.from = from;
  q.count = count;
  q.zone = to;
  q.set_onto(table.top(to).value_or(CardId{}));
  if (to.value > rules.zones.size()) return q.question().answer(Reason::drop_nothing);
  if (is_off(rules, to)) return refuse_off(rules, q.question().answer(Reason::switched_off));
  return ask<Verdict>(rules.zones[to.value - 1].drop, q);
}

Verdict judge_stock(const Table& table, const Rulebook& rules, ZoneId id) {
  const Zone* zone = table.zone(id);
  if (!zone) return {.reason = Reason::unknown_zone, .zone = id};
  if (id.value > rules.zones.size() || !rules.zones[id.value - 1].stock) {
    return {.reason = Reason::no_stock, .zone = id};
  }
  if (is_off(rules, id)) return refuse_off(rules, {.zone = id});
  const StockRule& stock = *rules.zones[id.value - 1].stock;
  const Zone* waste = table.zone(stock.to);
  if (!waste) return {.reason = Reason::unknown_zone, .zone = stock.to};
  const auto locked_in = [&](std::span<const CardId> cards) {
    return std::find_first_of(cards.begin(), cards.end(), rules.locked.begin(), rules.locked.end());
  };
  if (!zone->cards.empty()) {
    const auto pass = std::min(static_cast<std::size_t>(zone->recycled), stock.gives.size() - 1);
    const auto gives = std::min(zone->cards.size(), static_cast<std::size_t>(stock.gives[pass]));
    const auto given = std::span(zone->cards).last(gives);
    if (const auto locked = locked_in(given); locked != given.end())
      return {.reason = Reason::locked, .card = *locked, .zone = id};
    return {.card = zone->cards.back(), .zone = id, .found = static_cast<int>(gives)};
  }
  if (waste->cards.empty()) return {.reason = Reason::empty_zone, .zone = id};
  if (stock.passes > 0 && zone->recycled + 1 >= stock.passes) {
    return {.reason = Reason::no_passes, .zone = id, .wanted = stock.passes, .found = zone->recycled + 1};
  }
  if (const auto locked = locked_in(waste->cards); locked != std::span<const CardId>(waste->cards).end())
    return {.reason = Reason::locked, .card = *locked, .zone = waste->id};
  return {.zone = id, .found = 0};
}

}  // namespace apsidon
