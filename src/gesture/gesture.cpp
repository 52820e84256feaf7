#include "apsidon/gesture/gesture.hpp"

#include <fmt/format.h>

#include <cmath>

#include "apsidon/geometry/error.hpp"

namespace apsidon {

void check(const GestureThresholds& t) {
  for (const float slop : {t.mouse_slop, t.touch_slop}) {
    if (!(slop >= 0 && slop <= 1000)) {
      throw Error(fmt::format("gesture thresholds: slop is {}: 0 to 1000 is expected", slop));
    }
  }
}

GestureReader::GestureReader(const GestureThresholds& thresholds) : thresholds_(thresholds) {
  check(thresholds);
}

void GestureReader::say(GestureKind kind, const PointerInput& input) {
  said_[count_++] = {.kind = kind,
                     .at = input.at,
                     .from = pressed_ ? from_ : input.at,
                     .time = input.time,
                     .pointer_kind = input.kind};
}

std::span<const Gesture> GestureReader::read(const PointerInput& input) {
  count_ = 0;
  if (!is_finite(input.at) || !std::isfinite(input.time)) return {};
  if (pressed_ && input.pointer != pointer_) return {};

  const float slop = input.kind == PointerKind::touch ? thresholds_.touch_slop : thresholds_.mouse_slop;
  switch (input.phase) {
    case PointerPhase::down:
      if (pressed_) say(GestureKind::cancel, input);  // the release was lost on its way
      pressed_ = true;
      dragging_ = false;
      pointer_ = input.pointer;
      from_ = input.at;
      say(GestureKind::press, input);
      break;
    case PointerPhase::move:
      if (!pressed_) {
        say(GestureKind::hover, input);
      } else if (dragging_) {
        say(GestureKind::drag_move, input);
      } else if (length(input.at - from_) > slop) {
        dragging_ = true;
        say(GestureKind::drag_start, input);
      }
      break;
    case PointerPhase::up:
      if (!pressed_) break;
      if (!dragging_ && length(input.at - from_) > slop) {
        dragging_ = true;  // went far between two inputs
        say(GestureKind::drag_start, input);
      }
      say(dragging_ ? GestureKind::drag_end : GestureKind::tap, input);
      pressed_ = false;
      break;
    case PointerPhase::cancel:
    case PointerPhase::leave:
      if (!pressed_) break;
      say(GestureKind::cancel, input);
      pressed_ = false;
      break;
  }
  return {said_.data(), count_};
}

}  // namespace apsidon
