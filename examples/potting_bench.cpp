// PottingBench: a patience. The logic is in games/potting_bench.hpp; this plays a round by itself.
#include "games/show.hpp"

int main(int argc, char** argv) {
  return games::show<games::PottingBench>(argc, argv, [](auto& game, auto& player, const auto& setup) {
    games::play(game, player, setup.rulebook());
  });
}
