#include "shared/progress.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <cstdio>

namespace apsidon::tool {
namespace {

constexpr std::chrono::milliseconds at_first{500};
constexpr std::chrono::milliseconds between{100};

}  // namespace

Progress::Progress(std::string what, std::size_t steps)
    : what_(std::move(what)),
      steps_(steps),
      watched_(isatty(STDERR_FILENO) != 0),
      next_(Clock::now() + at_first) {}

Progress::~Progress() {
  if (shown_) fmt::print(stderr, "\r\x1b[K");
}

void Progress::step() {
  ++done_;
  if (!watched_ || Clock::now() < next_) return;
  next_ = Clock::now() + between;
  shown_ = true;
  fmt::print(stderr, "\r\x1b[K{} {} of {}", what_, done_, steps_);
  std::fflush(stderr);
}

}  // namespace apsidon::tool
