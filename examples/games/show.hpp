#pragma once
// The main function that the four games share: plays one round by itself and says what happens.
#include <fmt/format.h>

#include <cstdio>
#include <fstream>
#include <string>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "strategies.hpp"

namespace games {

/// PROGRAM TABLE [SEED [mouse|touch|keys [LOG]]]: what happens goes to standard output, what came in to LOG.
template <class Game, class Play>
int show(int argc, char** argv, Play play) {
  if (argc < 2) {
    fmt::print(stderr, "usage: {} TABLE [SEED [mouse|touch|keys [LOG]]]\n", argv[0]);
    return 2;
  }
  const auto setup = load_table(argv[1]);
  if (!setup) {
    for (const Problem& problem : setup.error()) fmt::print(stderr, "{}\n", describe(problem));
    return 3;
  }
  const std::uint64_t seed = argc > 2 ? std::stoull(argv[2]) : 1;
  const std::string word = argc > 3 ? argv[3] : "mouse";
  const Means means = word == "touch" ? Means::touch : word == "keys" ? Means::keys : Means::mouse;

  Game game(*setup, seed);
  Player player(game, means);
  play(game, player, *setup);
  for (const Event& event : game.told()) {
    const std::string text = describe(event, game.field());
    if (!text.empty()) fmt::print("{:7.2f} s  {}\n", event.time, text);
  }
  fmt::print("{}\n", game.score());
  if (argc > 4) {
    std::ofstream(argv[4]) << write_log(
        {.options = game.options(), .table = fingerprint(game.setup()), .inputs = game.log()}, game.setup());
  }
  return 0;
}

}  // namespace games
