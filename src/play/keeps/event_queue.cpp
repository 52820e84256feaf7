#include "play/keeps/event_queue.hpp"

#include <utility>

#include "apsidon/cards/table.hpp"

namespace apsidon::play_detail {
namespace {

FaceId seen(const Card& card) { return card.face_up ? card.face : hidden_face; }

}  // namespace

void EventQueue::tell(Event event, const Table& table) {
  const auto seen_of = [&](CardId id) {
    const Card* card = table.card(id);
    return card ? seen(*card) : hidden_face;
  };
  event.face = seen_of(event.card);
  event.decided_face = seen_of(event.verdict.card);
  event.onto_face = seen_of(event.verdict.onto);
  tell(std::move(event));
}

void EventQueue::tell(Event event) {
  next() = {};
  whole_.next() = std::move(event);
}

void EventQueue::tell_card(EventKind kind, double time, const Card& card, PerformanceId by) {
  Line& line = next();
  line.time = time;
  line.card = card.id;
  line.to = card.zone;
  line.performance = by;
  line.face = seen(card).value & 0xFFFFFF;
  line.kind = static_cast<std::uint32_t>(kind) & 0x7F;
  line.of_card = 1;
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
