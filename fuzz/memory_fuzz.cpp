// A table is played while memory is short: the n-th request is not met. What was asked for ends with
// std::bad_alloc, and nothing is lost or used that is gone. It is read with memory enough: the library that
// reads JSON asks for some when it frees some, and ends the process where there is none.
#include <new>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/table_file.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

/// How many requests are still met before one is not; fewer than none: all.
thread_local long left = -1;

void* get(std::size_t size, std::size_t alignment) {
  if (left-- == 0) throw std::bad_alloc();
  void* memory = alignment > alignof(std::max_align_t)
                     ? std::aligned_alloc(alignment, (size + alignment - 1) / alignment * alignment)
                     : std::malloc(size > 0 ? size : 1);
  if (!memory) throw std::bad_alloc();
  return memory;
}

}  // namespace

void* operator new(std::size_t size) { return get(size, 0); }
void* operator new[](std::size_t size) { return get(size, 0); }
void* operator new(std::size_t size, std::align_val_t alignment) { return get(size, std::size_t(alignment)); }
void* operator new[](std::size_t size, std::align_val_t alignment) {
  return get(size, std::size_t(alignment));
}
void operator delete(void* memory) noexcept { std::free(memory); }
void operator delete[](void* memory) noexcept { std::free(memory); }
void operator delete(void* memory, std::size_t) noexcept { std::free(memory); }
void operator delete[](void* memory, std::size_t) noexcept { std::free(memory); }
void operator delete(void* memory, std::align_val_t) noexcept { std::free(memory); }
void operator delete[](void* memory, std::align_val_t) noexcept { std::free(memory); }
void operator delete(void* memory, std::size_t, std::align_val_t) noexcept { std::free(memory); }
void operator delete[](void* memory, std::size_t, std::align_val_t) noexcept { std::free(memory); }

/// What libFuzzer itself asked for before came from another `new`.
extern "C" const char* __asan_default_options() { return "alloc_dealloc_mismatch=0"; }

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  if (size < 3) return 0;
  const long most = (long{data[0]} << 16 | long{data[1]} << 8 | long{data[2]}) % 100'000;
  const std::string_view text = text_of(data + 3, size - 3);
  const auto table = parse_table(text, "table.json");
  if (!table || table->table.card_count() > 200) return 0;
  try {
    left = most;
    Playfield field(*table, {.window = {700, 500}});
    (void)field.performances().deal();
    (void)field.pointer({.phase = PointerPhase::down, .at = {350, 250}, .time = 0.5});
    (void)field.pointer({.phase = PointerPhase::move, .at = {100, 100}, .time = 0.6});
    (void)field.pointer({.phase = PointerPhase::up, .at = {100, 100}, .time = 0.7});
    while (field.next_event(10)) {
    }
    (void)field.frame();
    Playfield copy = field;
    (void)copy.moves().undo();
  } catch (const std::bad_alloc&) {
  }
  left = -1;
  return 0;
}
