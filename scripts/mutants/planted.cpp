// The switch of planted mistakes, read once from the environment: APSIDON_PLANTED is the number of the one that is on.
// With APSIDON_PLANTED_TRACE, a folder, a process leaves there the numbers of all that it has reached.
#include <unistd.h>

#include <atomic>
#include <cstdio>
#include <cstdlib>
#include <string>

namespace {

constexpr unsigned most = 1 << 16;

struct Trace {
  std::atomic<bool> reached[most] = {};
  std::string folder;

  Trace() {
    if (const char* to = std::getenv("APSIDON_PLANTED_TRACE")) folder = to;
  }
  ~Trace() {
    if (folder.empty()) return;
    const std::string name = folder + "/" + std::to_string(getpid());
    if (std::FILE* file = std::fopen(name.c_str(), "a")) {
      for (unsigned i = 0; i < most; ++i) {
        if (reached[i]) std::fprintf(file, "%u\n", i);
      }
      std::fclose(file);
    }
  }
};

}  // namespace

namespace apsidon {

__attribute__((visibility("default"))) bool planted(unsigned number) noexcept;

bool planted(unsigned number) noexcept {
  static const char* const chosen = std::getenv("APSIDON_PLANTED");
  static const unsigned on = chosen ? static_cast<unsigned>(std::atoi(chosen)) : 0;
  static Trace trace;
  if (number < most && !trace.folder.empty()) trace.reached[number] = true;
  return number == on;
}

}  // namespace apsidon
