#include "apsidon/gesture/gesture.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "apsidon/geometry/limits.hpp"
#include "gesture/fields.hpp"

namespace apsidon {

GestureReader::GestureReader(const GestureThresholds& thresholds) : thresholds_(thresholds) {
  check(thresholds);
}

GestureReader::Pointer& GestureReader::of(const PointerInput& input) {
  const auto same = [&](const Pointer& p) { return p.id == input.pointer; };
  auto it = std::find_if(pointers_.begin(), pointers_.end(), same);
  if (it != pointers_.end()) return *it;
  // Fingers get new numbers all the time: one that does nothing gives its place.
  const auto idle = [](const Pointer& p) { return !p.pressed && !p.tap_waits; };
  it = std::find_if(pointers_.begin(), pointers_.end(), idle);
  if (it == pointers_.end()) it = pointers_.emplace(pointers_.end());
  *it = {.id = input.pointer};
  return *it;
}

void GestureReader::say(GestureKind kind, const Pointer& p, double time) {
  said_.push_back({.kind = kind,
                   .pointer = p.id,
                   .pointer_kind = p.kind,
                   .button = p.button,
                   .at = p.at,
                   .from = p.pressed ? p.from : p.at,
                   .time = time,
                   .shift = p.shift,
                   .control = p.control});
}

float GestureReader::slop(const Pointer& p) const {
  return p.kind == PointerKind::touch ? thresholds_.touch_slop : thresholds_.mouse_slop;
}

void GestureReader::sample(Pointer& p, const PointerInput& input) {
  p.at = input.at;
  // A mouse may tell of a thousand places a second: those that are kept are spread over `flick_seconds`.
  const std::size_t size = p.samples.size();
  if (p.sampled > 1 && input.time - p.samples[(p.sampled - 2) % size].time <
                           thresholds_.flick_seconds / static_cast<double>(size - 1)) {
    --p.sampled;
  }
  p.samples[p.sampled++ % p.samples.size()] = {input.at, input.time};
}

/// From the oldest position within the last `flick_seconds` to the newest.
Vec2 GestureReader::velocity(const Pointer& p, double time) const {
  const std::size_t n = std::min(p.sampled, p.samples.size());
  if (n < 2) return {};
  const Sample& last = p.samples[(p.sampled - 1) % p.samples.size()];
  Sample first = last;
  for (std::size_t i = 1; i <= n; ++i) {
    const Sample& s = p.samples[(p.sampled - i) % p.samples.size()];
    if (time - s.time > thresholds_.flick_seconds) break;
    first = s;
  }
  // A pointer that came to rest before it was lifted is slow, however fast it came.
  const double seconds = time - first.time;
  return seconds > 1e-4 ? (last.at - first.at) * static_cast<float>(1 / seconds) : Vec2{};
}

void GestureReader::go_down(Pointer& p, const PointerInput& input) {
  if (p.pressed) {
    flush_tap(p, input.time);
    say(GestureKind::cancel, p, input.time);
    if (input.button != p.button) {
      p.pressed = false;
      return;  // another button ends what the first began, and begins nothing
    }
    // The release was lost on its way.
  }
  p.kind = input.kind;
  p.button = input.button;
  p.shift = input.shift;
  p.control = input.control;
  p.pressed = true;
  p.dragging = p.long_pressed = p.wants_double = false;
  p.from = input.at;
  p.down = input.time;
  p.sampled = 0;
  sample(p, input);
  say(GestureKind::press, p, input.time);
}

/// A tap that waited for a second one is told of before anything else that the pointer does.
void GestureReader::flush_tap(Pointer& p, double time) {
  if (!p.tap_waits) return;
  p.tap_waits = false;
  p.tap.time = time;  // it is one tap only from now on
  said_.push_back(p.tap);
}

void GestureReader::say_tap(Pointer& p, double time) {
  const float near = thresholds_.double_tap_distance * (p.kind == PointerKind::touch ? 2.0f : 1.0f);
  if (p.tap_waits) {
    if (p.tap.button == p.button && length(p.at - p.tap.at) <= near && time <= p.tap_due) {
      p.tap_waits = false;
      return say(GestureKind::double_tap, p, time);
    }
    flush_tap(p, time);
  }
  if (!p.wants_double) return say(GestureKind::tap, p, time);
  say(GestureKind::tap, p, time);
  p.tap = said_.back();
  said_.pop_back();
  p.tap_waits = true;
  p.tap_due = time + thresholds_.double_tap_seconds;
}

void GestureReader::go_up(Pointer& p, const PointerInput& input) {
  if (!p.pressed || input.button != p.button) return;
  sample(p, input);
  if (!p.dragging && length(input.at - p.from) > slop(p)) {
    p.dragging = true;  // went far between two inputs
    flush_tap(p, input.time);
    say(GestureKind::drag_start, p, input.time);
  }
  if (p.dragging) {
    const Vec2 v = velocity(p, input.time);
    say(length(v) >= thresholds_.flick_speed ? GestureKind::flick : GestureKind::drag_end, p, input.time);
    said_.back().velocity = v;
  } else if (p.long_pressed) {
    say(GestureKind::release, p, input.time);
  } else {
    say_tap(p, input.time);
  }
  p.pressed = false;
  if (p.kind == PointerKind::touch) say(GestureKind::leave, p, input.time);
}

std::span<const Gesture> GestureReader::read(const PointerInput& input) {
  said_.clear();
  if (!is_finite(input.at) || !std::isfinite(input.time) || !has_room(input.pointer)) return {};
  Pointer& p = of(input);
  switch (input.phase) {
    case PointerPhase::down:
      go_down(p, input);
      break;
    case PointerPhase::move:
      p.kind = input.kind;
      sample(p, input);
      if (!p.pressed) {
        say(GestureKind::hover, p, input.time);
      } else if (p.dragging) {
        say(GestureKind::drag_move, p, input.time);
      } else if (length(input.at - p.from) > slop(p)) {
        p.dragging = true;
        flush_tap(p, input.time);
        say(GestureKind::drag_start, p, input.time);
      }
      break;
    case PointerPhase::up:
      go_up(p, input);
      break;
    case PointerPhase::cancel:
    case PointerPhase::leave:
      p.at = input.at;
      if (p.pressed) {
        flush_tap(p, input.time);
        say(GestureKind::cancel, p, input.time);
      }
      p.pressed = false;
      say(GestureKind::leave, p, input.time);
      break;
  }
  return said_;
}

std::span<const Gesture> GestureReader::advance_to(double time) {
  said_.clear();
  for (Pointer& p : pointers_) {
    const double presses = p.down + thresholds_.long_press_seconds;
    if (p.pressed && !p.dragging && !p.long_pressed && presses <= time) {
      p.long_pressed = true;
      flush_tap(p, presses);
      say(GestureKind::long_press, p, presses);
    }
    if (p.tap_waits && p.tap_due <= time && !p.pressed) {
      flush_tap(p, p.tap_due);
    }
  }
  return said_;
}

double GestureReader::due() const {
  double next = std::numeric_limits<double>::infinity();
  for (const Pointer& p : pointers_) {
    if (p.pressed && !p.dragging && !p.long_pressed)
      next = std::min(next, p.down + thresholds_.long_press_seconds);
    if (p.tap_waits && !p.pressed) next = std::min(next, p.tap_due);
  }
  return next;
}

void GestureReader::want_double_tap(std::uint32_t pointer) {
  for (Pointer& p : pointers_) p.wants_double = p.wants_double || (p.id == pointer && p.pressed);
}

void GestureReader::forget(std::uint32_t pointer) {
  for (Pointer& p : pointers_) {
    if (p.id == pointer) p.pressed = p.tap_waits = false;
  }
}

void GestureReader::forget_all() {
  for (Pointer& p : pointers_) p.pressed = p.tap_waits = false;
}

bool GestureReader::expects(std::uint32_t pointer) const {
  return std::any_of(pointers_.begin(), pointers_.end(),
                     [&](const Pointer& p) { return p.id == pointer && (p.pressed || p.tap_waits); });
}

bool GestureReader::has_room(std::uint32_t pointer) const {
  return pointers_.size() < most_pointers ||
         std::any_of(pointers_.begin(), pointers_.end(),
                     [&](const Pointer& p) { return p.id == pointer || (!p.pressed && !p.tap_waits); });
}

bool GestureReader::pressed() const {
  return std::any_of(pointers_.begin(), pointers_.end(), [](const Pointer& p) { return p.pressed; });
}

}  // namespace apsidon
