#pragma once
// The loop of a game, for tests.
#include <algorithm>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace apsidon::test {

/// All that is told up to a time, each read when the playfield stands at it.
inline std::vector<Event> events_until(Playfield& field, double until) {
  std::vector<Event> told;
  while (auto event = field.next_event(until)) told.push_back(*std::move(event));
  return told;
}
inline std::vector<Event> events_so_far(Playfield& field) { return events_until(field, field.now()); }

inline int count_of(EventKind kind, const std::vector<Event>& events) {
  return static_cast<int>(
      std::count_if(events.begin(), events.end(), [&](const Event& e) { return e.kind == kind; }));
}

/// Hands an input in and has it taken; its events wait to be read.
inline bool send(Playfield& field, const Input& input) {
  const bool used = field.input(input);
  field.advance_to(time_of(input));
  return used;
}

}  // namespace apsidon::test
