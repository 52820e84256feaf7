#include "apsidon/rules/rule.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "geometry/options.hpp"
#include "rules/inside.hpp"

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
Rule from(std::vector<ZoneId> zones) {
  return {.kind = RuleKind::from, .by = SharedList<ZoneId>(std::move(zones))};
}
Rule on_empty() { return {.kind = RuleKind::on_empty}; }
Rule rank_on_empty(int rank) { return {.kind = RuleKind::rank_on_empty, .number = rank}; }
Rule at_most(int cards) { return {.kind = RuleKind::at_most, .number = cards}; }
Rule at_least(int cards) { return {.kind = RuleKind::at_least, .number = cards}; }
Rule sum(Compared is, NumberTerm than, std::string number) {
  return {.kind = RuleKind::sum,
          .by = SharedList<NumberRule>(
              {{.number = {std::move(number), NumberOf::card}, .is = is, .than = std::move(than)}})};
}
Rule sequence() { return {.kind = RuleKind::sequence}; }
Rule all(std::vector<Rule> parts) {
  return {.kind = RuleKind::all, .by = SharedList<Rule>(std::move(parts))};
}
Rule any(std::vector<Rule> parts) {
  return {.kind = RuleKind::any, .by = SharedList<Rule>(std::move(parts))};
}
Rule negate(Rule part) { return {.kind = RuleKind::negate, .by = SharedList<Rule>({std::move(part)})}; }

Rule neighbours(int filled) { return {.kind = RuleKind::neighbours, .number = filled}; }
Rule waited_for(int filled) { return {.kind = RuleKind::waited_for, .number = filled}; }
Rule each_neighbour(Rule part) {
  return {.kind = RuleKind::each_neighbour, .by = SharedList<Rule>({std::move(part)})};
}
Rule number(NumberTerm number, Compared is, NumberTerm than) {
  return {.kind = RuleKind::number,
          .by = SharedList<NumberRule>({{.number = std::move(number), .is = is, .than = std::move(than)}})};
}
Rule on_turn() { return {.kind = RuleKind::on_turn}; }
Rule own_zone() { return {.kind = RuleKind::own_zone}; }
Rule own(std::string name, RuleFunction judge) {
  return {.kind = RuleKind::own,
          .by = std::make_shared<const OwnRule>(OwnRule{std::move(name), std::move(judge)})};
}

}  // namespace rule

namespace {

void check_number(const Rule& rule) {
  const NumberRule* compared = rule.compared();
  if (!compared) throw Error("rule: it compares no numbers: two are expected");
  if (compared->number.name.empty() && rule.kind == RuleKind::number)
    throw Error("rule: the number that it compares has no name: one is expected");
  for (const NumberTerm* term : {&compared->number, &compared->than}) {
    geometry_detail::check_name("rule: name of a number", term->name);
    geometry_detail::check_range("rule: number", term->value, -largest_number, largest_number);
    if (term->owner.card) {
      throw Error(
          fmt::format("rule: number '{}' of card {}: of the table, a zone, a seat, or of what is "
                      "asked about is expected",
                      term->name, term->owner.card.value));
    }
  }
}

void check_nested(const Rule& rule, const Deck& deck, int depth) {
  if (depth > most_nesting) {
    throw Error(fmt::format("rule: it is nested deeper than {} levels: fewer are expected", most_nesting));
  }
  const bool combines = rule.kind == RuleKind::all || rule.kind == RuleKind::any;
  if (combines && rule.parts().empty())
    throw Error("rule: an all or any has no parts: at least one is expected");
  const bool has_one_part = rule.kind == RuleKind::negate || rule.kind == RuleKind::each_neighbour;
  if (has_one_part && rule.parts().size() != 1) {
    throw Error(fmt::format("rule: a {} has {} parts: exactly one is expected",
                            rule.kind == RuleKind::negate ? "not" : "each neighbour", rule.parts().size()));
  }
  if (rule.kind == RuleKind::from && rule.zones().empty()) {
    throw Error("rule: a from names no zones: at least one is expected");
  }
  if (rule.kind == RuleKind::own && (!rule.own() || rule.own()->name.empty())) {
    throw Error("rule: a rule of the game's own has no name: one is expected");
  }
  if (rule.kind == RuleKind::own) geometry_detail::check_name("rule: name", rule.own()->name);
  if (rule.kind == RuleKind::number || rule.kind == RuleKind::sum) check_number(rule);
  if (rule.kind == RuleKind::neighbours && rule.number < 1) {
    throw Error(fmt::format("rule: {} filled neighbours: 1 or more is expected", rule.number));
  }
  if (rule.kind == RuleKind::waited_for && rule.number < 0) {
    throw Error(fmt::format("rule: {} filled slots that it waits for: 0 or more is expected", rule.number));
  }
  if ((rule.kind == RuleKind::at_most || rule.kind == RuleKind::at_least) && rule.number < 1) {
    throw Error(fmt::format("rule: at {} {} cards: 1 or more is expected",
                            rule.kind == RuleKind::at_most ? "most" : "least", rule.number));
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
  for (const Rule& part : rule.parts()) check_nested(part, deck, depth + 1);
}

/// A question about no card has neither card nor zone.
bool asks_about_cards(const Rule& rule) {
  const auto relative = [](const NumberTerm& term) {
    return !term.name.empty() && term.of != NumberOf::owner && term.of != NumberOf::player;
  };
  switch (rule.kind) {
    case RuleKind::anything:
    case RuleKind::nothing:
    case RuleKind::on_turn:
    case RuleKind::own:
      return false;
    case RuleKind::number:
      return relative(rule.compared()->number) || relative(rule.compared()->than);
    case RuleKind::all:
    case RuleKind::any:
    case RuleKind::negate:
      return std::any_of(rule.parts().begin(), rule.parts().end(), asks_about_cards);
    default:
      return true;
  }
}

}  // namespace

namespace {

void check_owners(const Rule& rule, const Table& table) {
  if (const NumberRule* compared = rule.compared()) {
    for (const NumberTerm* term : {&compared->number, &compared->than}) {
      const NumberOwner& owner = term->owner;
      if ((!owner.zone || table.zone(owner.zone)) && owner.seat.value <= table.seats().size()) continue;
      throw Error(fmt::format("rule: number '{}' of zone {} or seat {}: those of the table are expected",
                              term->name, owner.zone.value, owner.seat.value));
    }
  }
  for (const Rule& part : rule.parts()) check_owners(part, table);
}

}  // namespace

void rules_detail::check(const Rule& rule, const Table& table) {
  apsidon::check(rule, table.deck());
  check_owners(rule, table);
}

void rules_detail::check_without_card(const Rule& rule, const Table& table, std::string_view whose) {
  check(rule, table);
  if (!asks_about_cards(rule)) return;
  throw Error(
      fmt::format("{}: its rule asks about a card or a zone, and there is none: one of numbers, of the "
                  "turn, or in code is expected",
                  whose));
}

void rules_detail::check(const NamedMove& move, const Table& table) {
  if (move.name.empty()) throw Error("named move: the name is empty: a name is expected");
  geometry_detail::check_name("named move: name", move.name);
  check_without_card(move.when, table, fmt::format("named move '{}'", move.name));
}

std::size_t rules_detail::count_parts(const Rule& rule) {
  std::size_t parts = 1 + rule.zones().size();
  for (const Rule& part : rule.parts()) parts += rules_detail::count_parts(part);
  return parts;
}

void check(const Rule& rule, const Deck& deck) {
  check_nested(rule, deck, 1);
  if (const std::size_t parts = rules_detail::count_parts(rule); parts > most_parts_of_rule) {
    throw Error(fmt::format("rule: it has {} parts, with the zones that it lists: at most {} are expected",
                            parts, most_parts_of_rule));
  }
}

}  // namespace apsidon
