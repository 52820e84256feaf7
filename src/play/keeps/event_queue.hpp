#pragma once
// Where the events of a playfield wait to be read. Not installed.
#include <cstdint>
#include <optional>

#include "apsidon/cards/card.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/event.hpp"
#include "play/keeps/ring.hpp"

namespace apsidon::play_detail {

/// What happened, in the order in which it did.
///
/// Invariant: every event is told at its own time, so that the events are in order of time; one that nobody
/// has read stays, unless more than `most_unread_events` wait: then the oldest goes, and is counted as lost.
class EventQueue {
 public:
  void tell(Event event);
  /// Of cards: keeps which of them lay open.
  void tell(Event event, const Table& table);
  /// For what may happen to many cards at once: little is kept of it until it is read.
  void tell_card(EventKind kind, double time, const Card& card, PerformanceId by);

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
    std::uint32_t face : 24 = 0;  // a deck has fewer
    std::uint32_t kind : 7 = 0;
    std::uint32_t of_card : 1 = 0;

    operator Event() const {
      return {.kind = static_cast<EventKind>(kind),
              .time = time,
              .card = card,
              .count = 1,
              .to = to,
              .performance = performance,
              .face = {face}};
    }
  };

  Line& next();

  Ring<Line> lines_ = {};
  Ring<Event> whole_ = {};
  std::uint64_t lost_ = 0;
};

}  // namespace apsidon::play_detail
