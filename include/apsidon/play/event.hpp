#pragma once
#include <cstddef>
#include <cstdint>
#include <string_view>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

enum class EventKind : std::uint8_t {
  tapped,        ///< a card or zone was pressed and let go
  pick_refused,  ///< a drag began on a card that may not be picked up; the verdict says why
  picked_up,     ///< a run is in the hand
  proposed,      ///< it was let go over a zone; one of the next three follows with the same proposal number
  dropped,       ///< it lies in `to` now
  refused,       ///< `to` does not take it; the verdict says why
  cancelled,     ///< it was let go over nothing, or the drag was lost
  emptied,       ///< `from` has no cards any more
  landed,        ///< a card that travelled to another place has arrived
  settled,       ///< nothing moves any more
};

/// "picked-up".
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(EventKind kind);

/// Something that happened on a playfield, with its own time. A plain value: what does not apply is left at
/// its default.
struct Event {
  EventKind kind = EventKind::tapped;
  double time = 0;             ///< seconds; when it happened, not when it was noticed
  CardId card = {};            ///< the card, or the lowest of the run
  std::size_t count = 0;       ///< cards of the run
  ZoneId from = {};            ///< where the card lies or came from
  ZoneId to = {};              ///< where it was to go
  std::uint64_t proposal = 0;  ///< of a drop: its number, from 1; of a drag that proposed nothing: 0
  Vec2 at = {};                ///< the pointer
  Verdict verdict = {};

  friend constexpr bool operator==(const Event&, const Event&) = default;
};

}  // namespace apsidon
