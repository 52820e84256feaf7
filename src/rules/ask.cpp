#include "rules/ask.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>
#include <optional>
#include <span>
#include <type_traits>
#include <utility>
#include <vector>

#include "geometry/thrown.hpp"
#include "rules/inside.hpp"
#include "rules/neighbours.hpp"

namespace apsidon::rules_detail {
namespace {

template <class Answer>
Answer refuse(const Asked& q, Reason reason, int wanted = 0, int found = 0) {
  if constexpr (std::is_same_v<Answer, bool>) {
    return false;
  } else {
    Verdict verdict = q.question().answer(reason);
    verdict.wanted = wanted;
    verdict.found = found;
    return verdict;
  }
}

template <class Answer>
Answer allow() {
  if constexpr (std::is_same_v<Answer, bool>) {
    return true;
  } else {
    return {};
  }
}

template <class Answer>
Answer allow_if(bool good, const Asked& q, Reason reason, int wanted = 0, int found = 0) {
  return good ? allow<Answer>() : refuse<Answer>(q, reason, wanted, found);
}

bool is_one_of(std::span<const ZoneId> zones, ZoneId zone) {
  return std::find(zones.begin(), zones.end(), zone) != zones.end();
}

bool is_joker(const FaceTraits& face) { return face.known && face.rank < 0; }

template <class Answer>
Answer compare_faces(const Asked& q, RuleKind kind) {
  if (!q.below) return refuse<Answer>(q, Reason::needs_card);
  const FaceTraits& face = *q.traits;
  const FaceTraits& below = *q.below;
  if (!face.known || !below.known) return refuse<Answer>(q, Reason::unknown_face);
  if (kind == RuleKind::together) {
    return allow_if<Answer>(face.set >= 0 && face.set == below.set, q, Reason::not_together);
  }
  if (kind == RuleKind::same_colour) {
    if (face.colour < 0 || below.colour < 0) return refuse<Answer>(q, Reason::no_rank);
    return allow_if<Answer>(face.colour == below.colour, q, Reason::not_same_colour, 0, face.rank);
  }
  if (is_joker(face) || is_joker(below)) return refuse<Answer>(q, Reason::no_rank);
  switch (kind) {
    case RuleKind::rank_down:
      return allow_if<Answer>(face.rank == below.rank - 1, q, Reason::not_rank_down, below.rank - 1,
                              face.rank);
    case RuleKind::rank_up:
      return allow_if<Answer>(face.rank == below.rank + 1, q, Reason::not_rank_up, below.rank + 1, face.rank);
    case RuleKind::same_rank:
      return allow_if<Answer>(face.rank == below.rank, q, Reason::not_same_rank, below.rank, face.rank);
    default:
      return allow_if<Answer>(face.suit == below.suit, q, Reason::not_same_suit, 0, face.rank);
  }
}

/// Calls `with` for every slot that is linked to this one, until it returns false.
template <class With>
void each_neighbour(const Rulebook& rules, ZoneId zone, With with) {
  if (rules.neighbours) {
    for (const ZoneId neighbour : rules.neighbours->of(zone)) {
      if (!with(neighbour)) return;
    }
    return;
  }
  for (const auto& [a, b] : rules.links) {
    if ((a == zone || b == zone) && !with(a == zone ? b : a)) return;
  }
}

/// Calls `with` for every slot that this one waits for.
template <class With>
void each_waited(const Rulebook& rules, ZoneId zone, With with) {
  if (rules.waited) {
    for (const ZoneId before : rules.waited->of(zone)) with(before);
    return;
  }
  for (const auto& [slot, before] : rules.waits) {
    if (slot == zone) with(before);
  }
}

/// Calls `with` for the top card of every slot linked to the question's zone that holds one, until it returns
/// false. A card of the run itself is no neighbour: it leaves its slot.
template <class With>
void each_filled_neighbour(const Asked& q, With with) {
  const auto run = q.table.cards_of({q.card, q.count});
  each_neighbour(q.rules, q.zone, [&](ZoneId neighbour) {
    const auto top = q.table.top(neighbour);
    return !top || std::find(run.begin(), run.end(), *top) != run.end() || with(*top);
  });
}

template <class Answer>
Answer ask_neighbours(const Rule& rule, const Asked& q) {
  int filled = 0;
  each_filled_neighbour(q, [&](CardId) { return ++filled < rule.number; });
  return allow_if<Answer>(filled >= rule.number, q, Reason::needs_neighbours, rule.number, filled);
}

template <class Answer>
Answer ask_waited_for(const Rule& rule, const Asked& q) {
  int found = 0;
  int all = 0;
  each_waited(q.rules, q.zone, [&](ZoneId before) {
    ++all;
    found += q.table.top(before) ? 1 : 0;
  });
  const int wanted = rule.number == 0 ? all : rule.number;
  return allow_if<Answer>(found >= wanted, q, Reason::waits_for, wanted, found);
}

template <class Answer>
Answer ask_each_neighbour(const Rule& rule, const Asked& q) {
  Answer answer = allow<Answer>();
  each_filled_neighbour(q, [&](CardId top) {
    Asked with = q;
    with.set_onto(top);
    answer = ask<Answer>(rule.parts().front(), with);
    return static_cast<bool>(answer);
  });
  return answer;
}

/// What the face itself has to be, wherever it goes.
template <class Answer>
Answer ask_face(const Rule& rule, const Asked& q) {
  if (!q.traits->known) return refuse<Answer>(q, Reason::unknown_face);
  if (is_joker(*q.traits)) return refuse<Answer>(q, Reason::no_rank);
  const int suit = q.traits->suit;
  const int rank = q.traits->rank;
  if (rule.kind == RuleKind::of_suit) {
    return allow_if<Answer>(suit == rule.number, q, Reason::wrong_suit, rule.number, suit);
  }
  if (rule.kind == RuleKind::rank_at_least) {
    return allow_if<Answer>(rank >= rule.number, q, Reason::too_low, rule.number, rank);
  }
  return allow_if<Answer>(rank == rule.number, q, Reason::not_rank_on_empty, rule.number, rank);
}

/// Of several refusals, one that is about the cards says more than one that only says that the zone is the
/// wrong kind.
bool says_of_cards(const Verdict& v) {
  return v.reason != Reason::not_empty && v.reason != Reason::needs_card;
}
bool says_more(const Verdict& a, const Verdict& b) { return says_of_cards(a) && !says_of_cards(b); }

template <class Answer>
Answer ask_any(const Rule& rule, const Asked& q) {
  if constexpr (std::is_same_v<Answer, bool>) {
    for (const Rule& part : rule.parts()) {
      if (ask<bool>(part, q)) return true;
    }
    return false;
  } else {
    Verdict best;
    int about_cards = 0;
    const std::span<const Rule> parts = rule.parts();
    for (std::size_t i = 0; i < parts.size(); ++i) {
      Verdict v = ask<Verdict>(parts[i], q);
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
}

template <class Answer>
Answer ask_all(const Rule& rule, const Asked& q) {
  Answer last = allow<Answer>();
  for (const Rule& part : rule.parts()) {
    const Answer answer = ask<Answer>(part, q);
    if (!answer) return answer;
    if constexpr (!std::is_same_v<Answer, bool>) {
      if (answer.alternative >= 0) last = answer;
    }
  }
  return last;
}

/// What is compared; 0 where it is a number of nothing.
int value_of(const NumberTerm& term, const Asked& q) {
  if (term.name.empty()) return term.value;
  const auto seat_of = [&](ZoneId zone) { return q.table.zone(zone) ? q.table.zone(zone)->seat : SeatId{}; };
  const auto of = [&](auto id) { return id ? q.table.number(term.name, id) : 0; };
  switch (term.of) {
    case NumberOf::card:
      return of(q.card);
    case NumberOf::onto:
      return of(q.onto);
    case NumberOf::zone:
      return of(q.zone);
    case NumberOf::from:
      return of(q.from);
    case NumberOf::seat:
      return of(seat_of(q.zone));
    case NumberOf::player:
      return of(q.rules.seat);
    case NumberOf::owner:
      break;
  }
  return q.table.number(term.name, term.owner);
}

template <class Answer>
Answer compare(const NumberRule& compared, std::int64_t number, const Asked& q) {
  const int wanted = value_of(compared.than, q);
  const bool low = compared.is != Compared::at_most && number < wanted;
  const bool high = compared.is != Compared::at_least && number > wanted;
  if (!low && !high) return allow<Answer>();
  const Reason reason = compared.is == Compared::equal ? Reason::number_differs
                        : low                          ? Reason::number_low
                                                       : Reason::number_high;
  const auto found = std::clamp<std::int64_t>(number, -largest_number, largest_number);
  Answer answer = refuse<Answer>(q, reason, wanted, static_cast<int>(found));
  if constexpr (!std::is_same_v<Answer, bool>)
    answer.rule = compared.number.name.empty() ? "sum" : compared.number.name;
  return answer;
}

template <class Answer>
Answer ask_number(const Rule& rule, const Asked& q) {
  const NumberRule& compared = *rule.compared();
  return compare<Answer>(compared, value_of(compared.number, q), q);
}

/// What a card counts in a sum; nothing where it has no rank to count by.
std::optional<std::int64_t> worth_of(const std::string& number, CardId card, const Table& table) {
  if (!number.empty()) return table.number(number, card);
  const FaceTraits& face = table.deck().traits(table.card(card)->face);
  if (!face.known || face.rank < 0) return std::nullopt;
  return face.rank + 1;
}

/// Of a face alone there is one card, and it has no numbers.
template <class Answer>
Answer ask_sum(const Rule& rule, const Asked& q) {
  const NumberRule& compared = *rule.compared();
  const std::string& number = compared.number.name;
  const bool by_rank = number.empty();
  if (by_rank && !q.traits->known) return refuse<Answer>(q, Reason::unknown_face);
  if (by_rank && is_joker(*q.traits)) return refuse<Answer>(q, Reason::no_rank);
  std::int64_t sum = by_rank ? q.traits->rank + 1 : q.card ? q.table.number(number, q.card) : 0;
  const auto others = q.others();
  if (q.rules.asked) *q.rules.asked += others.size();
  for (const CardId card : others) {
    const auto worth = worth_of(number, card, q.table);
    if (!worth) return refuse<Answer>(q, Reason::no_rank);
    sum += *worth;
  }
  return compare<Answer>(compared, sum, q);
}

/// Each rank once, and none left out between the lowest and the highest.
template <class Answer>
Answer ask_sequence(const Asked& q) {
  if (!q.traits->known) return refuse<Answer>(q, Reason::unknown_face);
  if (is_joker(*q.traits)) return refuse<Answer>(q, Reason::no_rank);
  const auto others = q.others();
  if (q.rules.asked) *q.rules.asked += others.size();
  std::vector<bool> has(static_cast<std::size_t>(q.table.deck().rank_count()));
  int lowest = q.traits->rank;
  int highest = lowest;
  has[static_cast<std::size_t>(lowest)] = true;
  for (const CardId card : others) {
    const FaceTraits& face = q.table.deck().traits(q.table.card(card)->face);
    if (!face.known || face.rank < 0) return refuse<Answer>(q, Reason::no_rank);
    const auto rank = static_cast<std::size_t>(face.rank);
    if (has[rank]) return refuse<Answer>(q, Reason::no_sequence);
    has[rank] = true;
    lowest = std::min(lowest, face.rank);
    highest = std::max(highest, face.rank);
  }
  const bool whole = static_cast<std::size_t>(highest - lowest) == others.size();
  return allow_if<Answer>(whole, q, Reason::no_sequence);
}

template <class Answer>
Answer ask_on_turn(const Asked& q) {
  const SeatId seat = q.rules.seat;
  return allow_if<Answer>(seat ? q.table.is_on_turn(seat) : !q.table.turn().empty(), q, Reason::not_on_turn);
}

template <class Answer>
Answer ask_own_zone(const Asked& q) {
  const Zone* zone = q.table.zone(q.zone);
  const SeatId seat = zone ? zone->seat : SeatId{};
  const bool own = q.rules.seat ? seat == q.rules.seat : q.table.is_on_turn(seat);
  return allow_if<Answer>(seat && own, q, Reason::not_own_zone);
}

template <class Answer>
Answer ask_own(const OwnRule& rule, const Asked& q) {
  Verdict verdict = q.rules.own ? q.rules.own->answer(rule, q.question()) : rule.answer(q.question());
  if constexpr (std::is_same_v<Answer, bool>) {
    return verdict.allowed();
  } else {
    if (!verdict && verdict.rule.empty()) verdict.rule = rule.name;
    return verdict;
  }
}

}  // namespace

template <class Answer>
Answer ask(const Rule& rule, const Asked& q) {
  if (q.rules.asked) *q.rules.asked += 1;
  switch (rule.kind) {
    case RuleKind::anything:
      return allow<Answer>();
    case RuleKind::nothing:
      return refuse<Answer>(q, Reason::drop_nothing);
    case RuleKind::rank_down:
    case RuleKind::rank_up:
    case RuleKind::same_suit:
    case RuleKind::same_colour:
    case RuleKind::same_rank:
    case RuleKind::together:
      return compare_faces<Answer>(q, rule.kind);
    case RuleKind::on_empty:
      return allow_if<Answer>(!q.below, q, Reason::not_empty);
    case RuleKind::rank_on_empty:
      return q.below ? refuse<Answer>(q, Reason::not_empty) : ask_face<Answer>(rule, q);
    case RuleKind::at_most:
      return allow_if<Answer>(q.count <= static_cast<std::size_t>(rule.number), q, Reason::too_many,
                              rule.number, static_cast<int>(q.count));
    case RuleKind::at_least:
      return allow_if<Answer>(q.count >= static_cast<std::size_t>(rule.number), q, Reason::too_few,
                              rule.number, static_cast<int>(q.count));
    case RuleKind::sum:
      return ask_sum<Answer>(rule, q);
    case RuleKind::sequence:
      return ask_sequence<Answer>(q);
    case RuleKind::all:
      return ask_all<Answer>(rule, q);
    case RuleKind::any:
      return ask_any<Answer>(rule, q);
    case RuleKind::of_suit:
    case RuleKind::rank_at_least:
      return ask_face<Answer>(rule, q);
    case RuleKind::from:
      if (q.rules.asked) *q.rules.asked += rule.zones().size();
      return allow_if<Answer>(is_one_of(rule.zones(), q.from), q, Reason::wrong_source);
    case RuleKind::neighbours:
      return ask_neighbours<Answer>(rule, q);
    case RuleKind::waited_for:
      return ask_waited_for<Answer>(rule, q);
    case RuleKind::each_neighbour:
      return ask_each_neighbour<Answer>(rule, q);
    case RuleKind::number:
      return ask_number<Answer>(rule, q);
    case RuleKind::on_turn:
      return ask_on_turn<Answer>(q);
    case RuleKind::own_zone:
      return ask_own_zone<Answer>(q);
    case RuleKind::own:
      return ask_own<Answer>(*rule.own(), q);
    case RuleKind::negate:
      return allow_if<Answer>(!ask<bool>(rule.parts().front(), q), q, Reason::negated);
  }
  return allow<Answer>();
}

template Verdict ask<Verdict>(const Rule&, const Asked&);
template bool ask<bool>(const Rule&, const Asked&);

}  // namespace apsidon::rules_detail

namespace apsidon {

std::vector<ZoneId> RuleQuestion::neighbours() const {
  std::vector<ZoneId> out;
  if (!rules) return out;
  rules_detail::each_neighbour(*rules, zone, [&](ZoneId neighbour) {
    out.push_back(neighbour);
    return true;
  });
  return out;
}

std::vector<ZoneId> RuleQuestion::waits_for() const {
  std::vector<ZoneId> out;
  if (rules) rules_detail::each_waited(*rules, zone, [&](ZoneId before) { out.push_back(before); });
  return out;
}

Verdict OwnRule::answer(const RuleQuestion& question) const {
  if (!judge) {
    Verdict verdict = question.answer(Reason::unbound);
    verdict.arguments = {
        {"problem", fmt::format("'{}' has no function: bind(\"{}\", …) gives it one", name, name)}};
    return verdict;
  }
  Verdict verdict;
  if (auto thrown = geometry_detail::thrown_by([&] { verdict = judge(question); })) {
    verdict = question.answer(Reason::game_failed);
    verdict.arguments = {{"problem", *std::move(thrown)}};
  }
  return verdict;
}

Verdict RuleQuestion::refuse(std::vector<VerdictArgument> arguments, std::string rule) const {
  Verdict verdict = answer(Reason::own_rule);
  verdict.arguments = std::move(arguments);
  verdict.rule = std::move(rule);
  return verdict;
}

}  // namespace apsidon
