#pragma once
#include <cstddef>
#include <functional>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"

namespace apsidon {

/// Plays the inputs of a session, and goes on to a time, or with infinity to the last of them, on a playfield
/// that begins as it did; `hear` is called with each event when it happens. Snapshots that the session has
/// gone back to are taken again on the way. Returns how many inputs could not be replayed: those that went
/// back to a snapshot of another session, or to more than `most_snapshots` at a time.
APSIDON_CORE_EXPORT std::size_t replay(Playfield& field, std::span<const Input> inputs, double until,
                                       const std::function<void(const Event&)>& hear);

}  // namespace apsidon
