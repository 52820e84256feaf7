#include <catch2/catch.hpp>
#include <set>

#include "rules/neighbours.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// One card in the hand, one zone to drop it on; both as wanted.
struct Bench {
  Table table{glasshouse()};
  ZoneId hand = table.create_zone("hand");
  ZoneId bed = table.create_zone("bed");
  std::vector<ZoneRules> rules = std::vector<ZoneRules>(2);

  Bench(std::vector<std::string> held, const std::string& below) {
    for (const std::string& face : held) table.create_card(hand, open_card(table.deck(), face));
    if (!below.empty()) table.create_card(bed, open_card(table.deck(), below));
  }

  Verdict drop(const Rule& rule) {
    check(rule, table.deck());
    rules[1].drop = rule;
    return judge_drop(table, {rules}, table.run_from(table.zone(hand)->cards.front()), bed);
  }
};

Verdict drop(const std::string& card, const std::string& onto, const Rule& rule) {
  return Bench({card}, onto).drop(rule);
}

std::string names_of(const Table& table, const Verdict& v) {
  const Card* card = table.card(v.card);
  const Card* onto = table.card(v.onto);
  return (card ? table.deck().text(card->face) : "-") + " " + (onto ? table.deck().text(onto->face) : "-");
}

}  // namespace

TEST_CASE("rules: each simple rule allows what it names and refuses the rest with its own reason") {
  struct Row {
    Rule rule;
    const char* card;
    const char* onto;
    Reason reason;
  };
  const Row rows[] = {
      {rule::anything(), "fern-3", "", Reason::allowed},
      {rule::nothing(), "fern-3", "", Reason::drop_nothing},
      {rule::rank_down(), "fern-3", "reed-4", Reason::allowed},
      {rule::rank_down(), "fern-3", "reed-3", Reason::not_rank_down},
      {rule::rank_down(), "fern-3", "reed-2", Reason::not_rank_down},
      {rule::rank_down(), "fern-13", "reed-1", Reason::not_rank_down},  // ranks do not go round
      {rule::rank_down(), "fern-3", "", Reason::needs_card},
      {rule::rank_up(), "fern-3", "reed-2", Reason::allowed},
      {rule::rank_up(), "fern-3", "reed-4", Reason::not_rank_up},
      {rule::rank_up(), "fern-3", "", Reason::needs_card},
      {rule::same_suit(), "fern-3", "fern-9", Reason::allowed},
      {rule::same_suit(), "fern-3", "reed-9", Reason::not_same_suit},
      {rule::same_colour(), "fern-3", "reed-9", Reason::allowed},
      {rule::same_colour(), "fern-3", "poppy-9", Reason::not_same_colour},
      {rule::on_empty(), "fern-3", "", Reason::allowed},
      {rule::on_empty(), "fern-3", "reed-4", Reason::not_empty},
      {rule::rank_on_empty(0), "fern-1", "", Reason::allowed},
      {rule::rank_on_empty(0), "fern-2", "", Reason::not_rank_on_empty},
      {rule::rank_on_empty(0), "fern-1", "reed-4", Reason::not_empty},
      {rule::negate(rule::same_colour()), "fern-3", "poppy-4", Reason::allowed},
      {rule::negate(rule::same_colour()), "fern-3", "reed-4", Reason::negated},
      // A face that is not known: rules about faces refuse, others do not look.
      {rule::rank_down(), "hidden", "reed-4", Reason::unknown_face},
      {rule::same_suit(), "fern-3", "hidden", Reason::unknown_face},
      {rule::rank_on_empty(0), "hidden", "", Reason::unknown_face},
      {rule::at_most(1), "hidden", "reed-4", Reason::allowed},
      {rule::on_empty(), "hidden", "", Reason::allowed},
      {rule::at_least(1), "hidden", "", Reason::allowed},
      {rule::at_least(2), "fern-3", "", Reason::too_few},
      {rule::sum(Compared::equal, 3), "fern-3", "", Reason::allowed},
      {rule::sum(Compared::at_most, 2), "fern-3", "", Reason::number_high},
      {rule::sum(Compared::at_least, 4), "fern-3", "", Reason::number_low},
      {rule::sum(Compared::equal, 4), "fern-3", "", Reason::number_differs},
      {rule::sum(Compared::equal, 3), "hidden", "", Reason::unknown_face},
      {rule::sum(Compared::equal, 0, "worth"), "hidden", "", Reason::allowed},
      {rule::sequence(), "fern-3", "", Reason::allowed},
      {rule::sequence(), "hidden", "", Reason::unknown_face},
  };
  for (const Row& row : rows) {
    CAPTURE(row.card, row.onto, code_of(row.reason));
    CHECK(drop(row.card, row.onto, row.rule).reason == row.reason);
  }
}

TEST_CASE("rules: all wants every part, any says which part matched") {
  const Rule build = rule::any({rule::on_empty(), rule::all({rule::same_colour(), rule::rank_down()})});
  CHECK(drop("fern-3", "", build).alternative == 0);
  CHECK(drop("fern-3", "reed-4", build).alternative == 1);
  CHECK(drop("fern-3", "fern-4", rule::all({rule::same_colour(), rule::rank_down()})).alternative == -1);
  // Of two refusals the one about the cards is told, not that the zone is not empty.
  CHECK(drop("fern-3", "reed-9", build).reason == Reason::not_rank_down);
  CHECK(drop("fern-3", "poppy-4", build).reason == Reason::not_same_colour);
}

TEST_CASE("rules: a run is judged by its lowest card and its length") {
  Bench bench({"fern-3", "reed-2", "fern-1"}, "reed-4");
  CHECK(bench.drop(rule::rank_down()));
  const Verdict v = bench.drop(rule::at_most(2));
  CHECK(v.reason == Reason::too_many);
  CHECK(v.wanted == 2);
  CHECK(v.found == 3);
  CHECK(describe(v, bench.table) == "Bed takes at most 2 at once here; from fern-3 on there are 3.");
}

TEST_CASE("rules: a zone gives nothing, its top, any card, or a run that holds together") {
  Table table(glasshouse());
  const ZoneId zone = table.create_zone("column");
  for (const char* face : {"poppy-9", "fern-8", "fern-7", "reed-6"})
    table.create_card(zone, open_card(table.deck(), face));
  table.create_card(zone, {.face = *table.deck().find("fern-5"), .face_up = false});
  const auto& cards = table.zone(zone)->cards;
  std::vector<ZoneRules> rules(1);
  const auto pick = [&](PickRule rule, std::size_t place) {
    rules[0].pick = std::move(rule);
    return judge_pick(table, {rules}, cards[place]);
  };
  CHECK(pick({.kind = PickKind::nothing}, 0).verdict.reason == Reason::pick_nothing);
  CHECK(pick({.kind = PickKind::top}, 3).verdict.reason == Reason::not_top);
  CHECK(pick({.kind = PickKind::top}, 4).verdict.reason == Reason::face_down);
  CHECK(pick({.kind = PickKind::any}, 1).run == Run{cards[1], 1});
  REQUIRE(table.flip(cards[4], true));
  const PickRule run{.kind = PickKind::run, .link = rule::all({rule::same_colour(), rule::rank_down()})};
  CHECK(pick(run, 1).run == Run{cards[1], 4});
  CHECK(pick(run, 4).run == Run{cards[4], 1});
  const PickVerdict broken = pick(run, 0);
  CHECK(broken.verdict.reason == Reason::not_linked);
  CHECK(names_of(table, broken.verdict) == "fern-8 poppy-9");
  CHECK(broken.run.count == 0);
}

TEST_CASE("rules: stale ids and zones without rules are verdicts") {
  Bench bench({"fern-3"}, "");
  CHECK(judge_pick(bench.table, {bench.rules}, {99}).verdict.reason == Reason::unknown_card);
  CHECK(judge_drop(bench.table, {bench.rules}, {{99}, 1}, bench.bed).reason == Reason::unknown_card);
  const CardId card = bench.table.zone(bench.hand)->cards.front();
  CHECK(judge_drop(bench.table, {bench.rules}, {card, 1}, {99}).reason == Reason::unknown_zone);
  CHECK(judge_drop(bench.table, {bench.rules}, {card, 2}, bench.bed).reason == Reason::unknown_index);
  CHECK(judge_drop(bench.table, {bench.rules}, {card, 1}, bench.hand).reason == Reason::same_zone);
  CHECK(judge_drop(bench.table, {}, {card, 1}, bench.bed).reason == Reason::drop_nothing);
  CHECK(judge_pick(bench.table, {}, card).verdict.reason == Reason::pick_nothing);
}

TEST_CASE("rules: every reason has a code of its own and an English sentence") {
  Bench bench({"fern-3"}, "reed-9");
  std::set<std::string> codes;
  check(default_phrases());
  for (int i = 0; i < reason_count; ++i) {
    const auto reason = static_cast<Reason>(i);
    codes.insert(std::string(code_of(reason)));
    const std::string sentence =
        describe({.reason = reason, .card = {1}, .onto = {2}, .zone = bench.bed}, bench.table);
    CAPTURE(sentence);
    CHECK(sentence.size() > 5);
    CHECK(sentence.back() == '.');
    CHECK(sentence.find('{') == std::string::npos);
  }
  CHECK(codes.size() == static_cast<std::size_t>(reason_count));
}

TEST_CASE("rules: a sentence does not tell what a covered card hides, and templates can be replaced") {
  Bench bench({"fern-3"}, "reed-9");
  const CardId card = bench.table.zone(bench.hand)->cards.front();
  REQUIRE(bench.table.flip(card, false));
  CHECK(describe({.reason = Reason::face_down, .card = card}, bench.table) ==
        "The covered card lies face down.");
  Phrases german = default_phrases();
  german.by_reason[static_cast<std::size_t>(Reason::drop_nothing)] = "{zone} nimmt keine Karten.";
  check(german);
  CHECK(describe({.reason = Reason::drop_nothing, .zone = bench.bed}, bench.table, german) ==
        "Bed nimmt keine Karten.");
  german.by_reason[0] = "{card} {onto} {zone} {wanted} {found} {wanted_rank} {wanted_suit} {others} {key}";
  check(german);
  german.by_reason[0] = "{kart}";
  CHECK_THROWS_WITH(check(german),
                    Catch::Contains("phrase for allowed: '{kart}'") && Catch::Contains("is expected"));
}

TEST_CASE("rules: a rule that makes no sense is refused") {
  const Deck deck = glasshouse();
  CHECK_THROWS_WITH(check(rule::all({}), deck), "rule: an all or any has no parts: at least one is expected");
  CHECK_THROWS_WITH(check(rule::at_most(0), deck), "rule: at most 0 cards: 1 or more is expected");
  CHECK_THROWS_WITH(check(rule::rank_on_empty(13), deck),
                    "rule: rank 13 on an empty zone: 0 to 12 is expected");
  CHECK_THROWS_WITH(check(Rule{.kind = RuleKind::negate}, deck),
                    "rule: a not has 0 parts: exactly one is expected");
  CHECK_NOTHROW(check(rule::negate(rule::any({rule::same_suit(), rule::rank_up()})), deck));
}

TEST_CASE("rules: a slot waits for others, all of them or so many, with an index and without") {
  TableSetup setup(glasshouse());
  const PlanNode slots = setup.add_formation({.name = "frame", .rules = {.drop = rule::waited_for()}},
                                             with_waits(formation_of_pyramid(3)));
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = SpreadLayout{}, .longest = 4},
                                 .rules = {.pick = {.kind = PickKind::any}}});
  for (std::uint32_t face = 1; face <= 3; ++face) (void)setup.table.create_card(hand, {.face = {face}});
  CHECK(setup.waits.size() == 6);
  CHECK(setup.links.size() == 6);
  const ZoneId top = slots.places[0].zone;
  const auto place = [&](std::size_t slot) { return slots.places[slot].zone; };
  Table& table = setup.table;
  const rules_detail::Neighbours index(setup.waits, rules_detail::LinkWay::first_to_second);
  for (const bool indexed : {false, true}) {
    Rulebook rules = setup.rulebook();
    if (indexed) rules.waited = &index;
    const auto judge = [&](std::size_t slot) {
      return judge_drop(table, rules, {table.zone(hand)->cards[0], 1}, place(slot));
    };
    CHECK(judge(3));  // the lowest row waits for nothing
    CHECK(judge(1).reason == Reason::waits_for);
    CHECK(judge(1).wanted == 2);
    Table before = table;
    CHECK(table.move({table.zone(hand)->cards[2], 1}, place(3)));
    CHECK(judge(1).found == 1);
    setup.rules_of(place(1)).drop = rule::waited_for(1);
    CHECK(judge_drop(table, rules, {table.zone(hand)->cards[0], 1}, place(1)));
    setup.rules_of(place(1)).drop = rule::waited_for();
    CHECK(table.move({table.zone(hand)->cards[1], 1}, place(4)));
    CHECK(judge(1));
    CHECK(judge(0).reason == Reason::waits_for);
    // The list of moves says the same.
    for (const Move& move : legal_moves(table, rules)) CHECK(move.to != top);
    table = before;
  }
  // Upward the first waits for nothing; links between rows only.
  const Formation up = with_waits(formation_of_rows({1, 2}, {}, RowLinks::between), true);
  CHECK(up.links.size() == 2);
  for (const auto& [slot, before] : up.waits) CHECK(before == 0);
  CHECK(formation_of_rows({1, 2}).links.size() == 3);
  CHECK_THROWS_AS(check(rule::waited_for(-1), glasshouse()), Error);
}

TEST_CASE("rules: a rule in code sees the links, refuses by its name, and is asked about picking up, last") {
  TableSetup setup(glasshouse());
  std::vector<ZoneId> beside;
  std::vector<ZoneId> waited;
  const Rule asks = rule::own("asks", [&](const RuleQuestion& q) {
    beside = q.neighbours();
    waited = q.waits_for();
    return q.refuse({{"who", q.card}, {"where", q.zone}, {"why", std::string("so")}},
                    q.count > 1 ? "asks-much" : "");
  });
  const ZoneId a = setup.add({.name = "a", .rules = {.drop = asks}});
  const ZoneId b = setup.add({.name = "b"});
  const ZoneId hand = setup.add(
      {.name = "hand",
       .layout = {.kind = ColumnLayout{}, .longest = 3},
       .rules = {.pick = {.kind = PickKind::run, .link = rule::anything(), .when = rule::at_most(1)}}});
  for (std::uint32_t face = 1; face <= 2; ++face) (void)setup.table.create_card(hand, {.face = {face}});
  setup.links = {{a, b}};
  setup.waits = {{a, hand}};
  const Rulebook rules = setup.rulebook();
  const CardId low = setup.table.zone(hand)->cards[0];
  const CardId high = setup.table.zone(hand)->cards[1];
  const Verdict verdict = judge_drop(setup.table, rules, {high, 1}, a);
  CHECK(beside == std::vector<ZoneId>{b});
  CHECK(waited == std::vector<ZoneId>{hand});
  CHECK(verdict.rule == "asks");
  CHECK(judge_drop(setup.table, rules, {low, 2}, a).rule == "asks-much");
  REQUIRE(verdict.arguments.size() == 3);
  Phrases phrases = default_phrases();
  phrases.by_rule["asks"] = "{who} at {where}: {why}, {what}.";
  CHECK(describe(verdict, setup.table, phrases) == "Fern-2 at a: so, {what}.");
  CHECK(judge_pick(setup.table, rules, high).verdict);
  CHECK(judge_pick(setup.table, rules, low).verdict.reason == Reason::too_many);
  Rulebook off = rules;
  const CardId cards[] = {high};
  off.cards_off = cards;
  CHECK(judge_pick(setup.table, off, high).verdict.reason == Reason::switched_off);
  const ZoneId zones[] = {a};
  off = rules;
  off.zones_off = zones;
  CHECK(judge_drop(setup.table, off, {high, 1}, a).reason == Reason::switched_off);
  CHECK(judge_face(setup.table, off, {3}, a).reason == Reason::switched_off);
}

TEST_CASE("rules: every simple rule about two faces answers of jokers and hidden faces, above and below") {
  Table table(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                    .ranks = {"1", "2", "3"},
                    .jokers = {{"moth", "green"}, {"bee", ""}}}));
  const ZoneId hand = table.create_zone("hand");
  const ZoneId bed = table.create_zone("bed");
  const auto verdict = [&](const Rule& rule, const char* above, const char* below) {
    const auto face = [&](const char* text) {
      return text[0] == '?' ? hidden_face : *table.deck().find(text);
    };
    const CardId card = table.create_card(hand, {.face = face(above)});
    (void)table.create_card(bed, {.face = face(below)});
    std::vector<ZoneRules> zones(2);
    zones[1].drop = rule;
    return judge_drop(table, {.zones = zones}, {card, 1}, bed);
  };
  const Rule rules[] = {rule::rank_down(), rule::rank_up(), rule::same_suit(), rule::same_rank()};
  for (const Rule& rule : rules) {
    // The lowest rank is one above nothing, whatever number a joker has in place of a rank.
    for (const char* face : {"fern-1", "fern-2", "fern-3", "moth"}) {
      CHECK(verdict(rule, face, "moth").reason == Reason::no_rank);
      CHECK(verdict(rule, "moth", face).reason == Reason::no_rank);
      CHECK(verdict(rule, face, "?").reason == Reason::unknown_face);
      CHECK(verdict(rule, "?", face).reason == Reason::unknown_face);
    }
  }
  CHECK(verdict(rule::same_colour(), "fern-1", "moth").allowed());
  CHECK(verdict(rule::same_colour(), "moth", "fern-1").allowed());
  CHECK(verdict(rule::same_colour(), "poppy-1", "moth").reason == Reason::not_same_colour);
  CHECK(verdict(rule::same_colour(), "poppy-1", "bee").reason == Reason::no_rank);
  CHECK(verdict(rule::same_colour(), "bee", "poppy-1").reason == Reason::no_rank);
  for (const Rule& rule : {rule::of_suit(0), rule::rank_at_least(0)}) {
    CHECK(verdict(rule, "moth", "fern-1").reason == Reason::no_rank);
    CHECK(verdict(rule, "?", "fern-1").reason == Reason::unknown_face);
    CHECK(verdict(rule, "fern-1", "moth").allowed());
  }
}

TEST_CASE("rules: every neighbour is asked, whichever of them is empty, and each that is filled counts") {
  Table table(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
  std::vector<ZoneId> zones;
  for (const char* name : {"middle", "a", "b", "c", "hand"}) zones.push_back(table.create_zone(name));
  const CardId card = table.create_card(zones[4], {.face = *table.deck().find("fern-1")});
  const CardId three = table.create_card(zones[1], {.face = *table.deck().find("fern-3")});
  const std::vector<std::pair<ZoneId, ZoneId>> links{
      {zones[0], zones[1]}, {zones[2], zones[0]}, {zones[0], zones[3]}};
  const rules_detail::Neighbours found(links);
  std::vector<ZoneRules> of(5);
  for (const bool prepared : {false, true}) {
    Rulebook rules{.zones = of, .links = links};
    if (prepared) rules.neighbours = &found;
    // One filled neighbour, first, in the middle, last; the others are empty.
    for (std::size_t at = 1; at <= 3; ++at) {
      if (table.card(three)->zone != zones[at]) REQUIRE(table.move({three, 1}, zones[at]));
      of[0].drop = rule::each_neighbour(rule::rank_up());
      CHECK(judge_drop(table, rules, {card, 1}, zones[0]).reason == Reason::not_rank_up);
      of[0].drop = rule::each_neighbour(rule::same_suit());
      CHECK(judge_drop(table, rules, {card, 1}, zones[0]).allowed());
      of[0].drop = rule::neighbours(1);
      CHECK(judge_drop(table, rules, {card, 1}, zones[0]).allowed());
      of[0].drop = rule::neighbours(2);
      CHECK(judge_drop(table, rules, {card, 1}, zones[0]).found == 1);
    }
  }
}
