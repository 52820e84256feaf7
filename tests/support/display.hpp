#pragma once
// A display of its own for a program with a window, and what a hand does there.
#include "support/process.hpp"

namespace apsidon::test {

/// Runs a program under an X server of its own, for so many seconds at most.
inline Outcome on_a_display(const std::vector<std::string>& words, int seconds = 60) {
  std::vector<std::string> all{std::to_string(seconds), "xvfb-run", "--auto-servernum",
                               "--server-args=-screen 0 1400x1100x24"};
  all.insert(all.end(), words.begin(), words.end());
  return run("timeout", all);
}

/// A way of the pointer in the window $W, in words of xdotool.
inline std::string moves(int x0, int y0, int x1, int y1) {
  std::string out;
  for (int i = 0; i <= 8; ++i) {
    out += "xdotool mousemove --window $W " + std::to_string(x0 + (x1 - x0) * i / 8) + " " +
           std::to_string(y0 + (y1 - y0) * i / 8) + "; sleep 0.03\n";
  }
  return out;
}

inline std::string drag(int x0, int y0, int x1, int y1) {
  return "xdotool mousemove --window $W " + std::to_string(x0) + " " + std::to_string(y0) +
         "; sleep 0.1; xdotool mousedown 1; sleep 0.05\n" + moves(x0, y0, x1, y1) +
         "xdotool mouseup 1; sleep 0.5\n";
}

}  // namespace apsidon::test
