// A table in a program that has its own SDL window, renderer and loop: SdlInputs makes inputs of its events,
// SdlPainter draws the frame, and all else is the program's.
#include <SDL.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_inputs.hpp"
#include "apsidon/sdl/sdl_painter.hpp"

/// [FRAMES]: ends after so many.
int main(int argc, char** argv) {
  const int frames = argc > 1 ? std::atoi(argv[1]) : -1;
  if (SDL_Init(SDL_INIT_VIDEO) != 0) return std::puts(SDL_GetError()), 1;
  SDL_Window* window = SDL_CreateWindow("Two hands", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, 900, 600,
                                        SDL_WINDOW_RESIZABLE);
  SDL_Renderer* renderer = window ? SDL_CreateRenderer(window, -1, 0) : nullptr;
  if (!renderer) return std::puts(SDL_GetError()), 1;
  {
    apsidon::TableSetup setup(apsidon::standard_deck());
    const auto hand = [&](const char* name) {
      return setup.add({.name = name,
                        .layout = {.kind = apsidon::HandLayout{}, .longest = 9},
                        .rules = {.pick = {.kind = apsidon::PickKind::any},
                                  .drop = apsidon::rule::anything(),
                                  .inserts = true},
                        .handling = {.hover = apsidon::HoverKind::lift}});
    };
    const apsidon::ZoneId upper = hand("upper"), lower = hand("lower");
    for (std::uint32_t i = 1; i <= 7; ++i) setup.table.create_card(lower, {.face = {7 * i}});
    setup.plans = {{.root = apsidon::down({apsidon::zone(upper, 1), apsidon::zone(lower, 1)})}};

    apsidon::SdlInputs inputs(window);
    apsidon::SdlPainter painter(renderer, setup.table.deck());
    apsidon::Playfield field(setup, {.window = inputs.size().window, .start_time = inputs.now()});
    field.performances().deal();
    std::uint64_t drawn = 0;
    int shown = 0;
    for (bool running = true; running && shown != frames;) {
      // Until something is due, or comes in; -1: nothing is.
      const double wait = field.next_due() - inputs.now();
      const int milliseconds = frames >= 0 || !(wait > 0) ? 16
                               : std::isinf(wait)         ? -1
                                                          : static_cast<int>(wait * 1000) + 1;
      for (SDL_Event event; SDL_WaitEventTimeout(&event, milliseconds) != 0;) {
        running = running && event.type != SDL_QUIT;
        if (const auto input = inputs.read(event)) (void)field.input(*input);
        if (SDL_HasEvents(SDL_FIRSTEVENT, SDL_LASTEVENT) == SDL_FALSE) break;
      }
      while (const auto event = field.next_event(inputs.now())) {
        if (event->kind == apsidon::EventKind::dropped) std::puts("a card changed hands");
      }
      if (field.frame().revision == drawn && frames < 0) continue;
      drawn = painter.draw(field.frame()) ? field.frame().revision : 0;
      SDL_RenderPresent(renderer);
      ++shown;
    }
  }
  SDL_DestroyRenderer(renderer);
  SDL_DestroyWindow(window);
  SDL_Quit();
  return 0;
}
