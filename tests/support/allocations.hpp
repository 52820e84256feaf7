#pragma once
// Counts what a piece of code takes from the heap.
#include <cstddef>

namespace apsidon::test {

/// Under the address sanitizer what was freed is kept for a while: how much memory a process takes says
/// nothing of it then.
#if defined(__SANITIZE_ADDRESS__)
inline constexpr bool keeps_freed_memory = true;
#else
inline constexpr bool keeps_freed_memory = false;
#endif

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
