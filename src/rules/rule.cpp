#include "apsidon/rules/rule.hpp"

#include <fmt/format.h>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace rule {

Rule anything() { return {.kind = RuleKind::anything}; }
Rule nothing() { return {.kind = RuleKind::nothing}; }
Rule rank_down() { return {.kind = RuleKind::rank_down}; }
Rule rank_up() { return {.kind = RuleKind::rank_up}; }
Rule same_suit() { return {.kind = RuleKind::same_suit}; }
Rule same_colour() { return {.kind = RuleKind::same_colour}; }
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

}  // namespace rule

namespace {

/// What a rule is asked about: a run that comes to lie on a card, or on the bottom of an empty zone.
struct Question {
  const Table& table;
  CardId card;            ///< the lowest of the run
  std::size_t count = 1;  ///< cards of the run
  CardId onto;            ///< none on an empty zone
  ZoneId zone;

  Verdict answer(Reason reason) const { return {.reason = reason, .card = card, .onto = onto, .zone = zone}; }
};

Verdict compare_faces(const Question& q, RuleKind kind) {
  if (!q.onto) return q.answer(Reason::needs_card);
  const Deck& deck = q.table.deck();
  const FaceId face = q.table.card(q.card)->face;
  const FaceId below = q.table.card(q.onto)->face;
  if (!deck.has(face) || !deck.has(below)) return q.answer(Reason::unknown_face);
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
    case RuleKind::same_suit:
      return refuse_unless(deck.suit_of(face) == deck.suit_of(below), Reason::not_same_suit, 0);
    default:
      return refuse_unless(deck.colour_of(face) == deck.colour_of(below), Reason::not_same_colour, 0);
  }
}

Verdict ask(const Rule& rule, const Question& q);

Verdict ask_rank_on_empty(const Rule& rule, const Question& q) {
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
bool says_more(const Verdict& a, const Verdict& b) {
  const auto weight = [](Reason r) { return r == Reason::not_empty || r == Reason::needs_card ? 0 : 1; };
  return weight(a.reason) > weight(b.reason);
}

Verdict ask_any(const Rule& rule, const Question& q) {
  Verdict best;
  for (std::size_t i = 0; i < rule.parts.size(); ++i) {
    Verdict v = ask(rule.parts[i], q);
    if (v.allowed()) {
      v.alternative = static_cast<int>(i);
      return v;
    }
    if (i == 0 || says_more(v, best)) best = v;
  }
  return best;
}

Verdict ask(const Rule& rule, const Question& q) {
  switch (rule.kind) {
    case RuleKind::anything:
      return {};
    case RuleKind::nothing:
      return q.answer(Reason::drop_nothing);
    case RuleKind::rank_down:
    case RuleKind::rank_up:
    case RuleKind::same_suit:
    case RuleKind::same_colour:
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
        const Verdict v = ask(part, q);
        if (!v.allowed()) return v;
        if (v.alternative >= 0) last = v;
      }
      return last;
    }
    case RuleKind::any:
      return ask_any(rule, q);
    case RuleKind::negate:
      return ask(rule.parts.front(), q).allowed() ? q.answer(Reason::negated) : Verdict{};
  }
  return {};
}

}  // namespace

void check(const Rule& rule, const Deck& deck) {
  const bool combines = rule.kind == RuleKind::all || rule.kind == RuleKind::any;
  if (combines && rule.parts.empty())
    throw Error("rule: an all or any has no parts: at least one is expected");
  if (rule.kind == RuleKind::negate && rule.parts.size() != 1) {
    throw Error(fmt::format("rule: a not has {} parts: exactly one is expected", rule.parts.size()));
  }
  if (rule.kind == RuleKind::at_most && rule.number < 1) {
    throw Error(fmt::format("rule: at most {} cards: 1 or more is expected", rule.number));
  }
  if (rule.kind == RuleKind::rank_on_empty && (rule.number < 0 || rule.number >= deck.rank_count())) {
    throw Error(fmt::format("rule: rank {} on an empty zone: 0 to {} is expected", rule.number,
                            deck.rank_count() - 1));
  }
  for (const Rule& part : rule.parts) check(part, deck);
}

PickVerdict judge_pick(const Table& table, std::span<const ZoneRules> rules, CardId id) {
  const auto refuse = [&](Reason reason, CardId card, CardId onto, ZoneId zone) {
    return PickVerdict{{.reason = reason, .card = card, .onto = onto, .zone = zone}, {id, 0}};
  };
  const Card* card = table.card(id);
  if (!card) return refuse(Reason::unknown_card, id, {}, {});
  const ZoneId zone = card->zone;
  if (zone.value > rules.size()) return refuse(Reason::pick_nothing, id, {}, zone);
  const PickRule& pick = rules[zone.value - 1].pick;
  if (pick.kind == PickKind::nothing) return refuse(Reason::pick_nothing, id, {}, zone);
  if (!card->face_up) return refuse(Reason::face_down, id, {}, zone);
  if (pick.kind == PickKind::top && table.top(zone) != id) return refuse(Reason::not_top, id, {}, zone);
  if (pick.kind != PickKind::run) return {{}, {id, 1}};

  const Run run = table.run_from(id);
  const auto cards = table.cards_of(run);
  for (std::size_t i = 1; i < cards.size(); ++i) {
    const Question q{.table = table, .card = cards[i], .onto = cards[i - 1], .zone = zone};
    if (!table.card(cards[i])->face_up) return refuse(Reason::face_down, cards[i], {}, zone);
    if (!ask(pick.link, q)) return refuse(Reason::not_linked, cards[i], cards[i - 1], zone);
  }
  return {{}, run};
}

Verdict judge_drop(const Table& table, std::span<const ZoneRules> rules, const Run& run, ZoneId to) {
  const Card* first = table.card(run.first);
  const Zone* zone = table.zone(to);
  if (!first) return {.reason = Reason::unknown_card, .card = run.first};
  if (!zone) return {.reason = Reason::unknown_zone, .card = run.first, .zone = to};
  if (table.cards_of(run).empty())
    return {.reason = Reason::unknown_place, .card = run.first, .zone = first->zone};
  const Question q{.table = table,
                   .card = run.first,
                   .count = run.count,
                   .onto = table.top(to).value_or(CardId{}),
                   .zone = to};
  if (first->zone == to) return q.answer(Reason::same_zone);
  if (to.value > rules.size()) return q.answer(Reason::drop_nothing);
  return ask(rules[to.value - 1].drop, q);
}

}  // namespace apsidon
