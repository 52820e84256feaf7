#pragma once
// A game in a window: the loop, and what every game has, a new round, undo and a line that helps.
#include <optional>

#include <SDL.h>

#include "apsidon/sdl/sdl_window.hpp"
#include "game.hpp"

namespace games {

/// Until the window is closed, or for so many frames; the title says how the game stands, and what keys do.
template <class Game>
int in_window(const TableSetup& setup, const char* name, std::uint64_t seed, std::uint64_t frames = 0) {
  SdlWindow window({.title = name});
  std::optional<Game> game;
  const auto begin = [&] { game.emplace(setup, seed++, window.options()); };
  window.set_event_filter([&](const SDL_Event& event) {
    if (event.type != SDL_KEYDOWN || event.key.repeat != 0) return false;
    if (event.key.keysym.sym == SDLK_n) begin();
    if (event.key.keysym.sym == SDLK_F11) window.set_full_screen(!window.full_screen());
    return event.key.keysym.sym == SDLK_n || event.key.keysym.sym == SDLK_F11;
  });
  begin();
  std::string title;
  while (window.next(game->field()) && (frames == 0 || window.frames() < frames)) {
    game->go_to(window.now());
    const std::string now =
        std::string(name) + ": " + game->score() +
        (game->over() ? " - N: play again" : " - N: new round, Ctrl+Z: undo, F11: whole screen");
    if (now != title) SDL_SetWindowTitle(window.window(), now.c_str());
    title = now;
    if (frames > 0) window.redraw();  // unattended: every frame, also where nothing moves
    window.show(game->field());
  }
  return 0;
}

}  // namespace games
