#pragma once
// How far a long job is, for whoever watches it on a terminal.
#include <chrono>
#include <cstddef>
#include <string>

namespace apsidon::tool {

/// Says "frame 12 of 71" in one line that is overwritten; nothing where the messages do not go to a terminal,
/// and nothing of jobs that are done at once.
class Progress {
 public:
  Progress(std::string what, std::size_t steps);
  Progress(const Progress&) = delete;
  Progress& operator=(const Progress&) = delete;
  ~Progress();

  void step();

 private:
  using Clock = std::chrono::steady_clock;

  std::string what_;
  std::size_t steps_;
  std::size_t done_ = 0;
  bool watched_;
  bool shown_ = false;
  Clock::time_point next_;
};

}  // namespace apsidon::tool
