#include "play/event_queue.hpp"

#include <utility>

namespace apsidon::play_detail {

void EventQueue::tell(Event event) {
  next() = {};
  whole_.next() = std::move(event);
}

void EventQueue::tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by) {
  Line& line = next();
  line.time = time;
  line.card = card;
  line.to = to;
  line.performance = by;
  line.kind = kind;
  line.of_card = true;
}

EventQueue::Line& EventQueue::next() {
  if (lines_.size() == most_unread_events) {
    (void)take();
    ++lost_;
  }
  return lines_.next();
}

std::optional<Event> EventQueue::take() {
  if (lines_.empty()) return std::nullopt;
  const Line& line = lines_.take();
  // A line converts, so that the event is made where the client has it.
  if (line.of_card) return std::optional<Event>(std::in_place, line);
  return std::optional<Event>(std::in_place, std::move(whole_.take()));
}

void EventQueue::forget() {
  lines_.clear();
  whole_.clear();
}

}  // namespace apsidon::play_detail
