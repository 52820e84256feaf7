// The four demo games in a window, with mouse, touch, keys and controller.
#include <cstdio>
#include <string>

#include "apsidon/files/table_file.hpp"
#include "games/market_stall.hpp"
#include "games/potting_bench.hpp"
#include "games/seed_drawer.hpp"
#include "games/trellis.hpp"
#include "games/window.hpp"

/// GAME TABLE [SEED [FRAMES]]: with FRAMES it ends after so many.
int main(int argc, char** argv) {
  const std::string game = argc > 1 ? argv[1] : "";
  if (argc < 3)
    return std::puts(
               "usage: game_window potting-bench|seed-drawer|market-stall|trellis TABLE [SEED [FRAMES]]"),
           2;
  const auto setup = apsidon::load_table(argv[2]);
  if (!setup) return std::puts(describe(setup.error().front()).c_str()), 3;
  const std::uint64_t seed = argc > 3 ? std::stoull(argv[3]) : 1;
  const std::uint64_t frames = argc > 4 ? std::stoull(argv[4]) : 0;
  try {
    if (game == "potting-bench")
      return games::in_window<games::PottingBench>(*setup, "Potting bench", seed, frames);
    if (game == "seed-drawer")
      return games::in_window<games::SeedDrawer>(*setup, "Seed drawer", seed, frames);
    if (game == "market-stall")
      return games::in_window<games::MarketStall>(*setup, "Market stall", seed, frames);
    if (game == "trellis") return games::in_window<games::Trellis>(*setup, "Trellis", seed, frames);
  } catch (const apsidon::Error& e) {
    return std::puts(e.what()), 1;  // no display
  }
  return std::printf("'%s' is no game: potting-bench, seed-drawer, market-stall or trellis is expected\n",
                     game.c_str()),
         2;
}
