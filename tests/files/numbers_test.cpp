// Numbers, seats, turns, named moves and badges of a table file, and of single inputs: what is read, and what
// is said of each mistake.
#include <catch2/catch.hpp>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A table whose stall has this rule, with these keys beside.
std::string table_with(const std::string& drop, const std::string& more = "") {
  return R"({"apsidon": "table", "version": 1,
    "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"]},
    "seats": ["south", {"name": "north", "numbers": {"points": 4}}],
    "zones": [{"name": "hand", "seat": "south", "layout": "hand", "longest": 3, "pick": "any"},
              {"name": "stall", "numbers": {"room": 2}, "drop": )" +
         drop + R"(}],
    "cards": {"hand": [{"face": "fern-1", "numbers": {"worn": 3}}, "fern-2"]},
    "plans": [{"root": {"across": [{"zone": "hand"}, {"zone": "stall"}]}}])" +
         (more.empty() ? "" : ", " + more) + "}";
}

std::string problem(const std::string& text) {
  const auto table = parse_table(text, "t.json");
  return table ? "" : describe(table.error()[0]);
}

}  // namespace

TEST_CASE("files: a table from a file counts, and is played, without any code") {
  const auto setup = parse_table(
      table_with(
          R"({"number": {"name": "worn", "of": "card", "at_most": {"name": "room", "of": {"zone": "stall"}}}})",
          R"("numbers": {"redeals": 1}, "turn": ["north"], "badges": [{"number": "worn", "at": "top-right"}],
                    "won": {"when": {"number": {"name": "cards", "of": {"zone": "stall"}, "at_least": 1}}},
                    "sentences": {"worn": "{card} is worn out: {found} of {wanted}."})"),
      "t.json");
  if (!setup) FAIL(describe(setup.error()[0]));
  Hand h(*setup);
  const Table& table = h.field.table();
  CHECK(table.number("points", *table.find_seat("north")) == 4);
  CHECK(table.is_on_turn(*table.find_seat("north")));
  CHECK(table.number("redeals") == 1);
  CHECK(table.zone(h.zone("hand"))->seat == *table.find_seat("south"));
  CHECK(h.field.frame().badges.size() == 1);
  const CardId worn = h.cards("hand")[0];
  const Verdict refused =
      h.field.moves().make({.run = {worn, 1}, .from = h.zone("hand"), .to = h.zone("stall")});
  CHECK(describe(refused, h.field) == "Fern-1 is worn out: 3 of 2.");
  REQUIRE(h.field.edits().set_number("worn", 2, worn));
  REQUIRE(h.field.moves().make({.run = {worn, 1}, .from = h.zone("hand"), .to = h.zone("stall")}));
  h.settle();
  CHECK(h.count(EventKind::won) == 1);
}

TEST_CASE("files: of numbers, seats and moves that make no sense each is said with its place") {
  CHECK(problem(table_with(R"("on-turn")")) == "");
  CHECK(problem(table_with(R"({"number": {"name": "worn"}})"))
            .find("one of 'at_least', 'at_most' and 'equal'") != std::string::npos);
  CHECK(problem(table_with(R"({"number": {"name": "worn", "at_least": 1, "at_most": 2}})"))
            .find("compared twice") != std::string::npos);
  CHECK(problem(table_with(R"({"number": {"name": "worn", "of": "crad", "equal": 1}})")).find("'card'") !=
        std::string::npos);
  CHECK(problem(table_with(R"({"number": {"name": "worn", "of": {"seat": "nort"}, "equal": 1}})"))
            .find("'north'") != std::string::npos);
  CHECK(problem(table_with(R"({"number": {"name": "worn", "of": {"zone": "stal"}, "equal": 1}})"))
            .find("'stall'") != std::string::npos);
  CHECK(problem(table_with(R"({"number": {"name": "worn", "equal": 1000000001}})")).find("1000000000") !=
        std::string::npos);
  CHECK(problem(table_with(R"({"number": 3})")).find("nothing to compare") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("numbers": {"": 1})")).find("no name") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("numbers": {"a": 1.5})")).find("whole") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("turn": ["west"])")).find("seat 'west'") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("badges": [{"number": "worn", "at": "top"}])"))
            .find("'top-left'") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("moves": [{"name": "knock", "when": "rank-down"}])"))
            .find("asks about a card") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("moves": [{"name": "knock"}, {"name": "knock"}])"))
            .find("two named moves") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("won": {"when": "on-empty"})")).find("asks about a card") !=
        std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("ids": {"cards": {}, "last": 1})"))
            .find("0 ids for the 2 cards") != std::string::npos);
  // What was called numbers, and a goal's function by itself, is said with what it is now.
  CHECK(problem(table_with(R"("own-zone")", R"("numbers": {"cards": {"hand": [1, 2]}, "last": 2})"))
            .find("/numbers/cards") != std::string::npos);
  CHECK(problem(table_with(R"("own-zone")", R"("won": {"own": "late"})")).find("goal 'own'") !=
        std::string::npos);
}

TEST_CASE("files: a number, the turn and a named move come in as text, and are written as they came") {
  const auto setup = parse_table(table_with(R"("anything")", R"("moves": [{"name": "knock"}])"), "t.json");
  REQUIRE(setup);
  TableSetup bound = *setup;
  bound.bind("knock", FollowFunction([](const FollowQuestion& q) {
               return std::vector<Edit>{
                   {.kind = EditKind::set_number, .name = "knocks", .value = q.table.number("knocks") + 1}};
             }));
  Playfield field(bound);
  for (const std::string text :
       {R"({"time":0.0,"edit":"set-number","name":"points","value":7,"seat":"north"})",
        R"({"time":0.0,"edit":"set-turn","seats":["south","north"]})",
        R"({"time":0.0,"move":{"kind":"named","named":0}})"}) {
    CAPTURE(text);
    const auto input = parse_input(text, *setup);
    REQUIRE(input);
    CHECK(write_input(*input, *setup) == text);
    CHECK(field.call(*input).verdict.allowed());
  }
  CHECK(field.table().number("points", *field.table().find_seat("north")) == 7);
  CHECK(field.table().turn().size() == 2);
  CHECK(field.table().number("knocks") == 1);
  CHECK_FALSE(parse_input(R"({"edit": "set-turn", "seats": ["west"]})", *setup));
}
