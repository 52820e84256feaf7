#pragma once
// Where the events of a playfield wait to be read. Not installed.
#include <cstddef>
#include <span>

#include "apsidon/play/event.hpp"
#include "motion/run_merger.hpp"

namespace apsidon::play_detail {

/// Events one after another, whose storage is used again: many cards may land in one frame, and none of those
/// events has to be made and unmade.
class EventList {
 public:
  void add(Event&& event);
  /// One more, with nothing in it yet.
  Event& next();
  void clear() { used_ = 0; }
  [[nodiscard]] std::size_t size() const { return used_; }
  [[nodiscard]] std::span<Event> all() { return std::span(kept_).first(used_); }
  [[nodiscard]] std::span<const Event> all() const { return std::span(kept_).first(used_); }

 private:
  std::vector<Event> kept_ = {};
  std::size_t used_ = 0;
};

/// What happened, in order of its time.
///
/// Invariant: what the client may read is in order of time, events of equal times in the order in which they
/// were told; a pending event is neither lost nor changed before it is published.
class EventQueue {
 public:
  void tell(Event event) { pending_.add(std::move(event)); }
  /// For what may happen to many cards at once: the event is written where it stays.
  void tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by);

  [[nodiscard]] std::size_t pending() const { return pending_.size(); }
  /// Puts the pending events from this one on in order of time.
  void sort_from(std::size_t first) {
    if (pending_.size() > first + 1) merge_from(first);
  }
  /// The pending events are what the client reads from now on; what it could read before is gone.
  void publish();
  [[nodiscard]] std::span<const Event> readable() const { return readable_.all(); }

 private:
  void merge_from(std::size_t first);

  EventList pending_ = {};
  EventList readable_ = {};
  motion_detail::RunMerger<Event> merger_ = {};
};

}  // namespace apsidon::play_detail
