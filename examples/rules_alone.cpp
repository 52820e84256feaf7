// A server that has no screen: it judges the moves that clients send and makes those that are allowed, with
// the rules alone. The same rules in the client say the same.
#include <array>
#include <cstdio>

#include "apsidon/cards/table.hpp"
#include "apsidon/rules/describe.hpp"
#include "apsidon/rules/move.hpp"

using namespace apsidon;

int main() {
  Table table{Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}})};
  const ZoneId shelf = table.create_zone("shelf"), bed = table.create_zone("bed");
  for (const char* face : {"poppy-2", "fern-1", "fern-2", "poppy-1"}) {
    table.create_card(shelf, {.face = *table.deck().find(face)});
  }
  const Rule fits = rule::any({rule::rank_on_empty(0), rule::all({rule::same_suit(), rule::rank_up()})});
  const std::array<ZoneRules, 2> zones{ZoneRules{.pick = {.kind = PickKind::any}}, ZoneRules{.drop = fits}};
  const Rulebook rules{.zones = zones};

  // What came in from outside: any card, at any time, known by its id.
  for (const std::uint32_t id : {3u, 2u, 2u, 1u, 3u, 99u}) {
    const CardId card{id};
    const Move move{.run = {.first = card, .count = 1}, .from = shelf, .to = bed};
    const MoveReport report = apply_move(table, rules, move);
    const Card* known = table.card(card);
    std::printf("%-8s %s\n", known ? table.deck().text(known->face).c_str() : "?",
                describe(report.verdict, table).c_str());
  }
  std::printf("In the bed: %zu. Moves that are left: %zu.\n", table.zone(bed)->cards.size(),
              legal_moves(table, rules).size());
}
