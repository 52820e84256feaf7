// What the four games refuse, and how that reads: to a player a sentence, to a programmer the rule's code.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <iostream>
#include <map>
#include <regex>
#include <set>

#include "apsidon/files/table_file.hpp"
#include "games/strategies.hpp"
#include "support/process.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// By reason: all sentences that were said for it.
using Said = std::map<Reason, std::set<std::string>>;

/// All that is refused on the table as it lies now.
void ask_all(const Playfield& field, Said& said) {
  const Table& table = field.table();
  const auto hear = [&](const Verdict& v) {
    if (!v) said[v.reason].insert(describe(v, table));
  };
  for (const Zone& from : table.zones()) {
    hear(field.rules().judge_stock(from.id));
    for (const CardId card : from.cards) {
      const PickVerdict pick = field.rules().judge_pick(card);
      hear(pick.verdict);
      if (!pick.verdict) continue;
      for (const Zone& to : table.zones()) hear(field.rules().judge_drop(pick.run, to.id));
    }
  }
}

/// Plays a game, asking before every press, and what was refused to the player himself.
template <class Game, class Play>
Said refusals(const std::string& name, std::uint64_t seed, Play play) {
  const auto setup = load_table(source("data/" + name + "-start.table.json"));
  REQUIRE(setup.has_value());
  Game game(*setup, seed);
  games::Player player(game, games::Means::mouse);
  play(game, player);
  Playfield again(game.setup(), game.options());
  Said said;
  for (const Input& input : game.log()) {
    const auto* pointer = std::get_if<PointerInput>(&input);
    if (pointer && pointer->phase == PointerPhase::down) ask_all(again, said);
    (void)again.input(input);
    again.advance_to(time_of(input));
  }
  ask_all(again, said);
  for (const Event& e : game.told()) {
    if (!e.verdict) said[e.verdict.reason].insert(describe(e.verdict, game.field().table()));
  }
  return said;
}

void check_sentences(const std::string& name, const Said& said, const std::set<Reason>& expected) {
  std::cout << name << ": refusals";
  for (const auto& [reason, sentences] : said) {
    std::cout << " " << code_of(reason) << " " << sentences.size();
    CHECK(code_of(reason) != "unknown-reason");
    for (const std::string& s : sentences) {
      CAPTURE(s);
      CHECK(std::isupper(static_cast<unsigned char>(s.front())) != 0);
      CHECK(s.back() == '.');
      CHECK(s.size() <= 110);
      // Cards and zones have names, and what is wanted is told.
      static const std::regex unnamed("[{}?]|  |the zone|\\b[Cc]ard [0-9]|\\b[Nn]o card\\b");
      CHECK_FALSE(std::regex_search(s, unnamed));
    }
  }
  std::cout << "\n";
  for (const Reason reason : expected) {
    CAPTURE(name, code_of(reason));
    CHECK(said.contains(reason));
  }
}

}  // namespace

TEST_CASE("examples: every refusal of the four games is a sentence that names what is wrong") {
  const auto play = [](auto& game, auto& player) { games::play(game, player); };
  const auto setup = load_table(source("data/potting-bench-start.table.json"));
  REQUIRE(setup.has_value());
  const Rulebook rules = setup->rulebook();
  check_sentences(
      "potting bench",
      refusals<games::PottingBench>("potting-bench", 4,
                                    [&](auto& game, auto& player) { games::play(game, player, rules); }),
      {Reason::empty_zone, Reason::pick_nothing, Reason::not_top, Reason::face_down, Reason::not_rank_down,
       Reason::not_rank_up, Reason::not_same_suit, Reason::not_same_colour, Reason::not_rank_on_empty,
       Reason::too_many});
  check_sentences("seed drawer", refusals<games::SeedDrawer>("seed-drawer", 1, play),
                  {Reason::pick_nothing, Reason::no_stock});
  check_sentences("market stall", refusals<games::MarketStall>("market-stall", 11, play),
                  {Reason::pick_nothing, Reason::drop_nothing, Reason::wrong_suit, Reason::too_low});
  check_sentences("trellis", refusals<games::Trellis>("trellis", 1, play),
                  {Reason::not_same_suit, Reason::not_empty, Reason::needs_neighbours});
}
