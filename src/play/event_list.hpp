#pragma once
// Where the events of a playfield are kept. Not installed.
#include <cstddef>
#include <span>
#include <utility>
#include <vector>

#include "apsidon/play/event.hpp"

namespace apsidon {

/// Events one after another. Their places are used again: many cards may land in one frame, and none of those
/// events has to be made and unmade.
class EventList {
 public:
  void add(Event&& event) {
    if (used_ == kept_.size()) {
      kept_.push_back(std::move(event));
    } else {
      kept_[used_] = std::move(event);
    }
    ++used_;
  }

  /// One more, of which nothing is told yet.
  Event& next() {
    if (used_ == kept_.size()) kept_.emplace_back();
    Event& event = kept_[used_++];
    blank(event);
    return event;
  }

  void clear() { used_ = 0; }
  [[nodiscard]] std::size_t size() const { return used_; }
  [[nodiscard]] std::span<Event> all() { return std::span(kept_).first(used_); }
  [[nodiscard]] std::span<const Event> all() const { return std::span(kept_).first(used_); }

 private:
  static void blank(Event& event) {
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

  std::vector<Event> kept_ = {};
  std::size_t used_ = 0;
};

}  // namespace apsidon
