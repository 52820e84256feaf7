#include "apsidon/play/event.hpp"

#include <array>

namespace apsidon {

std::string_view name_of(EventKind kind) {
  static constexpr std::array<std::string_view, 18> names{
      "tapped",    "pick-refused", "picked-up", "proposed", "dropped", "refused",
      "cancelled", "emptied",      "departed",  "turned",   "landed",  "began",
      "cue",       "ended",        "stopped",   "rang",     "time-up", "settled"};
  static_assert(names.size() == static_cast<std::size_t>(EventKind::settled) + 1);
  const auto i = static_cast<std::size_t>(kind);
  return i < names.size() ? names[i] : "unknown";
}

}  // namespace apsidon
