// Pairs that sell themselves: what follows a move is written once, and a bare table, a search that looks
// ahead, a playfield and its undo have it.
#include <cstdio>
#include <vector>

#include "apsidon/play/describe.hpp"
#include "apsidon/play/moves_group.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/play/setup.hpp"
#include "apsidon/rules/move.hpp"

using namespace apsidon;

namespace {

/// Moves until everything is sold, each the first that sells something, or else the first of all.
std::vector<Move> solve(Table table, const Rulebook& rules, ZoneId sold) {
  std::vector<Move> way;
  while (standing_of(table, rules) == Standing::open && way.size() < 50) {
    const std::vector<Move> moves = legal_moves(table, rules);
    Move next = moves.front();
    for (const Move& move : moves) {
      Table ahead = table;
      if (!apply_move(ahead, rules, move).verdict) continue;
      if (ahead.zone(sold)->cards.size() == table.zone(sold)->cards.size()) continue;
      next = move;
      break;
    }
    (void)apply_move(table, rules, next);
    way.push_back(next);
  }
  return way;
}

}  // namespace

int main() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}}));
  const ZoneId shelf = setup.add({.name = "shelf",
                                  .layout = {.kind = SpreadLayout{}, .longest = 6},
                                  .rules = {.pick = {.kind = PickKind::any}}});
  const ZoneId stall = setup.add({.name = "stall",
                                  .layout = {.kind = ColumnLayout{}, .longest = 6},
                                  .rules = {.drop = rule::anything()}});
  const ZoneId sold =
      setup.add({.name = "box", .layout = {.kind = PileLayout{}, .longest = 6, .off_table = Facing::top}});
  setup.add_deck(shelf, {.face_up = true});
  setup.plans = {{.root = across({zone(shelf, 1), zone(stall)})}};
  setup.consequences = {{.in = {stall}, .cards = 2, .link = rule::same_rank(), .to = sold}};
  setup.won = goal::all_in({sold});

  Playfield field(setup);
  for (const Move& move : solve(setup.table, setup.rulebook(), sold)) {
    if (!field.moves().make(move)) return 1;
    while (const auto event = field.next_event(field.now() + 1)) {
      const std::string line = describe(*event, field);
      if (!line.empty()) std::printf("%s\n", line.c_str());
    }
  }
  (void)field.moves().undo();
  std::printf("Undone: %zu cards are sold, and %zu lie in the stall.\n",
              field.table().zone(sold)->cards.size(), field.table().zone(stall)->cards.size());
}
