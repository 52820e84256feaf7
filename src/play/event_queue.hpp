#pragma once
// Where the events of a playfield wait to be read. Not installed.
#include <cstdint>
#include <optional>

#include "apsidon/play/event.hpp"
#include "play/ring.hpp"

namespace apsidon::play_detail {

/// What happened, in the order in which it did.
///
/// Invariant: every event is told at its own time, so that the events are in order of time; one that nobody
/// has read stays, unless more than `most_unread_events` wait: then the oldest goes, and is counted as lost.
class EventQueue {
 public:
  void tell(Event event);
  /// For what may happen to many cards at once: little is kept of it until it is read.
  void tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by);

  [[nodiscard]] bool any() const { return !lines_.empty(); }
  /// Takes the first out; nothing when there is none.
  std::optional<Event> take();
  [[nodiscard]] std::uint64_t lost() const { return lost_; }
  /// Drops what waits.
  void forget();

 private:
  /// All of an event that is of one card; else the event is the next of the whole ones.
  struct Line {
    double time = 0;
    CardId card = {};
    ZoneId to = {};
    PerformanceId performance = {};
    EventKind kind = {};
    bool of_card = false;

    operator Event() const {
      return {.kind = kind, .time = time, .card = card, .count = 1, .to = to, .performance = performance};
    }
  };

  Line& next();

  Ring<Line> lines_ = {};
  Ring<Event> whole_ = {};
  std::uint64_t lost_ = 0;
};

}  // namespace apsidon::play_detail
