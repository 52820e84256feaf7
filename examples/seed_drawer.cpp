// SeedDrawer: a matching game in threes. The logic is in games/seed_drawer.hpp; this plays a round by itself.
#include "games/show.hpp"

int main(int argc, char** argv) {
  return games::show<games::SeedDrawer>(
      argc, argv, [](auto& game, auto& player, const auto&) { games::play(game, player); });
}
