#include "apsidon/play/setup.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "geometry/options.hpp"
#include "rules/inside.hpp"

namespace apsidon {

ZoneId TableSetup::add(const ZoneSetup& zone) {
  check(zone.layout.kind);
  check(zone.rules.drop, table.deck());
  check(zone.rules.pick.link, table.deck());
  check(zone.rules.pick.when, table.deck());
  cards_detail::Inside::check_new(
      table, zone.cards);  // so that a card that cannot be made leaves no half-filled zone behind
  const ZoneId id = table.create_zone(
      zone.name, {.key = zone.key, .recycled = zone.recycled, .seat = zone.seat, .numbers = zone.numbers});
  for (const CardOptions& card : zone.cards) table.create_card(id, card);
  layouts_.push_back(zone.layout);
  rules_.push_back(zone.rules);
  handling_.push_back(zone.handling);
  return id;
}

void TableSetup::add_deck(ZoneId zone, const WholeDeck& whole) {
  const Deck& deck = table.deck();
  if (!table.zone(zone))
    throw Error(fmt::format("deck: zone {}: a zone of the table is expected", zone.value));
  if (whole.packs < 1 || whole.packs > deck.options().copies) {
    throw Error(fmt::format("deck: {} packs: 1 to {} are expected, the copies of the deck", whole.packs,
                            deck.options().copies));
  }
  const std::vector<FaceId> faces = deck.faces();
  if (table.card_count() + faces.size() * static_cast<std::size_t>(whole.packs) > most_cards) {
    throw Error(fmt::format("deck: more than {} cards: fewer are expected", most_cards));
  }
  for (int pack = 0; pack < whole.packs; ++pack) {
    for (const FaceId face : faces) {
      if (whole.jokers || !deck.is_joker(face))
        table.create_card(zone, {.face = face, .face_up = whole.face_up});
    }
  }
}

void TableSetup::set_behaviour(ZoneId zone, ZoneBehaviour options) {
  layouts_[zone.value - 1] = std::move(options.layout);
  rules_[zone.value - 1] = std::move(options.rules);
  handling_[zone.value - 1] = std::move(options.handling);
}

namespace {

void check_panel(const PanelSetup& panel, std::size_t seats) {
  if (panel.name.empty()) throw Error("panel: the name is empty: a name is expected");
  geometry_detail::check_name("panel: name", panel.name);
  geometry_detail::check_text("panel: text", panel.text);
  if (!(panel.fill >= 0 && panel.fill <= 1)) {
    throw Error(fmt::format("panel '{}': fill is {}: 0 to 1 is expected", panel.name, panel.fill));
  }
  geometry_detail::check_text("panel: number that fills it", panel.filled_by, 2 * most_name_bytes);
  geometry_detail::check_text("panel: number at which it is full", panel.full_at, 2 * most_name_bytes);
  if (panel.filled_by.empty() != panel.full_at.empty()) {
    throw Error(fmt::format("panel '{}': filled by '{}', full at '{}': both are expected, or neither",
                            panel.name, panel.filled_by, panel.full_at));
  }
  if (panel.seat.value > seats) {
    throw Error(fmt::format("panel '{}': seat {}: a seat of the table, or none, is expected", panel.name,
                            panel.seat.value));
  }
}

}  // namespace

PanelId TableSetup::add_panel(const PanelSetup& panel) {
  check_panel(panel, table.seats().size());
  if (panels.size() >= most_panels) {
    throw Error(
        fmt::format("panel '{}': the table has {} panels: no more are expected", panel.name, most_panels));
  }
  if (std::any_of(panels.begin(), panels.end(), [&](const PanelSetup& p) { return p.name == panel.name; })) {
    throw Error(
        fmt::format("panel '{}': the table has one of that name: a new name is expected", panel.name));
  }
  panels.push_back(panel);
  return {static_cast<std::uint32_t>(panels.size())};
}

namespace {

/// All that `add` refuses in a slot but not in the one before: so nothing is half made, and no copy is
/// needed.
void check_slots(const Table& table, const ZoneSetup& zone, const Formation& formation) {
  std::set<std::string> names;
  for (const std::string& slot : formation.names) {
    const std::string name = zone.name + "-" + slot;
    geometry_detail::check_name("zone: name", name);
    if (!table.find_zone(name) && names.insert(name).second) continue;
    throw Error(fmt::format("zone '{}': the table has one of that name: a new name is expected", name));
  }
  if (table.zones().size() + names.size() > most_zones) {
    throw Error(
        fmt::format("zone '{}': {} slots on a table that has {} zones: at most {} in all are expected",
                    zone.name, names.size(), table.zones().size(), most_zones));
  }
  if (names.size() > 1 && zone.key != 0) {
    throw Error(
        fmt::format("zone '{}': its slots cannot share the key {}: none is expected", zone.name, zone.key));
  }
  std::vector<CardOptions> cards;
  for (std::size_t i = 0; i < names.size() && cards.size() <= most_cards; ++i)
    cards.insert(cards.end(), zone.cards.begin(), zone.cards.end());
  cards_detail::Inside::check_new(table, cards);
}

}  // namespace

PlanNode TableSetup::add_formation(const ZoneSetup& zone, const Formation& formation) {
  check_slots(table, zone, formation);
  std::vector<FormationSlot> slots;
  for (std::size_t i = 0; i < formation.at.size(); ++i) {
    ZoneSetup slot = zone;
    slot.name = zone.name + "-" + formation.names[i];
    slots.push_back({.zone = add(slot), .at = formation.at[i]});
  }
  for (const auto& [a, b] : formation.links) links.push_back({slots[a].zone, slots[b].zone});
  for (const auto& [a, b] : formation.waits) waits.push_back({slots[a].zone, slots[b].zone});
  return apsidon::formation(std::move(slots));
}

TableSetup dealt(const TableSetup& setup, std::uint64_t seed) {
  TableSetup out = setup;
  if (!out.round.stock) return out;
  Table& table = out.table;
  std::vector<CardId> all;
  for (const Zone& zone : table.zones()) all.insert(all.end(), zone.cards.begin(), zone.cards.end());
  std::sort(all.begin(), all.end());  // however they lay, the same seed gives the same round
  std::vector<ZoneContents> bare;
  for (const Zone& zone : table.zones()) {
    bare.push_back({.zone = zone.id});
    if (Numbers own = table.numbers(zone.id); !own.empty())
      bare.back().numbers = {{CardId{}, std::move(own)}};
  }
  ZoneContents& stock = bare[out.round.stock.value - 1];
  std::vector<std::pair<CardId, Numbers>> numbered(stock.numbers.begin(), stock.numbers.end());
  for (const CardId card : all) {
    stock.cards.push_back({.card = card, .face_up = false});
    if (Numbers own = table.numbers(card); !own.empty()) numbered.emplace_back(card, std::move(own));
  }
  stock.numbers = std::move(numbered);
  (void)table.arrange(bare);
  (void)table.shuffle(out.round.stock, seed);
  for (const DealtZone& dealt : out.round.zones) {
    (void)table.take(out.round.stock, dealt.zone, static_cast<std::size_t>(dealt.covered), false);
    (void)table.take(out.round.stock, dealt.zone, static_cast<std::size_t>(dealt.open), true);
  }
  return out;
}

namespace {

void check(const ZoneHandling& handling, const Zone& zone, const Table& table) {
  const FlickTargets& flicks = handling.flick_to;
  for (const ZoneId to : {flicks.left, flicks.right, flicks.up, flicks.down}) {
    if (!to || (table.zone(to) && to != zone.id)) continue;
    throw Error(fmt::format("zone '{}': flicked cards go to zone {}: another zone of the table is expected",
                            zone.name, to.value));
  }
  if (handling.double_tap == TapKind::pick) {
    throw Error(fmt::format(
        "zone '{}': a double tap picks up: flip, reorient, select, select-one, draw or send is expected",
        zone.name));
  }
}

/// What a tap does that no rule allows would never be done.
void check_taps(const ZoneHandling& handling, const ZoneRules& rules, const Zone& zone) {
  const auto needs = [&](TapKind kind, const Rule& rule, std::string_view does, std::string_view key) {
    if ((handling.tap != kind && handling.double_tap != kind) || rule.kind != RuleKind::nothing) return;
    throw Error(
        fmt::format("zone '{}': a tap {} its cards, and its rules let nobody: a rule '{}' is expected, "
                    "of all its cards 'anything'",
                    zone.name, does, key));
  };
  needs(TapKind::flip, rules.flip, "flips", "flip");
  needs(TapKind::reorient, rules.reorient, "turns", "reorient");
}

void check_match(const ZoneRules& rules, const Zone& zone, const Table& table) {
  if (!rules.match) return;
  const MatchRule& match = *rules.match;
  if (rules.flip.kind == RuleKind::nothing) {
    throw Error(
        fmt::format("zone '{}': open cards match, and its rules let nobody open them: a rule 'flip' is "
                    "expected, of all its cards 'anything'",
                    zone.name));
  }
  const bool goes = match.end != MatchEnd::stay;
  if (goes ? !table.zone(match.to) || match.to == zone.id : match.to != ZoneId{}) {
    throw Error(
        fmt::format("zone '{}': sets that match go to zone {}: another zone of the table is expected{}",
                    zone.name, match.to.value, goes ? "" : ", or none where they stay"));
  }
  if (match.open < 1 || match.open > 100) {
    throw Error(fmt::format("zone '{}': {} open cards match: 1 to 100 is expected", zone.name, match.open));
  }
  if (!(match.seconds >= 0 && match.seconds <= 60)) {
    throw Error(
        fmt::format("zone '{}': compared for {} seconds: 0 to 60 is expected", zone.name, match.seconds));
  }
}

void check_links(const TableSetup& setup, const std::vector<std::pair<ZoneId, ZoneId>>& links,
                 std::string_view what) {
  if (links.size() > most_links) {
    throw Error(fmt::format("table: {} {}s: at most {} are expected", links.size(), what, most_links));
  }
  for (const auto& [a, b] : links) {
    if (!setup.table.zone(a) || !setup.table.zone(b) || a == b) {
      throw Error(fmt::format("table: a {} between the zones {} and {}: two zones of the table are expected",
                              what, a.value, b.value));
    }
  }
}

void check(const RoundPlan& round, const Table& table) {
  if (round.stock && !table.zone(round.stock)) {
    throw Error(
        fmt::format("round: the stock is zone {}: a zone of the table is expected", round.stock.value));
  }
  for (const DealtZone& dealt : round.zones) {
    if (!table.zone(dealt.zone) || dealt.zone == round.stock) {
      throw Error(
          fmt::format("round: it deals to zone {}: another zone of the table is expected", dealt.zone.value));
    }
    for (const int cards : {dealt.covered, dealt.open}) {
      if (cards < 0 || cards > 100'000) {
        throw Error(fmt::format("round: it deals {} cards to '{}': 0 to 100000 are expected", cards,
                                table.zone(dealt.zone)->name));
      }
    }
  }
}

void check_rules(const ZoneRules& rules, const ZoneHandling& handling, const Zone& zone, const Table& table) {
  check(rules, table);
  if (rules.stock && rules.stock->to == zone.id) {
    throw Error(fmt::format("zone '{}': its stock gives to itself: another zone is expected", zone.name));
  }
  check(handling, zone, table);
  check_taps(handling, rules, zone);
  check_match(rules, zone, table);
}

/// The slots of formations counted; nested no deeper than was checked.
std::size_t count_nodes(const PlanNode& node) {
  std::size_t count = 1 + node.places.size();
  for (const PlanNode& part : node.parts) count += count_nodes(part);
  return count;
}

}  // namespace

void check(std::span<const Plan> plans, const TableSetup& setup) {
  if (plans.empty()) throw Error("table: no plans: at least one is expected");
  if (plans.size() > most_plans) {
    throw Error(fmt::format("table: {} plans: at most {} are expected", plans.size(), most_plans));
  }
  std::size_t nodes = 0;
  for (const Plan& plan : plans) {
    check(plan, setup.layouts(), setup.panels.size());
    nodes += count_nodes(plan.root);
  }
  if (nodes > most_plan_nodes)
    throw Error(fmt::format("table: {} nodes in its plans: at most {} are expected", nodes, most_plan_nodes));
}

void check(const ZoneBehaviour& options, ZoneId id, const TableSetup& setup) {
  const Zone* zone = setup.table.zone(id);
  if (!zone) throw Error(fmt::format("zone {}: a zone of the table is expected", id.value));
  check(options.layout);
  check_rules(options.rules, options.handling, *zone, setup.table);
}

void check(const TableSetup& setup) {
  const std::size_t zones = setup.table.zones().size();
  if (setup.layouts().size() != zones) {
    throw Error(
        fmt::format("table: {} zones, {} of them added to the set-up: each is expected to be added there",
                    zones, setup.layouts().size()));
  }
  if (zones == 0) throw Error("table: no zones: at least one is expected");
  check_links(setup, setup.links, "link");
  check_links(setup, setup.waits, "wait");
  geometry_detail::check_text("table: name of a card", setup.names.card);
  for (const auto& [word, text] : setup.names.words) {
    geometry_detail::check_text("table: word", word);
    geometry_detail::check_text("table: word", text);
  }
  for (const auto& [rule, text] : setup.sentences) {
    geometry_detail::check_name("table: name of a sentence", rule);
    geometry_detail::check_text("table: sentence", text);
  }
  geometry_detail::check_text("table: name", setup.name, most_name_bytes);
  for (const PanelSetup& panel : setup.panels) check_panel(panel, setup.table.seats().size());
  check(std::span(setup.plans), setup);
  std::size_t parts = 0;
  std::size_t longest = 0;
  for (const Zone& zone : setup.table.zones()) {
    check_rules(setup.rules_of(zone.id), setup.handling_of(zone.id), zone, setup.table);
    parts += rules_detail::count_parts(setup.rules_of(zone.id));
    longest += static_cast<std::size_t>(setup.layout_of(zone.id).longest);
  }
  if (setup.consequences.size() > most_consequences) {
    throw Error(fmt::format("table: {} consequences: at most {} are expected", setup.consequences.size(),
                            most_consequences));
  }
  for (const Consequence& consequence : setup.consequences) {
    check(consequence, setup.table);
    parts += rules_detail::count_parts(consequence);
  }
  if (setup.named_moves.size() > most_named_moves) {
    throw Error(fmt::format("table: {} named moves: at most {} are expected", setup.named_moves.size(),
                            most_named_moves));
  }
  if (setup.badges.size() > most_badges) {
    throw Error(fmt::format("table: {} badges: at most {} are expected", setup.badges.size(), most_badges));
  }
  for (const Badge& badge : setup.badges) {
    if (badge.number.empty()) throw Error("table: a badge of no number: its name is expected");
    geometry_detail::check_name("table: badge", badge.number);
  }
  std::set<std::string_view> names;
  for (const NamedMove& move : setup.named_moves) {
    rules_detail::check(move, setup.table);
    parts += rules_detail::count_parts(move.when);
    if (names.insert(move.name).second) continue;
    throw Error(
        fmt::format("table: two named moves are called '{}': a name of its own is expected", move.name));
  }
  if (parts > most_rule_parts) {
    throw Error(fmt::format("table: the rules of its zones have {} parts: at most {} in all are expected",
                            parts, most_rule_parts));
  }
  if (longest > most_longest) {
    throw Error(fmt::format("table: its zones hold {} cards at their longest: at most {} in all are expected",
                            longest, most_longest));
  }
  for (const ZoneId zone : setup.finish.into) {
    if (setup.table.zone(zone)) continue;
    throw Error(
        fmt::format("table: it is finished into zone {}: a zone of the table is expected", zone.value));
  }
  for (const ZoneId zone : setup.send_top_of) {
    if (setup.table.zone(zone)) continue;
    throw Error(
        fmt::format("table: a key sends the top of zone {}: a zone of the table is expected", zone.value));
  }
  check(setup.round, setup.table);
  check(setup.won, setup.table);
  check(setup.lost, setup.table);
  if (setup.deal_from && !setup.table.zone(setup.deal_from)) {
    throw Error(fmt::format("table: the deal comes from zone {}: a zone of the table is expected",
                            setup.deal_from.value));
  }
}

}  // namespace apsidon
