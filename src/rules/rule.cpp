#include "apsidon/rules/rule.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace rule {

Rule anything() { return {.kind = RuleKind::anything}; }
Rule nothing() { return {.kind = RuleKind::nothing}; }
Rule rank_down() { return {.kind = RuleKind::rank_down}; }
Rule rank_up() { return {.kind = RuleKind::rank_up}; }
Rule same_suit() { return {.kind = RuleKind::same_suit}; }
Rule same_colour() { return {.kind = RuleKind::same_colour}; }
Rule same_rank() { return {.kind = RuleKind::same_rank}; }
Rule together() { return {.kind = RuleKind::together}; }
Rule of_suit(int suit) { return {.kind = RuleKind::of_suit, .number = suit}; }
Rule rank_at_least(int rank) { return {.kind = RuleKind::rank_at_least, .number = rank}; }
Rule from(std::vector<ZoneId> zones) { return {.kind = RuleKind::from, .zones = std::move(zones)}; }
Rule on_empty() { return {.kind = RuleKind::on_empty}; }
Rule rank_on_empty(int rank) { return {.kind = RuleKind::rank_on_empty, .number = rank}; }
Rule at_most(int cards) { return {.kind = RuleKind::at_most, .number = cards}; }
Rule all(std::vector<Rule> parts) { return {.kind = RuleKind::all, .parts = std::move(parts)}; }
Rule any(std::vector<Rule> parts) { return {.kind = RuleKind::any, .parts = std::move(parts)}; }
Rule negate(Rule part) {
  Rule r{.kind = RuleKind::negate};
  r.parts.push_back(std::move(part));
  return r;
}

Rule neighbours(int filled) { return {.kind = RuleKind::neighbours, .number = filled}; }
Rule each_neighbour(Rule part) {
  Rule r{.kind = RuleKind::each_neighbour};
  r.parts.push_back(std::move(part));
  return r;
}
Rule own(std::string name, std::function<Verdict(const RuleQuestion&)> judge) {
  Rule r{.kind = RuleKind::own};
  r.own_rules.push_back(std::make_shared<const OwnRule>(OwnRule{std::move(name), std::move(judge)}));
  return r;
}

}  // namespace rule

namespace {

Verdict compare_faces(const RuleQuestion& q, RuleKind kind) {
  if (!q.onto) return q.answer(Reason::needs_card);
  const Deck& deck = q.table.deck();
  const FaceId face = q.table.card(q.card)->face;
  const FaceId below = q.table.card(q.onto)->face;
  if (!deck.has(face) || !deck.has(below)) return q.answer(Reason::unknown_face);
  if (kind == RuleKind::together) {
    return deck.belong_together(face, below) ? Verdict{} : q.answer(Reason::not_together);
  }
  const bool compares_colours = kind == RuleKind::same_colour;
  for (const FaceId one : {face, below}) {
    if (compares_colours ? deck.colour_of(one) < 0 : deck.is_joker(one)) return q.answer(Reason::no_rank);
  }
  const int rank = deck.rank_of(face);
  const int below_rank = deck.rank_of(below);
  const auto refuse_unless = [&](bool good, Reason reason, int wanted) {
    if (good) return Verdict{};
    Verdict v = q.answer(reason);
    v.wanted = wanted;
    v.found = rank;
    return v;
  };
  switch (kind) {
    case RuleKind::rank_down:
      return refuse_unless(rank == below_rank - 1, Reason::not_rank_down, below_rank - 1);
    case RuleKind::rank_up:
      return refuse_unless(rank == below_rank + 1, Reason::not_rank_up, below_rank + 1);
    case RuleKind::same_rank:
      return refuse_unless(rank == below_rank, Reason::not_same_rank, below_rank);
    case RuleKind::same_suit:
      return refuse_unless(deck.suit_of(face) == deck.suit_of(below), Reason::not_same_suit, 0);
    default:
      return refuse_unless(deck.colour_of(face) == deck.colour_of(below), Reason::not_same_colour, 0);
  }
}

using Links = std::span<const std::pair<ZoneId, ZoneId>>;

/// Calls `with` for the top card of every slot linked to a zone that holds one, until it returns false.
template <class With>
void each_filled_neighbour(const Table& table, Links links, ZoneId zone, With with) {
  for (const auto& [a, b] : links) {
    if (a != zone && b != zone) continue;
    const auto top = table.top(a == zone ? b : a);
    if (top && !with(*top)) return;
  }
}

Verdict ask(const Rule& rule, const RuleQuestion& q, Links links);

/// A card of the run itself is no neighbour: it leaves its slot.
bool in_run(const RuleQuestion& q, CardId card) {
  const auto run = q.table.cards_of({q.card, q.count});
  return std::find(run.begin(), run.end(), card) != run.end();
}

Verdict ask_neighbours(const Rule& rule, const RuleQuestion& q, Links links) {
  int filled = 0;
  each_filled_neighbour(q.table, links, q.zone, [&](CardId top) {
    filled += in_run(q, top) ? 0 : 1;
    return filled < rule.number;
  });
  if (filled >= rule.number) return {};
  Verdict v = q.answer(Reason::needs_neighbours);
  v.wanted = rule.number;
  v.found = filled;
  return v;
}

Verdict ask_each_neighbour(const Rule& rule, const RuleQuestion& q, Links links) {
  Verdict verdict;
  each_filled_neighbour(q.table, links, q.zone, [&](CardId top) {
    if (in_run(q, top)) return true;
    const RuleQuestion with{.table = q.table, .card = q.card, .count = q.count, .onto = top, .zone = q.zone};
    verdict = ask(rule.parts.front(), with, links);
    return verdict.allowed();
  });
  return verdict;
}

Verdict ask_from(const Rule& rule, const RuleQuestion& q) {
  const ZoneId home = q.table.card(q.card)->zone;
  const bool good = std::find(rule.zones.begin(), rule.zones.end(), home) != rule.zones.end();
  return good ? Verdict{} : q.answer(Reason::wrong_source);
}

/// What the face itself has to be, wherever it goes.
Verdict ask_face(const Rule& rule, const RuleQuestion& q) {
  const Deck& deck = q.table.deck();
  const FaceId face = q.table.card(q.card)->face;
  if (!deck.has(face)) return q.answer(Reason::unknown_face);
  if (deck.is_joker(face)) return q.answer(Reason::no_rank);
  const bool suits = rule.kind == RuleKind::of_suit;
  const int found = suits ? deck.suit_of(face) : deck.rank_of(face);
  if (suits ? found == rule.number : found >= rule.number) return {};
  Verdict v = q.answer(suits ? Reason::wrong_suit : Reason::too_low);
  v.wanted = rule.number;
  v.found = found;
  return v;
}

Verdict ask_rank_on_empty(const Rule& rule, const RuleQuestion& q) {
  if (q.onto) return q.answer(Reason::not_empty);
  const Deck& deck = q.table.deck();
  const FaceId face = q.table.card(q.card)->face;
  if (!deck.has(face)) return q.answer(Reason::unknown_face);
  if (deck.is_joker(face)) return q.answer(Reason::no_rank);
  if (deck.rank_of(face) == rule.number) return {};
  Verdict v = q.answer(Reason::not_rank_on_empty);
  v.wanted = rule.number;
  v.found = deck.rank_of(face);
  return v;
}

/// Of several refusals, one that is about the cards says more than one that only says that the zone is the
/// wrong kind.
bool says_of_cards(const Verdict& v) {
  return v.reason != Reason::not_empty && v.reason != Reason::needs_card;
}
bool says_more(const Verdict& a, const Verdict& b) { return says_of_cards(a) && !says_of_cards(b); }

Verdict ask_any(const Rule& rule, const RuleQuestion& q, Links links) {
  Verdict best;
  int about_cards = 0;
  for (std::size_t i = 0; i < rule.parts.size(); ++i) {
    Verdict v = ask(rule.parts[i], q, links);
    if (v.allowed()) {
      v.alternative = static_cast<int>(i);
      return v;
    }
    if (i == 0 || says_more(v, best)) best = v;
    about_cards += says_of_cards(v) ? 1 : 0;
  }
  best.others = std::max(about_cards - 1, 0);
  return best;
}

Verdict ask(const Rule& rule, const RuleQuestion& q, Links links) {
  switch (rule.kind) {
    case RuleKind::anything:
      return {};
    case RuleKind::nothing:
      return q.answer(Reason::drop_nothing);
    case RuleKind::rank_down:
    case RuleKind::rank_up:
    case RuleKind::same_suit:
    case RuleKind::same_colour:
    case RuleKind::same_rank:
    case RuleKind::together:
      return compare_faces(q, rule.kind);
    case RuleKind::on_empty:
      return q.onto ? q.answer(Reason::not_empty) : Verdict{};
    case RuleKind::rank_on_empty:
      return ask_rank_on_empty(rule, q);
    case RuleKind::at_most: {
      if (q.count <= static_cast<std::size_t>(rule.number)) return {};
      Verdict v = q.answer(Reason::too_many);
      v.wanted = rule.number;
      v.found = static_cast<int>(q.count);
      return v;
    }
    case RuleKind::all: {
      Verdict last;
      for (const Rule& part : rule.parts) {
        const Verdict v = ask(part, q, links);
        if (!v.allowed()) return v;
        if (v.alternative >= 0) last = v;
      }
      return last;
    }
    case RuleKind::any:
      return ask_any(rule, q, links);
    case RuleKind::of_suit:
    case RuleKind::rank_at_least:
      return ask_face(rule, q);
    case RuleKind::from:
      return ask_from(rule, q);
    case RuleKind::neighbours:
      return ask_neighbours(rule, q, links);
    case RuleKind::each_neighbour:
      return ask_each_neighbour(rule, q, links);
    case RuleKind::own:
      return rule.own_rules.front()->judge(q);
    case RuleKind::negate:
      return ask(rule.parts.front(), q, links).allowed() ? q.answer(Reason::negated) : Verdict{};
  }
  return {};
}

}  // namespace

void check(const Rule& rule, const Deck& deck) {
  const bool combines = rule.kind == RuleKind::all || rule.kind == RuleKind::any;
  if (combines && rule.parts.empty())
    throw Error("rule: an all or any has no parts: at least one is expected");
  const bool has_one_part = rule.kind == RuleKind::negate || rule.kind == RuleKind::each_neighbour;
  if (has_one_part && rule.parts.size() != 1) {
    throw Error(fmt::format("rule: a {} has {} parts: exactly one is expected",
                            rule.kind == RuleKind::negate ? "not" : "each neighbour", rule.parts.size()));
  }
  if (rule.kind == RuleKind::from && rule.zones.empty()) {
    throw Error("rule: a from names no zones: at least one is expected");
  }
  if (rule.kind == RuleKind::own &&
      (rule.own_rules.size() != 1 || !rule.own_rules[0] || !rule.own_rules[0]->judge)) {
    throw Error("rule: a rule of one's own has no function: one is expected");
  }
  if (rule.kind == RuleKind::neighbours && rule.number < 1) {
    throw Error(fmt::format("rule: {} filled neighbours: 1 or more is expected", rule.number));
  }
  if (rule.kind == RuleKind::at_most && rule.number < 1) {
    throw Error(fmt::format("rule: at most {} cards: 1 or more is expected", rule.number));
  }
  const bool ranks = rule.kind == RuleKind::rank_on_empty || rule.kind == RuleKind::rank_at_least;
  if (ranks && (rule.number < 0 || rule.number >= deck.rank_count())) {
    throw Error(fmt::format("rule: rank {}{}: 0 to {} is expected", rule.number,
                            rule.kind == RuleKind::rank_on_empty ? " on an empty zone" : " at least",
                            deck.rank_count() - 1));
  }
  const int suits = static_cast<int>(deck.options().suits.size());
  if (rule.kind == RuleKind::of_suit && (rule.number < 0 || rule.number >= suits)) {
    throw Error(fmt::format("rule: suit {}: 0 to {} is expected", rule.number, suits - 1));
  }
  for (const Rule& part : rule.parts) check(part, deck);
}

void check(const ZoneRules& rules, const Table& table) {
  check(rules.drop, table.deck());
  check(rules.pick.link, table.deck());
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

PickVerdict judge_pick(const Table& table, const Rulebook& rules, CardId id) {
  const auto refuse = [&](Reason reason, CardId card, CardId onto, ZoneId zone) {
    return PickVerdict{{.reason = reason, .card = card, .onto = onto, .zone = zone}, {id, 0}};
  };
  const Card* card = table.card(id);
  if (!card) return refuse(Reason::unknown_card, id, {}, {});
  const ZoneId zone = card->zone;
  if (zone.value > rules.zones.size()) return refuse(Reason::pick_nothing, id, {}, zone);
  const PickRule& pick = rules.zones[zone.value - 1].pick;
  if (pick.kind == PickKind::nothing) return refuse(Reason::pick_nothing, id, {}, zone);
  if (!card->face_up) return refuse(Reason::face_down, id, {}, zone);
  if (pick.kind == PickKind::top && table.top(zone) != id) return refuse(Reason::not_top, id, {}, zone);
  if (pick.kind != PickKind::run) return {{}, {id, 1}};

  const Run run = table.run_from(id);
  const auto cards = table.cards_of(run);
  for (std::size_t i = 1; i < cards.size(); ++i) {
    const RuleQuestion q{.table = table, .card = cards[i], .onto = cards[i - 1], .zone = zone};
    if (!table.card(cards[i])->face_up) return refuse(Reason::face_down, cards[i], {}, zone);
    if (!ask(pick.link, q, rules.links)) return refuse(Reason::not_linked, cards[i], cards[i - 1], zone);
  }
  return {{}, run};
}

bool would_exchange(const Table& table, const Rulebook& rules, const Run& run, ZoneId to) {
  const Zone* zone = table.zone(to);
  const Card* card = table.card(run.first);
  return zone && card && to.value <= rules.zones.size() && rules.zones[to.value - 1].exchanges &&
         run.count == 1 && zone->cards.size() == 1 && card->zone != to;
}

namespace {

/// As if the zone were empty; and the other way round, as if the card had left its home.
Verdict judge_exchange(const Table& table, const Rulebook& rules, const Run& run, ZoneId to) {
  const CardId other = *table.top(to);
  const ZoneId home = table.card(run.first)->zone;
  const RuleQuestion there{.table = table, .card = run.first, .zone = to};
  const Verdict verdict = ask(rules.zones[to.value - 1].drop, there, rules.links);
  if (!verdict) return verdict;
  const std::size_t place = table.card(run.first)->index;
  const CardId below = place > 0 ? table.zone(home)->cards[place - 1] : CardId{};
  const RuleQuestion back{.table = table, .card = other, .onto = below, .zone = home};
  const bool may_go = home.value <= rules.zones.size() &&
                      (rules.zones[home.value - 1].sorts || rules.zones[home.value - 1].exchanges ||
                       ask(rules.zones[home.value - 1].drop, back, rules.links));
  if (may_go) return verdict;
  return {.reason = Reason::no_exchange, .card = run.first, .onto = other, .zone = home};
}

}  // namespace

Verdict judge_drop(const Table& table, const Rulebook& rules, const Run& run, ZoneId to) {
  const Card* first = table.card(run.first);
  const Zone* zone = table.zone(to);
  if (!first) return {.reason = Reason::unknown_card, .card = run.first};
  if (!zone) return {.reason = Reason::unknown_zone, .card = run.first, .zone = to};
  if (table.cards_of(run).empty())
    return {.reason = Reason::unknown_index, .card = run.first, .zone = first->zone};
  const RuleQuestion q{.table = table,
                       .card = run.first,
                       .count = run.count,
                       .onto = table.top(to).value_or(CardId{}),
                       .zone = to};
  if (first->zone == to) {
    const bool sorts = to.value <= rules.zones.size() && rules.zones[to.value - 1].sorts;
    return sorts ? Verdict{} : q.answer(Reason::same_zone);
  }
  if (to.value > rules.zones.size()) return q.answer(Reason::drop_nothing);
  if (would_exchange(table, rules, run, to)) return judge_exchange(table, rules, run, to);
  return ask(rules.zones[to.value - 1].drop, q, rules.links);
}

}  // namespace apsidon
