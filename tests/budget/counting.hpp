#pragma once
// What a piece of work costs, counted and not timed: the same on every machine and under every load.
#include <cstddef>
#include <cstdint>

namespace apsidon::test {

struct Cost {
  std::uint64_t steps = 0;  ///< basic blocks of the core and the library of files that were run through
  std::size_t bytes = 0;    ///< the most of the heap that was taken at once, beyond what was before
};

/// Begins to count, and gives what has been counted since.
void begin_counting();
Cost counted();

template <class Work>
Cost cost_of(Work work) {
  begin_counting();
  work();
  return counted();
}

}  // namespace apsidon::test
