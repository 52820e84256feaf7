#include "budget/counting.hpp"

#include <malloc.h>

#include <cstdlib>
#include <new>

namespace {

std::uint64_t steps = 0;
std::size_t taken = 0;
std::size_t most = 0;
std::size_t before = 0;

void* take(std::size_t size) noexcept {
  void* p = std::malloc(size > 0 ? size : 1);
  taken += p ? malloc_usable_size(p) : 0;
  most = taken > most ? taken : most;
  return p;
}

void give(void* p) noexcept {
  taken -= p ? malloc_usable_size(p) : 0;
  std::free(p);
}

}  // namespace

// What the compiler calls at each basic block of what is built with -fsanitize-coverage=trace-pc.
extern "C" void __sanitizer_cov_trace_pc() { ++steps; }

void apsidon::test::begin_counting() {
  steps = 0;
  before = most = taken;
}

apsidon::test::Cost apsidon::test::counted() { return {.steps = steps, .bytes = most - before}; }

void* operator new(std::size_t size) {
  if (void* p = take(size)) return p;
  throw std::bad_alloc();
}
void* operator new[](std::size_t size) { return operator new(size); }
void* operator new(std::size_t size, const std::nothrow_t&) noexcept { return take(size); }
void* operator new[](std::size_t size, const std::nothrow_t&) noexcept { return take(size); }
void operator delete(void* p) noexcept { give(p); }
void operator delete[](void* p) noexcept { give(p); }
void operator delete(void* p, std::size_t) noexcept { give(p); }
void operator delete[](void* p, std::size_t) noexcept { give(p); }
