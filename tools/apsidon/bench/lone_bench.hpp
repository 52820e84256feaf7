#pragma once
// The bench with a single card, for whoever tries one out.
#include <string>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_window.hpp"

namespace apsidon::tool {

struct LoneBenchOptions {
  std::string face = {};  ///< of the deck; empty: its first
  Size window = {1280, 800};
  Feel feel = {};
  int frames = 0;  ///< after which it ends; 0: when it is closed
};

/// Until the window is closed. Throws Error where there is no display.
void show_lone_card(const Deck& deck, const LoneBenchOptions& options);

}  // namespace apsidon::tool
