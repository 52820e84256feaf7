#pragma once
// Where the events of a playfield wait to be read. Not installed.
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/play/event.hpp"

namespace apsidon::play_detail {

/// What happened, in the order in which it did.
///
/// Invariant: every event is told at its own time, so that the events are in order of time; one that nobody
/// has read stays, unless more than `most_unread_events` wait: then the oldest goes, and is counted as lost.
class EventQueue {
 public:
  void tell(Event event) { next() = std::move(event); }
  /// For what may happen to many cards at once: the event is written where it stays.
  void tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by);

  [[nodiscard]] bool any() const { return count_ > 0; }
  /// Takes the first out; nothing when there is none.
  std::optional<Event> take();
  [[nodiscard]] std::uint64_t lost() const { return lost_; }
  /// Drops what waits.
  void forget() { count_ = 0; }

 private:
  Event& next();
  void make_room();

  std::vector<Event> ring_ = {};  // its storage is used again
  std::size_t first_ = 0;
  std::size_t count_ = 0;
  std::uint64_t lost_ = 0;
};

}  // namespace apsidon::play_detail
