#include "apsidon/play/event.hpp"

#include <array>

namespace apsidon {

std::string_view name_of(EventKind kind) {
  static constexpr std::array<std::string_view, event_kind_count> names{
      "tapped",    "double-tapped", "long-pressed", "released",  "pick-refused", "picked-up",
      "proposed",  "dropped",       "refused",      "cancelled", "superseded",   "exchanged",
      "flipped",   "face-changed",  "reoriented",   "taken",     "played",       "created",
      "removed",   "counted",       "turn-passed",  "drawn",     "recycled",     "matched",
      "unmatched", "may-finish",    "won",          "lost",      "no-moves",     "undone",
      "redone",    "hovered",       "unhovered",    "zoomed",    "unzoomed",     "focused",
      "selected",  "deselected",    "emptied",      "departed",  "edge-on",      "arrived",
      "landed",    "began",         "cue",          "ended",     "stopped",      "rang",
      "time-up",   "settled"};
  static_assert(!names.back().empty());
  const auto i = static_cast<std::size_t>(kind);
  return i < names.size() ? names[i] : "unknown";
}

std::string_view name_of(CancelCause cause) {
  static constexpr std::array<std::string_view, 8> names{"none",         "nowhere", "put-back", "gate-closed",
                                                         "pointer-lost", "blurred", "resized",  "by-game"};
  const auto i = static_cast<std::size_t>(cause);
  return i < names.size() ? names[i] : "unknown";
}

}  // namespace apsidon
