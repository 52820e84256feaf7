// Trellis: a lattice is filled. The logic is in games/trellis.hpp; this plays a round by itself.
#include "games/show.hpp"

int main(int argc, char** argv) {
  return games::show<games::Trellis>(
      argc, argv, [](auto& game, auto& player, const auto&) { games::play(game, player); });
}
