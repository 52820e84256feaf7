// Functions that a table from a file names, and the game gives.
#include <catch2/catch.hpp>
#include <memory>

#include "apsidon/files/saved_game.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The rule stands in three places, and a zone that comes first names it; the goal and a layout have names
/// too.
TableSetup tower() {
  const auto setup = parse_table(R"({"apsidon": "table", "version": 1,
    "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"]},
    "zones": [
      {"name": "tower", "layout": {"own": "leaning"}, "longest": 3,
       "drop": {"all": [{"any": [{"own": "balanced"}, {"own": "balanced"}]}, "anything"]}},
      {"name": "yard", "layout": "spread", "longest": 3, "pick": {"cards": "any", "when": {"own": "balanced"}}}],
    "cards": {"yard": ["fern-1", "fern-2", "fern-3"]},
    "won": {"when": {"own": "built"}},
    "plans": [{"root": {"across": [{"zone": "tower"}, {"zone": "yard"}]}}]})",
                                 "tower.table.json");
  if (!setup) FAIL(describe(setup.error()[0]));
  return *setup;
}

CustomFunctions leaning() {
  return {.lay_out =
              [](const LayoutInput& in, std::span<Pose> poses) {
                for (std::size_t i = 0; i < poses.size(); ++i)
                  poses[i].centre = in.area.centre() + Vec2{static_cast<float>(i) * 7, 0};
                return LayoutReport{};
              },
          .least_size =
              [](const LayoutNeed&, Size card) {
                return Size{card.width * 1.5f, card.height};
              }};
}

}  // namespace

TEST_CASE("files: functions are bound by name wherever the file has the name, in any order") {
  TableSetup setup = tower();
  CHECK(setup.unbound() == std::vector<std::string>{"balanced", "built", "leaning"});
  const ZoneId tower_zone{1};
  const CardId first = setup.table.zone({2})->cards[0];
  const Verdict refused = judge_drop(setup.table, setup.rulebook(), {first, 1}, tower_zone);
  CHECK(refused.reason == Reason::unbound);
  CHECK(describe(refused, setup.table).find("'balanced' has no function") == 0);
  std::size_t asked = 0;
  setup.bind("balanced", [&](const RuleQuestion& q) {
    ++asked;
    return setup.table.deck().rank_of(q.face) < 2 ? Verdict{} : q.refuse({{"rank", 3}});
  });
  setup.bind("leaning", leaning());
  CHECK(setup.unbound() == std::vector<std::string>{"built"});
  setup.bind("built", [](const RuleQuestion& q) {
    return q.table.zone({1})->cards.size() == 2 ? Verdict{} : Verdict{.reason = Reason::own_rule};
  });
  CHECK(setup.unbound().empty());
  // A server's bare table and a playfield ask the same functions.
  CHECK(judge_drop(setup.table, setup.rulebook(), {first, 1}, tower_zone).allowed());
  CHECK(judge_pick(setup.table, setup.rulebook(), setup.table.zone({2})->cards[2]).verdict.reason ==
        Reason::own_rule);
  CHECK(asked >= 2);
  Hand h(setup, {.window = {900, 500}});
  for (int i = 0; i < 2; ++i) {
    const CardId card = h.cards("yard")[0];
    REQUIRE(h.field.moves().make({.run = {card, 1}, .from = {2}, .to = tower_zone}));
    h.settle();
  }
  CHECK(h.field.moves().standing() == Standing::won);
  CHECK(h.middle(h.cards("tower")[1]).x - h.middle(h.cards("tower")[0]).x == Approx(7));
}

TEST_CASE("files: a name that the table has not, and an empty function, are refused with what is expected") {
  TableSetup setup = tower();
  const auto yes = [](const RuleQuestion&) { return Verdict{}; };
  CHECK_THROWS_WITH(
      setup.bind("balanced-", yes),
      "bind 'balanced-': the table names no such rule or goal in code: 'balanced', 'built' is expected");
  CHECK_THROWS_WITH(setup.bind("built", leaning()),
                    "bind 'built': the table names no such layout in code: 'leaning' is expected");
  CHECK_THROWS_WITH(setup.bind("built", RuleFunction{}),
                    "bind 'built': the function is empty: one is expected");
  CHECK_THROWS_WITH(setup.bind("leaning", CustomFunctions{}),
                    "bind 'leaning': lay_out and least_size are expected");
  CHECK(setup.unbound().size() == 3);
  TableSetup plain(glasshouse());
  CHECK_THROWS_WITH(plain.bind("any", yes),
                    "bind 'any': the table names no rule or goal in code: none is expected");
  CHECK(plain.unbound().empty());
}

TEST_CASE(
    "files: a saved game goes on with the functions of the table that is handed in, and as it was without") {
  TableSetup setup = tower();
  setup.bind("balanced", [](const RuleQuestion&) { return Verdict{}; });
  setup.bind("leaning", leaning());
  setup.bind("built", [](const RuleQuestion&) { return Verdict{.reason = Reason::own_rule}; });
  const PlayfieldOptions options{.window = {900, 500}};
  SavedGame game{.setup = setup, .log = {.options = options}};
  Playfield field(setup, options);
  field.set_recorder(game.recorder());
  REQUIRE(field.moves().make({.run = {setup.table.zone({2})->cards[0], 1}, .from = {2}, .to = {1}}));
  const std::string saved = write_game(game, field);
  const auto alone = parse_game(saved, "x");
  REQUIRE(alone);
  CHECK(alone->field.table().zone({1})->cards.size() == 1);
  auto again = parse_game(saved, "x", &setup);
  REQUIRE(again);
  const CardId next = again->field.table().zone({2})->cards[0];
  CHECK(again->field.moves().make({.run = {next, 1}, .from = {2}, .to = {1}}).allowed());
}
