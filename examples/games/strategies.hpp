#pragma once
// How somebody without much thought plays each of the four games to its end.
#include <fmt/format.h>

#include "market_stall.hpp"
#include "player.hpp"
#include "potting_bench.hpp"
#include "seed_drawer.hpp"
#include "trellis.hpp"

namespace games {

/// What to do next on the potting bench; nothing when all that is left goes round in circles.
inline std::optional<Move> next_move(const Table& table, const Rulebook& rules) {
  const auto name = [&](ZoneId id) -> const std::string& { return table.zone(id)->name; };
  const auto is = [&](ZoneId id, const char* what) { return name(id).starts_with(what); };
  std::optional<Move> best;
  int best_worth = 0;
  for (const Move& move : legal_moves(table, rules)) {
    int worth = 0;
    if (move.kind != MoveKind::run) {
      worth = 1;
    } else if (is(move.from, "bed")) {
      continue;
    } else if (is(move.to, "bed")) {
      worth = 6;
    } else if (is(move.from, "column") && is(move.to, "column")) {
      const std::size_t place = table.card(move.run.first)->index;
      const bool uncovers = place > 0 && !table.card(table.zone(move.from)->cards[place - 1])->face_up;
      const bool empties = place == 0 && !table.zone(move.to)->cards.empty();
      if (uncovers) worth = 5;
      if (empties) worth = 4;
    } else if (is(move.to, "column")) {
      worth = table.zone(move.to)->cards.empty() ? 2 : 3;
    } else if (is(move.from, "waste") && is(move.to, "pot") &&
               table.zone(*table.find_zone("stock"))->cards.empty()) {
      worth = 1;
    }
    if (worth <= best_worth) continue;
    best = move;
    best_worth = worth;
  }
  return best;
}

inline void play(PottingBench& game, Player& player, const Rulebook& rules) {
  while (!game.over()) {
    player.settle();
    const auto move = next_move(game.field().table(), rules);
    if (!move) return;
    const bool done = move->kind == MoveKind::draw      ? player.tap(move->from)
                      : move->kind == MoveKind::recycle ? player.tap(move->to)
                                                        : player.move(move->run.first, move->to);
    if (!done) return;
  }
}

inline void play(SeedDrawer& game, Player& player) {
  const ZoneId drawer = *game.field().table().find_zone("drawer");
  bool lantern = true;
  while (!game.over()) {
    player.settle();
    if (lantern) {
      lantern = false;
      player.tap(*game.field().where().find_panel("lantern"));
      player.settle();
    }
    // One set after another, as if everything had been seen.
    const std::vector<CardId> cards = game.field().table().zone(drawer)->cards;
    if (cards.empty()) return;
    const Deck& deck = game.field().table().deck();
    const FaceId first = game.field().table().card(cards.front())->face;
    for (const CardId card : cards) {
      if (deck.belong_together(first, game.field().table().card(card)->face) && !player.tap(card)) return;
    }
    player.wait(1.2);
  }
}

inline void play(MarketStall& game, Player& player) {
  const ZoneId compost = *game.field().table().find_zone("compost");
  while (!game.over()) {
    player.settle();
    if (game.over()) return;
    const std::vector<Move> moves = game.field().rules().legal_moves();
    if (moves.empty()) return;
    const auto sale =
        std::find_if(moves.begin(), moves.end(), [&](const Move& m) { return m.to != compost; });
    const bool done = sale != moves.end() ? player.move(sale->run.first, sale->to)
                                          : player.flick(moves.front().run.first, compost);
    if (!done) return;
  }
}

inline void play(Trellis& game, Player& player) {
  while (!game.over()) {
    player.settle();
    if (game.over()) return;
    const std::vector<Move> moves = game.field().rules().legal_moves();
    if (moves.empty() || !player.move(moves.front().run.first, moves.front().to)) return;
  }
}

}  // namespace games
