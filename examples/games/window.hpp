#pragma once
// A game in a window: the loop, and a round after the other.
#include <cstdio>
#include <limits>
#include <optional>
#include <utility>

#include <SDL.h>

#include "apsidon/sdl/sdl_window.hpp"
#include "game.hpp"

namespace games {

/// Until the window is closed, or for so many frames. The title says how the game stands; the sounds of the
/// game are written to standard output.
template <class Game>
int in_window(const TableSetup& setup, const char* name, std::uint64_t seed, std::uint64_t frames = 0) {
  SdlWindow window({.title = name});
  std::optional<Game> game;
  bool another = false;  // round was asked for by a key
  const auto begin = [&] {
    game.emplace(setup, seed++, window.options());
    game->set_sounds([](std::string_view sound) {
      std::printf("sound: %.*s\n", static_cast<int>(sound.size()), sound.data());
    });
  };
  window.set_event_filter([&](const SDL_Event& event) {
    if (event.type != SDL_KEYDOWN || event.key.repeat != 0) return false;
    if (event.key.keysym.sym == SDLK_n) another = true;
    if (event.key.keysym.sym == SDLK_F11) window.set_full_screen(!window.full_screen());
    return event.key.keysym.sym == SDLK_n || event.key.keysym.sym == SDLK_F11;
  });
  begin();
  std::string title;
  const auto latest = [&] { return frames > 0 ? window.now() : std::numeric_limits<double>::infinity(); };
  while (window.next(game->field(), latest()) && (frames == 0 || window.frames() < frames)) {
    game->go_to(window.now());
    if (game->asks_for_round() || std::exchange(another, false)) begin();
    const std::string now = std::string(name) + ": " + game->score();
    if (now != title) SDL_SetWindowTitle(window.window(), now.c_str());
    title = now;
    if (frames > 0) window.redraw();  // unattended: every frame, also where nothing moves
    window.show(game->field());
  }
  return 0;
}

}  // namespace games
