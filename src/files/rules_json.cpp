#include "files/rules_json.hpp"

#include <fmt/format.h>

#include <map>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/plan_json.hpp"
#include "rules/inside.hpp"

namespace apsidon::files_detail {
namespace {

using Json = nlohmann::ordered_json;

/// The only key of an object like {"at-most": 3}.
std::string only_key(const Node& node, std::string_view what) {
  node.expect_form(node.json().is_object() && node.json().size() == 1,
                   fmt::format("a {}, a word or an object with exactly one key,", what));
  return node.json().begin().key();
}

std::vector<std::string> suit_names(const Deck& deck) {
  std::vector<std::string> names;
  for (const auto& suit : deck.options().suits) names.push_back(suit.name);
  return names;
}

int rank_named(const Node& node, const Deck& deck) {
  const std::string name = node.text();
  const auto rank = deck.find_rank(name);
  if (!rank) node.stop_unknown("rank", name, deck.options().ranks);
  return *rank;
}

int suit_named(const Node& node, const Deck& deck) {
  const std::string name = node.text();
  const std::vector<std::string> names = suit_names(deck);
  const auto it = std::find(names.begin(), names.end(), name);
  if (it == names.end()) node.stop_unknown("suit", name, names);
  return static_cast<int>(it - names.begin());
}

/// A number of the table, "of" somebody else, or where `node` is a bare one, that.
NumberTerm read_term(const Node& node, const Table& table,
                     std::initializer_list<std::string_view> beside = {}) {
  if (node.json().is_number()) return node.whole(-largest_number, largest_number);
  node.expect_form(node.json().is_object(), "a whole number, or an object with the 'name' of one,");
  std::vector<std::string_view> keys{"name", "of"};
  keys.insert(keys.end(), beside);
  node.expect_keys(keys);
  NumberTerm term(node.at("name").name());
  if (!node.has("of")) return term;
  const Node of = node.child("of");
  if (of.json().is_string()) {
    term.of = named(of, "owner of a number", of.text(), number_of_names);
    return term;
  }
  of.expect_form(of.json().is_object(), "a word, or an object with a 'zone' or a 'seat',");
  of.expect_keys({"zone", "seat"});
  term.owner = of.has("zone") ? NumberOwner(zone_named(of.child("zone"), table))
                              : NumberOwner(seat_named(of.at("seat"), table));
  return term;
}

/// How a number has to be to another: the only one of three keys.
std::optional<NumberRule> read_comparison(const Node& node, NumberTerm number, const Table& table) {
  std::optional<NumberRule> rule;
  for (const auto& [word, is] : compared_names) {
    if (!node.has(word)) continue;
    if (rule) node.stop(ProblemCode::wrong_type, "a number is compared twice: once is expected");
    rule = {std::move(number), is, read_term(node.child(word), table)};
  }
  return rule;
}

/// Of a number of the cards, or without a name of their ranks.
Rule read_sum(const Node& node, const Table& table) {
  node.expect_form(node.json().is_object(), "an object with one of 'at_least', 'at_most' and 'equal',");
  node.expect_keys({"name", "at_least", "at_most", "equal"});
  const auto sum = read_comparison(node, {}, table);
  if (!sum) {
    node.stop(ProblemCode::missing_key,
              "a sum with nothing to compare it with: one of 'at_least', 'at_most' and 'equal' is expected");
  }
  return rule::sum(sum->is, sum->than, node.has("name") ? node.child("name").name() : std::string{});
}

Rule read_number_rule(const Node& node, const Table& table) {
  const NumberTerm number = read_term(node, table, {"at_least", "at_most", "equal"});
  const auto rule = read_comparison(node, number, table);
  if (!rule || number.name.empty()) {
    node.stop(
        ProblemCode::missing_key,
        "a number with nothing to compare it with: one of 'at_least', 'at_most' and 'equal' is expected");
  }
  return rule::number(rule->number, rule->is, rule->than);
}

Json term_json(const NumberTerm& term, const Table& table) {
  if (term.name.empty()) return term.value;
  Json json{{"name", term.name}};
  if (term.of != NumberOf::owner) {
    json["of"] = name_in(number_of_names, term.of);
  } else if (term.owner.zone) {
    json["of"] = {{"zone", table.zone(term.owner.zone)->name}};
  } else if (term.owner.seat) {
    json["of"] = {{"seat", table.seats()[term.owner.seat.value - 1].name}};
  }
  return json;
}

template <class T, class Read>
std::vector<T> each_read(const Node& list, Read read) {
  std::vector<T> all;
  for (const Node& item : list.items()) all.push_back(read(item));
  return all;
}

}  // namespace

Rule read_rule(const Node& node, const Table& table) {
  const bool bare = node.json().is_string();
  const std::string word = bare ? node.text() : only_key(node, "rule");
  const RuleKind kind = named(node, "rule", word, rule_names);
  if (bare && has_argument(kind)) {
    node.stop(ProblemCode::wrong_type,
              fmt::format("'{}' wants an argument: {{\"{}\": …}} is expected", word, word));
  }
  if (!bare && !has_argument(kind)) {
    node.stop(ProblemCode::wrong_type, fmt::format("'{}' has no argument: \"{}\" is expected", word, word));
  }
  Rule rule{.kind = kind};
  if (bare) return rule;
  const Node argument = node.child(word);
  switch (kind) {
    case RuleKind::at_most:
    case RuleKind::at_least:
    case RuleKind::neighbours:
      rule.number = argument.whole(1, static_cast<int>(most_cards));
      break;
    case RuleKind::waited_for:
      rule.number = argument.whole(0, static_cast<int>(most_cards));
      break;
    case RuleKind::rank_on_empty:
    case RuleKind::rank_at_least:
      rule.number = rank_named(argument, table.deck());
      break;
    case RuleKind::of_suit:
      rule.number = suit_named(argument, table.deck());
      break;
    case RuleKind::number:
      rule = read_number_rule(argument, table);
      argument.guard(ProblemCode::wrong_type, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::sum:
      rule = read_sum(argument, table);
      argument.guard(ProblemCode::wrong_type, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::own:
      rule = rule::own(argument.text());
      argument.guard(ProblemCode::wrong_type, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::from:
      rule.by = SharedList<ZoneId>(
          each_read<ZoneId>(argument, [&](const Node& zone) { return zone_named(zone, table); }));
      argument.guard(ProblemCode::missing_key, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::negate:
    case RuleKind::each_neighbour:
      rule.by = SharedList<Rule>({read_rule(argument, table)});
      break;
    default:
      rule.by = SharedList<Rule>(
          each_read<Rule>(argument, [&](const Node& part) { return read_rule(part, table); }));
      argument.guard(ProblemCode::missing_key, [&] { check(rule, table.deck()); });
      break;
  }
  return rule;
}

PickRule read_pick(const Node& node, const Table& table) {
  if (node.json().is_string()) {
    const PickKind kind = named(node, "pick rule", node.text(), pick_names);
    if (kind == PickKind::run) {
      node.stop(ProblemCode::wrong_type,
                "'run' wants the rule that links its cards: {\"run\": rule} is expected");
    }
    return {.kind = kind};
  }
  node.expect_form(node.json().is_object(), "a word, or an object with 'cards' or 'run',");
  node.expect_keys({"cards", "run", "when", "covered"});
  if (node.has("run") == node.has("cards")) {
    node.stop(ProblemCode::wrong_type,
              "a pick rule without its cards: a word, or an object with exactly one of 'cards' and 'run' is "
              "expected");
  }
  PickRule pick{.kind = PickKind::run, .covered = node.truth_or("covered", false)};
  if (node.has("run")) pick.link = read_rule(node.child("run"), table);
  if (node.has("cards")) {
    pick.kind = named(node.child("cards"), "pick rule", node.child("cards").text(), pick_names);
    if (pick.kind == PickKind::run)
      node.child("cards").stop(ProblemCode::wrong_type, "'run' wants a rule: {\"run\": rule} is expected");
  }
  if (node.has("when")) pick.when = read_rule(node.child("when"), table);
  return pick;
}

SelectRule read_select(const Node& node, const Table& table) {
  node.expect_form(node.json().is_object(), "an object, with 'when' and 'link' where not all may be chosen,");
  node.expect_keys({"when", "link", "covered"});
  SelectRule select{.covered = node.truth_or("covered", false)};
  if (node.has("when")) select.when = read_rule(node.child("when"), table);
  if (node.has("link")) select.link = read_rule(node.child("link"), table);
  return select;
}

Json json_of(const SelectRule& select, const Table& table) {
  Json json = Json::object();
  if (select.when.kind != RuleKind::anything) json["when"] = json_of(select.when, table);
  if (select.link.kind != RuleKind::anything) json["link"] = json_of(select.link, table);
  if (select.covered) json["covered"] = true;
  return json;
}

Json json_of(const Rule& rule, const Table& table) {
  const std::string name(name_in(rule_names, rule.kind));
  if (!has_argument(rule.kind)) return name;
  const DeckOptions& deck = table.deck().options();
  Json argument;
  switch (rule.kind) {
    case RuleKind::at_most:
    case RuleKind::at_least:
    case RuleKind::neighbours:
    case RuleKind::waited_for:
      argument = rule.number;
      break;
    case RuleKind::rank_on_empty:
    case RuleKind::rank_at_least:
      argument = deck.ranks[static_cast<std::size_t>(rule.number)];
      break;
    case RuleKind::of_suit:
      argument = deck.suits[static_cast<std::size_t>(rule.number)].name;
      break;
    case RuleKind::number:
    case RuleKind::sum:
      if (rule.kind == RuleKind::number) argument = term_json(rule.compared()->number, table);
      if (rule.kind == RuleKind::sum && !rule.compared()->number.name.empty())
        argument["name"] = rule.compared()->number.name;
      argument[std::string(name_in(compared_names, rule.compared()->is))] =
          term_json(rule.compared()->than, table);
      break;
    case RuleKind::own:
      argument = rule.own()->name;
      break;
    case RuleKind::from:
      argument = Json::array();
      for (const ZoneId zone : rule.zones()) argument.push_back(table.zone(zone)->name);
      break;
    case RuleKind::negate:
    case RuleKind::each_neighbour:
      argument = json_of(rule.parts().front(), table);
      break;
    default:
      argument = Json::array();
      for (const Rule& part : rule.parts()) argument.push_back(json_of(part, table));
      break;
  }
  Json json;
  json[name] = argument;
  return json;
}

Json json_of(const PickRule& pick, const Table& table) {
  const std::string name(name_in(pick_names, pick.kind));
  const bool asks = pick.when.kind != RuleKind::anything;
  if (pick.kind != PickKind::run && !asks && !pick.covered) return name;
  Json json;
  if (pick.kind == PickKind::run) {
    json["run"] = json_of(pick.link, table);
  } else {
    json["cards"] = name;
  }
  if (asks) json["when"] = json_of(pick.when, table);
  if (pick.covered) json["covered"] = true;
  return json;
}

std::vector<ZoneId> zones_named(const Node& node, const Table& table) {
  std::vector<ZoneId> zones;
  std::map<std::string, std::vector<ZoneId>> known;  // a list may say one name ten thousand times
  for (const Node& name : node.items()) {
    const auto [of, fresh] = known.try_emplace(name.text());
    if (fresh) of->second = table.find_group(of->first);
    if (of->second.empty()) of->second.push_back(zone_named(name, table));
    if (zones.size() + of->second.size() > most_rule_parts) {
      name.stop(ProblemCode::too_many, fmt::format("{} zones in this list: at most {} are expected",
                                                   zones.size() + of->second.size(), most_rule_parts));
    }
    zones.insert(zones.end(), of->second.begin(), of->second.end());
  }
  return zones;
}

/// A zone of the table, and none of those that name it.
ZoneId other_zone(const Node& node, const TableSetup& setup, ZoneRange own) {
  const ZoneId zone = zone_named(node, setup.table);
  if (zone.value >= own.first.value && zone.value < own.first.value + own.count) {
    node.stop(ProblemCode::misplaced,
              fmt::format("'{}' names itself: another zone is expected", setup.table.zone(zone)->name));
  }
  return zone;
}

Goal read_goal(const Node& node, const TableSetup& setup) {
  const std::string word = only_key(node, "goal");
  const GoalKind kind = named(node, "goal", word, goal_names);
  const Node argument = node.child(word);
  Goal goal{.kind = kind};
  if (kind == GoalKind::when) {
    goal.rule = read_rule(argument, setup.table);
  } else {
    goal.zones = zones_named(argument, setup.table);
  }
  argument.guard(ProblemCode::missing_key, [&] { check(goal, setup.table); });
  return goal;
}

Json json_of(const Goal& goal, const Table& table) {
  Json argument = Json::array();
  for (const ZoneId zone : goal.zones) argument.push_back(table.zone(zone)->name);
  if (goal.kind == GoalKind::when) argument = json_of(goal.rule, table);
  return {{std::string(name_in(goal_names, goal.kind)), argument}};
}

Consequence read_consequence(const Node& node, const TableSetup& setup) {
  Consequence c;
  if (node.has("own")) {
    node.expect_keys({"own"});
    c.name = node.child("own").text();
  } else {
    node.expect_keys({"in", "cards", "link", "sum", "to", "counts"});
    c.to = zone_named(node.at("to"), setup.table);
    if (node.has("in")) c.in = zones_named(node.child("in"), setup.table);
    c.cards = node.whole_or("cards", 0, 2, 100'000);
    if (node.has("link")) c.link = read_rule(node.child("link"), setup.table);
    c.sum = node.whole_or("sum", 0, 1, 1'000'000);
    if (node.has("counts")) c.counts = node.child("counts").name();
  }
  node.guard(ProblemCode::missing_key, [&] { check(c, setup.table); });
  return c;
}

Json json_of(const Consequence& c, const Table& table) {
  if (!c.name.empty()) return {{"own", c.name}};
  Json json = Json::object();
  for (const ZoneId zone : c.in) json["in"].push_back(table.zone(zone)->name);
  if (c.cards != 0) json["cards"] = c.cards;
  if (c.link.kind != RuleKind::anything) json["link"] = json_of(c.link, table);
  if (c.sum != 0) json["sum"] = c.sum;
  json["to"] = table.zone(c.to)->name;
  if (!c.counts.empty()) json["counts"] = c.counts;
  return json;
}

NamedMove read_named_move(const Node& node, const TableSetup& setup) {
  node.expect_keys({"name", "when"});
  NamedMove move{.name = node.at("name").name()};
  if (node.has("when")) move.when = read_rule(node.child("when"), setup.table);
  node.guard(ProblemCode::wrong_type, [&] { rules_detail::check(move, setup.table); });
  return move;
}

Json json_of(const NamedMove& move, const Table& table) {
  Json json{{"name", move.name}};
  if (move.when.kind != RuleKind::anything) json["when"] = json_of(move.when, table);
  return json;
}

Numbers read_numbers(const Node& node, bool of_zone) {
  node.expect_form(node.json().is_object(), "an object with a whole number for each name,");
  std::vector<Number> numbers;
  for (const auto& item : node.json().items())
    numbers.push_back({item.key(), node.child(item.key()).whole(-largest_number, largest_number)});
  return node.guard(ProblemCode::out_of_range,
                    [&] { return cards_detail::checked(numbers, "numbers", of_zone); });
}

Json json_of(const Numbers& numbers) {
  Json json = Json::object();
  for (const Number& number : numbers) json[number.name] = number.value;
  return json;
}

SeatId seat_named(const Node& node, const Table& table) {
  const std::string name = node.text();
  const auto seat = table.find_seat(name);
  if (seat) return *seat;
  std::vector<std::string> names;
  for (const Seat& one : table.seats()) names.push_back(one.name);
  node.stop_unknown("seat", name, names);
}

std::vector<Badge> read_badges(const Node& node) {
  std::vector<Badge> badges;
  for (const Node& one : node.items()) {
    one.expect_keys({"number", "at"});
    Badge badge{.number = one.at("number").name()};
    if (one.has("at")) badge.at = named(one.child("at"), "corner", one.child("at").text(), corner_names);
    badges.push_back(std::move(badge));
  }
  return badges;
}

Json json_of(const std::vector<Badge>& badges) {
  Json json = Json::array();
  for (const Badge& badge : badges)
    json.push_back({{"number", badge.number}, {"at", name_in(corner_names, badge.at)}});
  return json;
}

RoundPlan read_round(const Node& node, const TableSetup& setup) {
  node.expect_keys({"stock", "zones"});
  RoundPlan round{.stock = zone_named(node.at("stock"), setup.table), .zones = {}};
  if (!node.has("zones")) return round;
  for (const Node& dealt : node.child("zones").items()) {
    dealt.expect_keys({"zone", "covered", "open"});
    round.zones.push_back({.zone = other_zone(dealt.at("zone"), setup, {round.stock}),
                           .covered = dealt.whole_or("covered", 0, 0, static_cast<int>(most_cards)),
                           .open = dealt.whole_or("open", 0, 0, static_cast<int>(most_cards))});
  }
  return round;
}

Json json_of(const RoundPlan& round, const Table& table) {
  Json json{{"stock", table.zone(round.stock)->name}, {"zones", Json::array()}};
  for (const DealtZone& dealt : round.zones) {
    Json entry{{"zone", table.zone(dealt.zone)->name}};
    if (dealt.covered != 0) entry["covered"] = dealt.covered;
    if (dealt.open != 0) entry["open"] = dealt.open;
    json["zones"].push_back(entry);
  }
  return json;
}

}  // namespace apsidon::files_detail
