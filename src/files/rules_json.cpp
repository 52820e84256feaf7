#include "files/rules_json.hpp"

#include <fmt/format.h>

#include <map>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/plan_json.hpp"

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

template <class T, class Read>
std::vector<T> each_read(const Node& list, Read read) {
  std::vector<T> all;
  for (const Node& item : list.items()) all.push_back(read(item));
  return all;
}

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
    case RuleKind::own:
      rule = rule::own(argument.text());
      argument.guard(ProblemCode::wrong_type, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::from:
      rule.zones = each_read<ZoneId>(argument, [&](const Node& zone) { return zone_named(zone, table); });
      argument.guard(ProblemCode::missing_key, [&] { check(rule, table.deck()); });
      break;
    case RuleKind::negate:
    case RuleKind::each_neighbour:
      rule.parts = {read_rule(argument, table)};
      break;
    default:
      rule.parts = each_read<Rule>(argument, [&](const Node& part) { return read_rule(part, table); });
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

/// A zone of the table, and none of those that name it.
ZoneId other_zone(const Node& node, const TableSetup& setup, ZoneRange own) {
  const ZoneId zone = zone_named(node, setup.table);
  if (zone.value >= own.first.value && zone.value < own.first.value + own.count) {
    node.stop(ProblemCode::misplaced,
              fmt::format("'{}' names itself: another zone is expected", setup.table.zone(zone)->name));
  }
  return zone;
}

StockRule read_stock(const Node& node, const TableSetup& setup, ZoneRange own) {
  node.expect_keys({"to", "gives", "passes", "recycled"});
  StockRule stock{.to = other_zone(node.at("to"), setup, own),
                  .passes = node.whole_or("passes", 0, 0, 1'000'000)};
  if (!node.has("gives")) return stock;
  const Node gives = node.child("gives");
  const auto cards = [](const Node& pass) { return pass.whole(1, static_cast<int>(most_cards)); };
  gives.expect_form(gives.json().is_array() || gives.json().is_number(),
                    "a number, or an array with one for each pass,");
  if (!gives.json().is_array()) {
    stock.gives = {cards(gives)};
    return stock;
  }
  stock.gives = each_read<int>(gives, cards);
  if (stock.gives.empty())
    gives.stop(ProblemCode::missing_key, "a stock that gives nothing: a number is expected");
  return stock;
}

MatchRule read_match(const Node& node, const TableSetup& setup, ZoneRange own) {
  node.expect_keys({"open", "end", "to", "seconds"});
  MatchRule match{.open = node.whole_or("open", 2, 1, 100)};
  if (node.has("end")) match.end = named(node.child("end"), "end", node.child("end").text(), match_end_names);
  if (match.end != MatchEnd::stay) match.to = other_zone(node.at("to"), setup, own);
  if (node.has("seconds")) match.seconds = node.child("seconds").number(0, 60);
  return match;
}

/// A zone, or zones by the direction.
FlickTargets read_flicks(const Node& node, const TableSetup& setup, ZoneRange own) {
  if (node.json().is_string()) return FlickTargets::anywhere(other_zone(node, setup, own));
  node.expect_form(node.json().is_object(), "a zone, or an object with zones by the direction,");
  node.expect_keys({"left", "right", "up", "down"});
  FlickTargets flicks;
  const auto read = [&](std::string_view key, ZoneId& to) {
    if (node.has(key)) to = other_zone(node.child(key), setup, own);
  };
  read("left", flicks.left);
  read("right", flicks.right);
  read("up", flicks.up);
  read("down", flicks.down);
  return flicks;
}

Json json_of(const FlickTargets& flicks, const Table& table) {
  if (flicks == FlickTargets::anywhere(flicks.left)) return table.zone(flicks.left)->name;
  Json json = Json::object();
  const auto write = [&](const char* key, ZoneId to) {
    if (to) json[key] = table.zone(to)->name;
  };
  write("left", flicks.left);
  write("right", flicks.right);
  write("up", flicks.up);
  write("down", flicks.down);
  return json;
}

TapKind tap_named(const Node& node, std::string_view key, TapKind otherwise) {
  return node.has(key) ? named(node.child(key), "tap", node.child(key).text(), tap_names) : otherwise;
}

ZoneHandling read_handling(const Node& node, const TableSetup& setup, ZoneRange own) {
  ZoneHandling h{.zoom = node.truth_or("zoom", false),
                 .zooms_beside_zone = node.truth_or("zooms_beside_zone", false),
                 .tap = tap_named(node, "tap", TapKind::none),
                 .double_tap = tap_named(node, "double_tap", TapKind::none)};
  if (node.has("hover"))
    h.hover = named(node.child("hover"), "hover", node.child("hover").text(), hover_names);
  if (h.double_tap == TapKind::pick) {
    node.child("double_tap")
        .stop(ProblemCode::unknown_name, "a double tap that picks up: flip, draw or send is expected");
  }
  if (node.has("flick_to")) h.flick_to = read_flicks(node.child("flick_to"), setup, own);
  if (node.has("match")) h.match = read_match(node.child("match"), setup, own);
  return h;
}

Json json_of(const Rule& rule, const Table& table) {
  const std::string name(name_in(rule_names, rule.kind));
  if (!has_argument(rule.kind)) return name;
  const DeckOptions& deck = table.deck().options();
  Json argument;
  switch (rule.kind) {
    case RuleKind::at_most:
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
    case RuleKind::own:
      argument = rule.own_rules.front()->name;
      break;
    case RuleKind::from:
      argument = Json::array();
      for (const ZoneId zone : rule.zones) argument.push_back(table.zone(zone)->name);
      break;
    case RuleKind::negate:
    case RuleKind::each_neighbour:
      argument = json_of(rule.parts.front(), table);
      break;
    default:
      argument = Json::array();
      for (const Rule& part : rule.parts) argument.push_back(json_of(part, table));
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

}  // namespace

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

namespace {

constexpr std::array<std::string_view, 26> option_keys{
    "layout",   "longest",          "facing",       "factor",        "sideways", "scrolls",
    "gives_up", "off_table",        "pick",         "drop",          "stock",    "exchanges",
    "sorts",    "flips_uncovered",  "takes_itself", "sends_to",      "hover",    "zoom",
    "tap",      "double_tap",       "inserts",      "lays_sideways", "flick_to", "match",
    "snaps",    "zooms_beside_zone"};

}  // namespace

void expect_option_keys(const Node& options) { options.expect_keys(option_keys); }

void expect_zone_keys(const Node& zone) {
  std::vector<std::string_view> keys(option_keys.begin(), option_keys.end());
  keys.insert(keys.end(), {"id", "repeat", "formation", "key", "data"});
  zone.expect_keys(keys);
}

int recycled_of(const Node& zone) {
  return zone.has("stock") ? zone.child("stock").whole_or("recycled", 0, 0, 1'000'000) : 0;
}

void read_rules(const Node& node, const TableSetup& setup, ZoneRange own, ZoneRules& rules,
                ZoneHandling& handling) {
  if (node.has("pick")) rules.pick = read_pick(node.child("pick"), setup.table);
  if (node.has("drop")) rules.drop = read_rule(node.child("drop"), setup.table);
  if (node.has("stock")) rules.stock = read_stock(node.child("stock"), setup, own);
  rules.exchanges = node.truth_or("exchanges", false);
  rules.sorts = node.truth_or("sorts", false);
  rules.inserts = node.truth_or("inserts", false);
  rules.lays_sideways = node.truth_or("lays_sideways", false);
  rules.flips_uncovered = node.truth_or("flips_uncovered", false);
  rules.takes_itself = node.truth_or("takes_itself", false);
  if (node.has("sends_to")) rules.sends_to = zones_named(node.child("sends_to"), setup.table);
  handling = read_handling(node, setup, own);
}

Goal read_goal(const Node& node, const TableSetup& setup) {
  const std::string word = only_key(node, "goal");
  const GoalKind kind = named(node, "goal", word, goal_names);
  const Node argument = node.child(word);
  Goal goal{.kind = kind};
  if (kind == GoalKind::own) {
    goal = goal::own(argument.text());
  } else {
    goal.zones = zones_named(argument, setup.table);
  }
  argument.guard(ProblemCode::missing_key, [&] { check(goal, setup.table); });
  return goal;
}

Json json_of(const Goal& goal, const Table& table) {
  Json argument = Json::array();
  for (const ZoneId zone : goal.zones) argument.push_back(table.zone(zone)->name);
  if (goal.kind == GoalKind::own) argument = goal.own_rules.front()->name;
  return {{std::string(name_in(goal_names, goal.kind)), argument}};
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

void write_rules(Json& json, const ZoneRules& rules, const ZoneHandling& h, const Table& table,
                 int recycled) {
  json["pick"] = json_of(rules.pick, table);
  json["drop"] = json_of(rules.drop, table);
  if (rules.stock) {
    Json stock{{"to", table.zone(rules.stock->to)->name}};
    stock["gives"] = rules.stock->gives;
    if (rules.stock->passes != 0) stock["passes"] = rules.stock->passes;
    if (recycled != 0) stock["recycled"] = recycled;
    json["stock"] = stock;
  }
  const auto truth = [&](const char* key, bool value) {
    if (value) json[key] = true;
  };
  truth("exchanges", rules.exchanges);
  truth("sorts", rules.sorts);
  truth("inserts", rules.inserts);
  truth("lays_sideways", rules.lays_sideways);
  truth("flips_uncovered", rules.flips_uncovered);
  truth("takes_itself", rules.takes_itself);
  for (const ZoneId to : rules.sends_to) json["sends_to"].push_back(table.zone(to)->name);
  if (h.hover != HoverKind::none) json["hover"] = name_in(hover_names, h.hover);
  truth("zoom", h.zoom);
  truth("zooms_beside_zone", h.zooms_beside_zone);
  if (h.tap != TapKind::none) json["tap"] = name_in(tap_names, h.tap);
  if (h.double_tap != TapKind::none) json["double_tap"] = name_in(tap_names, h.double_tap);
  if (h.flick_to.any()) json["flick_to"] = json_of(h.flick_to, table);
  if (!h.match) return;
  json["match"]["open"] = h.match->open;
  if (h.match->end != MatchEnd::move) json["match"]["end"] = name_in(match_end_names, h.match->end);
  if (h.match->to) json["match"]["to"] = table.zone(h.match->to)->name;
  json["match"]["seconds"] = h.match->seconds;
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
