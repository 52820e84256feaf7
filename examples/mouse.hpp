#pragma once
// A mouse for the examples, which run without a window: what a window would tell while somebody plays.
#include <functional>
#include <utility>

#include "apsidon/apsidon.hpp"

namespace example {

/// Moves in sixtieths of a second, and hands each event to the game when the field stands at its time.
class Mouse {
 public:
  Mouse(apsidon::Playfield& field, std::function<void(const apsidon::Event&)> hear)
      : field_(field), hear_(std::move(hear)) {}

  void wait(double seconds) {
    const double until = field_.now() + seconds;
    while (const auto event = field_.next_event(until)) hear_(*event);
  }
  void move(apsidon::Vec2 to) { tell(apsidon::PointerPhase::move, to); }
  void press(apsidon::Vec2 at) { tell(apsidon::PointerPhase::down, at); }
  void release(apsidon::Vec2 at) { tell(apsidon::PointerPhase::up, at); }
  void tap(apsidon::Vec2 at) {
    press(at);
    release(at);
  }
  /// Goes there at a steady speed and lets go.
  void drag(apsidon::Vec2 from, apsidon::Vec2 to, double seconds) {
    press(from);
    const int steps = static_cast<int>(seconds * 60);
    for (int i = 1; i <= steps; ++i)
      move(from + (to - from) * (static_cast<float>(i) / static_cast<float>(steps)));
    release(to);
  }

 private:
  void tell(apsidon::PointerPhase phase, apsidon::Vec2 at) {
    constexpr double frame = 1.0 / 60;
    field_.pointer({.phase = phase, .at = at, .time = field_.now() + frame});
    wait(frame);
  }

  apsidon::Playfield& field_;
  std::function<void(const apsidon::Event&)> hear_;
};

}  // namespace example
