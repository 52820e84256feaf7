#pragma once
// Asking for memory before it is used. Not installed.

namespace apsidon::geometry_detail {

/// Says that what lies here is soon written: long lists are larger than what the processor keeps near, and to
/// wait for each of their items takes longer than all that is done about it. Does nothing where the compiler
/// has no word for it.
inline void will_write(const void* there) {
#if defined(__GNUC__)
  __builtin_prefetch(there, 1);
#else
  (void)there;
#endif
}

}  // namespace apsidon::geometry_detail
