#pragma once
// A display of its own for a program with a window, and what a hand does there.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "support/allocations.hpp"
#include "support/process.hpp"

namespace apsidon::test {

/// So many times longer a hand waits, and is waited for, where a sanitizer makes the window slow.
inline constexpr int slower = keeps_freed_memory ? 4 : 1;

/// Runs a program under an X server of its own, for so many seconds at most.
inline Ran on_a_display(const std::vector<std::string>& words, int seconds = 60) {
  std::vector<std::string> all{std::to_string(seconds * slower), "xvfb-run", "--auto-servernum",
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

/// `apsidon play` in a window on a display of its own; `act` is what a hand does meanwhile, in words of
/// xdotool, of which each line is one, or a command of the shell.
inline Ran played(const std::string& words, const std::string& act) {
  const std::string script =
      "sleep() { command sleep $(awk \"BEGIN { print $1 * " + std::to_string(slower) +
      " }\"); }\nopenbox >/dev/null 2>&1 &\nsleep 0.7\n" + quoted(tool_program()) + " play " + words +
      " &\nplay=$!\nfor i in $(seq 100); do W=$(xdotool search --onlyvisible --name '^Apsidon' | tail -1); "
      "[ -n \"$W\" ] && break; sleep 0.1; done\nsleep 0.7\n" +
      act + "\nsleep 0.6\nkill -TERM $play\nwait $play\n";
  return on_a_display({"sh", "-c", script});
}

/// The pointer goes there, and a button may go down or up; with time enough for the window to see each in a
/// frame of its own.
inline std::string at(int x, int y, const std::string& button = "") {
  return "xdotool mousemove --window $W " + std::to_string(x) + " " + std::to_string(y) + "; sleep 0.4\n" +
         (button.empty() ? "" : "xdotool " + button + " 1; sleep 0.4\n");
}

/// The kinds of events that a recorded session has told, each with its card's face or its zone.
inline std::vector<std::string> told(const std::string& table, const std::string& log) {
  const auto replayed = tool({"replay", table, log, "--format", "json"});
  CAPTURE(replayed.err);
  REQUIRE(replayed.code == 0);
  std::vector<std::string> kinds;
  const auto json = nlohmann::json::parse(replayed.out);
  for (const auto& event : json["events"]) kinds.push_back(event["event"]);
  return kinds;
}

/// A click that the window sees in a frame of its own, or in two.
inline std::string click(int x, int y) {
  return "xdotool mousemove --window $W " + std::to_string(x) + " " + std::to_string(y) +
         "; sleep 0.12; xdotool click 1; sleep 0.2\n";
}

}  // namespace apsidon::test
