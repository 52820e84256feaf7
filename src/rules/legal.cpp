// All that a player may do, found without judging each run card by card.
#include <algorithm>
#include <optional>
#include <vector>

#include "apsidon/rules/move.hpp"
#include "rules/ask.hpp"
#include "rules/inside.hpp"
#include "rules/neighbours.hpp"
#include "rules/wants.hpp"

namespace apsidon {

using rules_detail::ask;
using rules_detail::Asked;
using rules_detail::Asker;
using rules_detail::collect_wants;
using rules_detail::is_off;
using rules_detail::Patience;
using rules_detail::Want;

namespace {

/// All that the zones of a table want, in their order.
struct Demand {
  /// A zone that may take something.
  struct Target {
    ZoneId zone = {};
    const ZoneRules* rules = nullptr;
    CardId top = {};
    const FaceTraits* traits = nullptr;  // of the top card, if there is one
    bool exchanges = false;              // a single card would exchange places with its only one
    bool asks = false;                   // a want is met, and still the rule has to be asked
  };
  struct OfTarget {
    Want want;
    std::size_t target;
  };

  Demand(const Table& table, const Rulebook& rules) {
    const std::size_t count = std::min(table.zones().size(), rules.zones.size());
    targets.reserve(count);
    wants.reserve(2 * count);
    std::vector<Want> own;
    own.reserve(8);
    for (std::size_t i = 0; i < count; ++i) {
      const Zone& zone = table.zones()[i];
      Target to{.zone = zone.id, .rules = &rules.zones[i]};
      to.exchanges = to.rules->exchanges && zone.cards.size() == 1;
      if (to.rules->drop.kind == RuleKind::nothing && !to.exchanges) continue;
      if (is_off(rules, zone.id)) continue;
      if (!zone.cards.empty()) {
        to.top = zone.cards.back();
        to.traits = &table.deck().traits(table.card(to.top)->face);
      }
      own.clear();
      // Of more wants than fit in memory it is better to ask.
      constexpr std::size_t most_wants = 1'000'000;
      to.asks = to.exchanges || wants.size() > most_wants || !collect_wants(to.rules->drop, to.traits, own);
      if (to.asks) own.assign(1, {});
      for (const Want& want : own) wants.push_back({want, targets.size()});
      targets.push_back(to);
    }
  }

  std::vector<Target> targets;
  std::vector<OfTarget> wants;
};

/// Calls `with` for each run that may be picked up from a zone, from the lowest; returns false when `with`
/// did.
template <class With>
bool each_run(const Table& table, const Rulebook& rules, const Zone& zone, const PickRule& pick, With with) {
  const auto& cards = zone.cards;
  const bool some_may_not = !rules.locked.empty() || !rules.cards_off.empty();
  const auto may = [&](const Card& card) {
    if (!card.face_up && !pick.covered) return false;
    return !some_may_not || (!is_off(rules, card.id) && std::find(rules.locked.begin(), rules.locked.end(),
                                                                  card.id) == rules.locked.end());
  };
  const bool asks = pick.when.kind != RuleKind::anything;
  const auto gives = [&](const Card& card, std::size_t count) {
    return !asks || ask<bool>(pick.when, Asked::where_it_lies(table, rules, card, count));
  };
  if (pick.kind == PickKind::any) {
    for (const CardId id : cards) {
      const Card& card = *table.card(id);
      if (may(card) && gives(card, 1) && !with(card, 1)) return false;
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
    const Card& card = *table.card(cards[first]);
    const std::size_t count = cards.size() - first;
    if (gives(card, count) && !with(card, count)) return false;
  }
  return true;
}

/// Where its wants do not say it.
bool takes(const Table& table, const Rulebook& rules, const Demand::Target& to, const Card& card,
           const Run& run) {
  if (to.exchanges && run.count == 1) return judge_drop(table, rules, run, to.zone).allowed();
  Asked q(table, rules);
  q.set_card(card);
  q.count = run.count;
  q.zone = to.zone;
  q.onto = to.top;
  q.below = to.traits;
  return ask<bool>(to.rules->drop, q);
}

/// Whether a zone's own moves, beside runs that go from it, have to be looked for.
bool has_moves_of_its_own(const ZoneRules& rules) {
  return rules.stock || rules.flip.kind != RuleKind::nothing || rules.reorient.kind != RuleKind::nothing;
}

/// The tap on a stock, and each flip and turn of a zone's cards, where so many lie open to be compared.
void find_moves_of_its_own(const Table& table, const Rulebook& rules, const Zone& zone, std::size_t compared,
                           Patience& patience, std::vector<Move>& moves) {
  moves.clear();
  const ZoneRules& own = rules.zones[zone.id.value - 1];
  if (own.stock) {
    const MoveVerdict tap = stock_move(table, rules, zone.id);
    if (tap.verdict) moves.push_back(tap.move);
  }
  for (const MoveKind kind : {MoveKind::flip, MoveKind::reorient}) {
    const bool flips = kind == MoveKind::flip;
    if ((flips ? own.flip : own.reorient).kind == RuleKind::nothing) continue;
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      patience.add(1);
      if (patience.over()) return;
      if (!rules_detail::judge_side(table, rules, card, kind, compared)) continue;
      const bool now = flips ? card.face_up : card.sideways;
      moves.push_back({.kind = kind, .on = !now, .run = {id, 1}, .from = zone.id});
    }
  }
}

/// Calls `with` for every legal move until it returns false; false itself when there may be more.
template <class With>
bool each_legal_move(const Table& table, const Rulebook& given, With with) {
  Rulebook rules = given;
  std::optional<rules_detail::Neighbours> neighbours;
  std::optional<rules_detail::Neighbours> waited;
  if (!rules.neighbours && !rules.links.empty()) rules.neighbours = &neighbours.emplace(rules.links);
  if (!rules.waited && !rules.waits.empty())
    rules.waited = &waited.emplace(rules.waits, rules_detail::LinkWay::first_to_second);
  const Demand demand(table, rules);
  Patience patience(rules);
  const std::size_t compared = rules_detail::compared_cards(table, rules).size();
  std::vector<Move> of_zone;
  for (const Zone& zone : table.zones()) {
    if (zone.id.value > rules.zones.size()) break;
    const ZoneRules& own = rules.zones[zone.id.value - 1];
    if (has_moves_of_its_own(own)) {
      find_moves_of_its_own(table, rules, zone, compared, patience, of_zone);
      for (const Move& move : of_zone) {
        if (!with(move)) return true;
      }
      if (patience.over()) return false;
    }
    if (own.pick.kind == PickKind::nothing || zone.cards.empty() || is_off(rules, zone.id)) continue;
    const auto each_target = [&](const Card& card, std::size_t count) {
      const Asker face(table.deck().traits(card.face));
      const Run run{card.id, count};
      patience.add(demand.wants.size() / 8);
      if (patience.over()) return false;
      std::size_t met = demand.targets.size();
      for (const Demand::OfTarget& by : demand.wants) {
        if (!by.want.takes(face, count) || by.target == met) continue;
        const Demand::Target& to = demand.targets[by.target];
        if (to.zone == zone.id || (to.asks && !takes(table, rules, to, card, run))) continue;
        met = by.target;
        if (!with(Move{.run = run, .from = zone.id, .to = to.zone})) return false;
      }
      return true;
    };
    if (!each_run(table, rules, zone, own.pick, each_target)) return !patience.over();
  }
  const auto chooses = [](const ZoneRules& zone) { return static_cast<bool>(zone.select); };
  bool all = true;
  if (std::any_of(rules.zones.begin(), rules.zones.end(), chooses)) {
    all = rules_detail::find_several_moves(table, rules, patience, of_zone);
    for (const Move& move : of_zone) {
      if (!with(move)) return true;
    }
    if (patience.over()) return false;
  }
  for (int i = 0; i < static_cast<int>(rules.named_moves.size()); ++i) {
    const Move move{.kind = MoveKind::named, .named = i};
    if (judge_move(table, rules, move) && !with(move)) return true;
  }
  return all;
}

}  // namespace

bool find_legal_moves(const Table& table, const Rulebook& rules, std::vector<Move>& moves, std::size_t most) {
  moves.clear();
  bool full = false;
  const bool all = each_legal_move(table, rules, [&](const Move& move) {
    full = moves.size() >= most;
    if (!full) moves.push_back(move);
    return !full;
  });
  return all && !full;
}

std::vector<Move> legal_moves(const Table& table, const Rulebook& rules, std::size_t most) {
  std::vector<Move> moves;
  moves.reserve(32);
  (void)find_legal_moves(table, rules, moves, most);
  return moves;
}

bool any_legal_move(const Table& table, const Rulebook& rules) {
  bool any = false;
  const bool all = each_legal_move(table, rules, [&](const Move&) {
    any = true;
    return false;
  });
  return any || !all;
}

}  // namespace apsidon
