#pragma once
// Counts what a piece of code takes from the heap.
#include <cstddef>

namespace apsidon::test {

/// How often this thread has called `operator new` since the program began.
std::size_t allocations();

/// How often it calls it in here.
template <class Work>
std::size_t allocations_in(Work work) {
  const std::size_t before = allocations();
  work();
  return allocations() - before;
}

}  // namespace apsidon::test
