// MarketStall: cards are offered to stalls. The logic is in games/market_stall.hpp; this plays a round by
// itself.
#include "games/show.hpp"

int main(int argc, char** argv) {
  return games::show<games::MarketStall>(
      argc, argv, [](auto& game, auto& player, const auto&) { games::play(game, player); });
}
