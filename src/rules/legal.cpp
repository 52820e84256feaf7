// All that a player may do, found without judging each run card by card.
#include <algorithm>

#include "apsidon/rules/move.hpp"
#include "rules/ask.hpp"

namespace apsidon {

using rules_detail::ask;
using rules_detail::Asked;

namespace {

/// A zone that takes something, with what every question about it needs.
struct Target {
  ZoneId zone;
  const ZoneRules* rules;
  CardId top;
  const FaceTraits* traits;  // of the top card, if there is one
  bool exchanges;            // a single card would exchange places with its only one
};

std::vector<Target> targets_of(const Table& table, const Rulebook& rules) {
  std::vector<Target> targets;
  targets.reserve(std::min(table.zones().size(), rules.zones.size()));
  for (std::size_t i = 0; i < targets.capacity() && i < rules.zones.size() && i < table.zones().size(); ++i) {
    const Zone& zone = table.zones()[i];
    if (rules.zones[i].drop.kind == RuleKind::nothing) continue;
    const CardId top = zone.cards.empty() ? CardId{} : zone.cards.back();
    targets.push_back({.zone = zone.id,
                       .rules = &rules.zones[i],
                       .top = top,
                       .traits = top ? &table.deck().traits(table.card(top)->face) : nullptr,
                       .exchanges = rules.zones[i].exchanges && zone.cards.size() == 1});
  }
  return targets;
}

/// Calls `with` for each run that may be picked up from a zone, from the lowest; returns false when `with`
/// did.
template <class With>
bool each_run(const Table& table, const Rulebook& rules, const Zone& zone, const PickRule& pick, With with) {
  const auto& cards = zone.cards;
  const auto may = [&](const Card& card) {
    return card.face_up && (rules.locked.empty() || std::find(rules.locked.begin(), rules.locked.end(),
                                                              card.id) == rules.locked.end());
  };
  if (pick.kind == PickKind::any) {
    for (const CardId id : cards) {
      const Card& card = *table.card(id);
      if (may(card) && !with(card, 1)) return false;
    }
    return true;
  }
  // From the top down as far as the cards hold together.
  const Card* above = table.card(cards.back());
  if (!may(*above)) return true;
  std::size_t first = cards.size() - 1;
  Asked q(table, rules);
  q.zone = zone.id;
  while (pick.kind == PickKind::run && first > 0) {
    const Card& below = *table.card(cards[first - 1]);
    if (!may(below)) break;
    q.set_card(*above);
    q.set_onto(below.id);
    if (!ask<bool>(pick.link, q)) break;
    above = &below;
    --first;
  }
  for (; first < cards.size(); ++first) {
    if (!with(*table.card(cards[first]), cards.size() - first)) return false;
  }
  return true;
}

/// Calls `with` for every legal move until it returns false.
template <class With>
void each_legal_move(const Table& table, const Rulebook& rules, With with) {
  const std::vector<Target> targets = targets_of(table, rules);
  for (const Zone& zone : table.zones()) {
    if (zone.id.value > rules.zones.size()) return;
    const ZoneRules& own = rules.zones[zone.id.value - 1];
    if (own.stock) {
      const MoveVerdict tap = stock_move(table, rules, zone.id);
      if (tap.verdict && !with(tap.move)) return;
    }
    if (own.pick.kind == PickKind::nothing || zone.cards.empty()) continue;
    const auto each_target = [&](const Card& card, std::size_t count) {
      Asked q(table, rules);
      q.set_card(card);
      q.count = count;
      for (const Target& to : targets) {
        if (to.zone == zone.id) continue;
        const Run run{card.id, count};
        q.zone = to.zone;
        q.onto = to.top;
        q.below = to.traits;
        const bool good = to.exchanges && count == 1 ? judge_drop(table, rules, run, to.zone).allowed()
                                                     : ask<bool>(to.rules->drop, q);
        if (good && !with(Move{.run = run, .from = zone.id, .to = to.zone})) return false;
      }
      return true;
    };
    if (!each_run(table, rules, zone, own.pick, each_target)) return;
  }
}

}  // namespace

void find_legal_moves(const Table& table, const Rulebook& rules, std::vector<Move>& moves) {
  moves.clear();
  each_legal_move(table, rules, [&](const Move& move) {
    moves.push_back(move);
    return true;
  });
}

std::vector<Move> legal_moves(const Table& table, const Rulebook& rules) {
  std::vector<Move> moves;
  moves.reserve(32);
  find_legal_moves(table, rules, moves);
  return moves;
}

bool any_legal_move(const Table& table, const Rulebook& rules) {
  bool any = false;
  each_legal_move(table, rules, [&](const Move&) {
    any = true;
    return false;
  });
  return any;
}

}  // namespace apsidon
