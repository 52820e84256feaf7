// One way in: an input handed to `call` is what the call of its group is, and its text is all that another
// language needs.
#include <apsidon/apsidon.hpp>
#include <catch2/catch.hpp>
#include <string>
#include <type_traits>
#include <utility>
#include <vector>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"
#include "support/random.hpp"
#include "support/session.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

template <class Field>
concept may_change = requires(Field field) {
  field.gate().close("menu");
}
|| requires(Field field) { field.moves().undo(); }
|| requires(Field field) { field.where().scroll_to(ZoneId{1}, 0.0f); }
|| requires(Field field) { field.edits(); };

// Of a const playfield a group can only be asked, and nobody has a copy of it that can more.
static_assert(may_change<Playfield&>);
static_assert(!may_change<const Playfield&>);
static_assert(!std::is_copy_constructible_v<GateGroup> && !std::is_move_constructible_v<GateGroup>);

TableSetup demo() { return *load_table(source("data/potting-bench-start.table.json")); }

/// What a program in another language does: text in, what came of it out.
Outcome say(Playfield& field, const std::string& text) {
  const auto input = parse_input(text, demo());
  REQUIRE(input);
  return field.call(*input);
}

}  // namespace

TEST_CASE("play: what a session recorded, handed to call one by one at its times, comes to the same") {
  for (int seed = 0; seed < 40; ++seed) {
    Random r(static_cast<std::uint64_t>(seed));
    const TableSetup setup = with_rules_in_code(r);
    Playfield grouped(setup), called(setup);
    std::vector<Input> taken;
    grouped.set_recorder([&](const Input& input) { taken.push_back(input); });
    const std::vector<Move> moves = grouped.rules().legal_moves();
    Verdict moved;
    if (!moves.empty()) moved = grouped.moves().make(moves[r.below(moves.size())]);
    const CountdownId timer = grouped.time().start_timer(3);
    const Verdict undone = grouped.moves().undo();
    grouped.gate().close("menu");
    const PerformanceId dealt = grouped.performances().perform(wait(1));
    const Verdict unknown = grouped.switches().switch_off(CardId{9999}, "gone");
    const Outcome made = grouped.edits().create(setup.table.zones()[0].id, {.face = {1}, .face_up = true});

    std::vector<Outcome> outcomes;
    for (const Input& input : taken) {
      const auto read = parse_input(write_input(input, setup), setup);
      REQUIRE(read);
      CHECK(*read == input);
      if (name_of(input) == "own") continue;  // what the game answered: it does so again
      outcomes.push_back(called.call(*read));
    }
    CAPTURE(seed, outcomes.size());
    auto next = outcomes.begin();
    if (!moves.empty()) CHECK((next++)->verdict == moved);
    CHECK((next++)->id == timer.value);
    CHECK((next++)->verdict == undone);
    CHECK((next++)->used);
    CHECK((next++)->id == dealt.value);
    CHECK((next++)->verdict == unknown);
    CHECK(next->verdict == made.verdict);
    CHECK(next->card == made.card);
    CHECK(fingerprint(called) == fingerprint(grouped));
    CHECK(called.frame().items == grouped.frame().items);
  }
}

TEST_CASE("play: a game is played by text alone, and a text that is wrong says where") {
  Playfield field(demo());
  CHECK(say(field, R"({"close_gate": "menu"})").used);
  CHECK_FALSE(field.gate().is_open());
  CHECK(say(field, R"({"open_gate": "menu"})").used);
  CHECK(say(field, R"({"undo": true})").verdict.reason == Reason::nothing_to_undo);
  const auto moves = field.rules().legal_moves();
  REQUIRE_FALSE(moves.empty());
  std::string move;
  Playfield elsewhere = field;
  elsewhere.set_recorder([&](const Input& input) { move = write_input(input, demo()); });
  CHECK(elsewhere.moves().make(moves.front()));
  CHECK(say(field, move).verdict);
  CHECK(field.moves().can_undo());
  for (const auto& [text, expected] : std::vector<std::pair<std::string, std::string>>{
           {"{", "this is not JSON"},
           {"[]", "no input: one of"},
           {R"({"fly": 1})", "'close_gate'"},
           {R"({"undo": true, "time": "now"})", "a number is expected"},
           {R"({"undo": true, "undo": true})", "twice"}}) {
    const auto read = parse_input(text, demo());
    REQUIRE_FALSE(read);
    CAPTURE(text, describe(read.error()[0]));
    CHECK_THAT(describe(read.error()[0]), Catch::Contains(expected));
  }
}

TEST_CASE("play: groups act on their own playfield, whatever was copied, moved or gone back to") {
  Playfield first(demo());
  GateGroup& gate = first.gate();
  Playfield copy = first;
  copy.gate().close("copy");
  CHECK(gate.is_open());
  Playfield moved = std::move(first);  // what it holds goes with it
  gate.close("moved");
  CHECK(moved.gate().closed_for("moved"));
  CHECK_FALSE(moved.gate().closed_for("copy"));
  moved.restore(copy);
  CHECK(&moved.gate() == &gate);
  CHECK(gate.closed_for("copy"));
  gate.open("copy");
  CHECK(gate.is_open());
  CHECK_FALSE(copy.gate().is_open());
  const Playfield& asked = copy;
  CHECK(asked.gate().closed_for("copy"));
}
