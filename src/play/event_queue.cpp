#include "play/event_queue.hpp"

#include <utility>

namespace apsidon::play_detail {
namespace {

void blank(Event& event) {
  // By name, so that a field that is added is not forgotten here.
  auto& [kind, time, card, count, from, to, panel, proposal, at, button, verdict, performance, timer,
         countdown, name, cause, velocity, face_up, flicked, cards] = event;
  kind = {};
  time = 0;
  card = {};
  count = 0;
  from = to = {};
  panel = {};
  proposal = 0;
  at = {};
  button = {};
  verdict = {};
  performance = {};
  timer = {};
  countdown = {};
  name.clear();
  cause = {};
  velocity = {};
  face_up = flicked = false;
  cards.clear();
}

}  // namespace

/// One more at the end, with what is left of another in it.
Event& EventQueue::next() {
  if (count_ == most_unread_events) {
    first_ = (first_ + 1) % ring_.size();
    --count_;
    ++lost_;
  }
  if (count_ == ring_.size()) make_room();
  const std::size_t at = first_ + count_++;
  return ring_[at < ring_.size() ? at : at - ring_.size()];
}

void EventQueue::make_room() {
  std::vector<Event> larger(ring_.empty() ? 16 : 2 * ring_.size());
  for (std::size_t i = 0; i < count_; ++i) larger[i] = std::move(ring_[(first_ + i) % ring_.size()]);
  ring_ = std::move(larger);
  first_ = 0;
}

void EventQueue::tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by) {
  Event& event = next();
  blank(event);
  event.kind = kind;
  event.time = time;
  event.card = card;
  event.count = 1;
  event.to = to;
  event.performance = by;
}

std::optional<Event> EventQueue::take() {
  if (count_ == 0) return std::nullopt;
  const std::size_t at = first_;
  first_ = at + 1 == ring_.size() ? 0 : at + 1;
  --count_;
  return std::optional<Event>(std::in_place, std::move(ring_[at]));
}

}  // namespace apsidon::play_detail
