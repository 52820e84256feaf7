// Cards that are chosen, and moved together wherever they lie.
#include <algorithm>
#include <set>
#include <type_traits>
#include <utility>

#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {

using rules_detail::ask;
using rules_detail::Asked;
using rules_detail::is_off;

namespace {

bool holds(std::span<const CardId> cards, CardId card) {
  return std::find(cards.begin(), cards.end(), card) != cards.end();
}

const SelectRule* select_of(const Rulebook& rules, ZoneId zone) {
  const bool has = zone && zone.value <= rules.zones.size() && rules.zones[zone.value - 1].select;
  return has ? &*rules.zones[zone.value - 1].select : nullptr;
}

/// How many of these lie in a zone.
std::size_t count_in(ZoneId zone, const Table& table, std::span<const CardId> cards) {
  const auto in = [&](CardId card) { return table.card(card)->zone == zone; };
  return static_cast<std::size_t>(std::count_if(cards.begin(), cards.end(), in));
}

/// As a verdict, or for those who ask of many cards as a bool.
template <class Answer>
Answer ask_select(const Table& table, const Rulebook& rules, std::span<const CardId> chosen, CardId id) {
  const Card* card = table.card(id);
  const auto refuse = [&](Reason reason) {
    if constexpr (std::is_same_v<Answer, bool>) {
      return false;
    } else {
      return Verdict{.reason = reason, .card = id, .zone = card ? card->zone : ZoneId{}};
    }
  };
  if (!card) return refuse(Reason::unknown_card);
  const SelectRule* select = select_of(rules, card->zone);
  if (!select) return refuse(Reason::select_nothing);
  if (holds(chosen, id)) return refuse(Reason::in_hand);
  if (!card->face_up && !select->covered) return refuse(Reason::face_down);
  if (holds(rules.locked, id)) return refuse(Reason::locked);
  if (is_off(rules, id) || is_off(rules, card->zone)) {
    if constexpr (std::is_same_v<Answer, bool>) {
      return false;
    } else {
      return rules_detail::judge_switches(rules, *card);
    }
  }
  Asked q = Asked::where_it_lies(table, rules, *card, chosen.size() + 1);
  q.chosen = chosen;
  if (Answer answer = ask<Answer>(select->when, q); !answer || chosen.empty()) return answer;
  q.set_onto(chosen.back());
  return ask<Answer>(select->link, q);
}

}  // namespace

Verdict judge_select(const Table& table, const Rulebook& rules, std::span<const CardId> chosen, CardId id) {
  return ask_select<Verdict>(table, rules, chosen, id);
}

bool rules_detail::may_select(const Table& table, const Rulebook& rules, std::span<const CardId> chosen,
                              CardId id) {
  return ask_select<bool>(table, rules, chosen, id);
}

Verdict rules_detail::judge_chosen(const Table& table, const Rulebook& rules, std::span<const CardId> cards) {
  if (cards.empty()) return {.reason = Reason::nothing_chosen};
  for (std::size_t i = 0; i < cards.size(); ++i) {
    if (Verdict verdict = judge_select(table, rules, cards.first(i), cards[i]); !verdict) return verdict;
  }
  return {};
}

Verdict rules_detail::judge_chosen_drop(const Table& table, const Rulebook& rules,
                                        std::span<const CardId> cards, ZoneId to) {
  if (!table.zone(to)) return {.reason = Reason::unknown_zone, .card = cards.front(), .zone = to};
  Asked q(table, rules);
  q.set_card(*table.card(cards.front()));
  q.count = cards.size();
  q.chosen = cards.subspan(1);
  q.zone = to;
  q.set_onto(table.top(to).value_or(CardId{}));
  if (to.value > rules.zones.size()) return q.question().answer(Reason::drop_nothing);
  if (is_off(rules, to)) return refuse_off(rules, q.question().answer(Reason::switched_off));
  const ZoneRules& own = rules.zones[to.value - 1];
  const std::size_t there = count_in(to, table, cards);
  if (there == 0) return ask<Verdict>(own.drop, q);
  return there == cards.size() && own.sorts ? Verdict{} : q.question().answer(Reason::same_zone);
}

Verdict rules_detail::judge_several_move(const Table& table, const Rulebook& rules, const Move& move) {
  const std::span<const CardId> cards{move.cards.data(), move.cards.size()};
  if (Verdict verdict = judge_chosen(table, rules, cards); !verdict) return verdict;
  const Card& first = *table.card(cards.front());
  if (first.zone != move.from) return {.reason = Reason::wrong_source, .card = first.id, .zone = move.to};
  const Verdict verdict = judge_chosen_drop(table, rules, cards, move.to);
  if (!verdict || !move.at) return verdict;
  const Verdict at = judge_index(table, rules, move, count_in(move.to, table, cards));
  return at ? verdict : at;
}

bool rules_detail::find_several_moves(const Table& table, const Rulebook& rules, Patience& patience,
                                      std::vector<Move>& moves) {
  moves.clear();
  std::vector<CardId> all;
  bool links = false;
  for (const Zone& zone : table.zones()) {
    const SelectRule* select = select_of(rules, zone.id);
    if (!select) continue;
    all.insert(all.end(), zone.cards.begin(), zone.cards.end());
    links = links || select->link.kind != RuleKind::anything;
  }
  // From the smallest on, in the first order in which it could be chosen. What may come next goes by the last
  // one: where that is asked, a set is gone on from for each that may be the last of it, and listed once.
  std::vector<std::vector<CardId>> sets{{}};
  std::set<std::pair<std::vector<CardId>, CardId>> known;
  std::set<std::vector<CardId>> listed;
  for (std::size_t i = 0; i < sets.size(); ++i) {
    for (const CardId card : all) {
      patience.add(1);
      if (patience.over()) return false;
      if (!may_select(table, rules, sets[i], card)) continue;
      std::vector<CardId> further = sets[i];
      further.push_back(card);
      std::vector<CardId> sorted = further;
      std::sort(sorted.begin(), sorted.end());
      if (!known.emplace(sorted, links ? card : CardId{}).second) continue;
      if (sets.size() > most_selections) return false;
      sets.push_back(std::move(further));
      if (!listed.insert(std::move(sorted)).second) continue;
      const std::vector<CardId>& set = sets.back();
      const ZoneId from = table.card(set.front())->zone;
      // Picked up by itself it is that move.
      if (set.size() == 1 && judge_pick(table, rules, set.front()).run == Run{set.front(), 1}) continue;
      patience.add(table.zones().size());
      SharedList<CardId> cards;
      for (const Zone& to : table.zones()) {
        if (count_in(to.id, table, set) > 0 || !judge_chosen_drop(table, rules, set, to.id)) continue;
        if (cards.empty()) cards = set;
        moves.push_back({.kind = MoveKind::several, .cards = cards, .from = from, .to = to.id});
      }
    }
  }
  return true;
}

}  // namespace apsidon
