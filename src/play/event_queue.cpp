#include "play/event_queue.hpp"

#include <utility>

namespace apsidon::play_detail {
namespace {

void blank(Event& event) {
  // By name, so that a field that is added is not forgotten here.
  auto& [kind, time, card, count, from, to, panel, proposal, at, button, verdict, performance, timer,
         countdown, name] = event;
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
}

}  // namespace

void EventList::add(Event&& event) {
  if (used_ == kept_.size()) {
    kept_.push_back(std::move(event));
  } else {
    kept_[used_] = std::move(event);
  }
  ++used_;
}

Event& EventList::next() {
  if (used_ == kept_.size()) kept_.emplace_back();
  Event& event = kept_[used_++];
  blank(event);
  return event;
}

void EventQueue::tell_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by) {
  Event& event = pending_.next();
  event.kind = kind;
  event.time = time;
  event.card = card;
  event.count = 1;
  event.to = to;
  event.performance = by;
}

void EventQueue::merge_from(std::size_t first) {
  merger_.sort(pending_.all().subspan(first), [](const Event& a, const Event& b) { return a.time < b.time; });
}

void EventQueue::publish() {
  std::swap(readable_, pending_);
  pending_.clear();
}

}  // namespace apsidon::play_detail
