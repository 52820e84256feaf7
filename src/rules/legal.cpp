// What a stock gives, and all that a player may do.
#include <algorithm>

#include "apsidon/rules/rule.hpp"

namespace apsidon {

Verdict judge_stock(const Table& table, const Rulebook& rules, ZoneId id) {
  const Zone* zone = table.zone(id);
  if (!zone) return {.reason = Reason::unknown_zone, .zone = id};
  if (id.value > rules.zones.size() || !rules.zones[id.value - 1].stock) {
    return {.reason = Reason::no_stock, .zone = id};
  }
  const StockRule& stock = *rules.zones[id.value - 1].stock;
  const Zone* waste = table.zone(stock.to);
  if (!waste) return {.reason = Reason::unknown_zone, .zone = stock.to};
  if (!zone->cards.empty()) {
    const auto pass = std::min(static_cast<std::size_t>(zone->recycled), stock.gives.size() - 1);
    const auto gives = std::min(zone->cards.size(), static_cast<std::size_t>(stock.gives[pass]));
    return {.card = zone->cards.back(), .zone = id, .found = static_cast<int>(gives)};
  }
  if (waste->cards.empty()) return {.reason = Reason::empty_zone, .zone = id};
  if (stock.passes > 0 && zone->recycled + 1 >= stock.passes) {
    return {.reason = Reason::no_passes, .zone = id, .wanted = stock.passes, .found = zone->recycled + 1};
  }
  return {.zone = id, .found = 0};
}

namespace {

/// Calls `with` for every legal move until it returns false.
template <class With>
void each_legal_move(const Table& table, const Rulebook& rules, With with) {
  for (const Zone& zone : table.zones()) {
    if (zone.id.value > rules.zones.size()) return;
    if (rules.zones[zone.id.value - 1].stock) {
      const Verdict verdict = judge_stock(table, rules, zone.id);
      if (verdict &&
          !with(LegalMove{
              .from = zone.id, .to = rules.zones[zone.id.value - 1].stock->to, .verdict = verdict})) {
        return;
      }
    }
    if (rules.zones[zone.id.value - 1].pick.kind == PickKind::nothing) continue;
    for (const CardId card : zone.cards) {
      const PickVerdict pick = judge_pick(table, rules, card);
      if (!pick.verdict) continue;
      for (const Zone& to : table.zones()) {
        if (to.id == zone.id) continue;
        const Verdict verdict = judge_drop(table, rules, pick.run, to.id);
        if (verdict && !with(LegalMove{.run = pick.run, .from = zone.id, .to = to.id, .verdict = verdict}))
          return;
      }
    }
  }
}

}  // namespace

std::vector<LegalMove> legal_moves(const Table& table, const Rulebook& rules) {
  std::vector<LegalMove> moves;
  each_legal_move(table, rules, [&](const LegalMove& move) {
    moves.push_back(move);
    return true;
  });
  return moves;
}

bool any_legal_move(const Table& table, const Rulebook& rules) {
  bool any = false;
  each_legal_move(table, rules, [&](const LegalMove&) {
    any = true;
    return false;
  });
  return any;
}

}  // namespace apsidon
