#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/gesture/pointer.hpp"
#include "apsidon/gesture/thresholds.hpp"

namespace apsidon {

/// What a pointer may mean.
enum class GestureKind : std::uint8_t {
  hover,       ///< a pointer moves and presses nothing
  leave,       ///< it has left the window, or a finger was lifted
  press,       ///< a pointer goes down
  tap,         ///< it comes up again without having gone far
  double_tap,  ///< the second of two taps; only where they are wanted
  long_press,  ///< it has stayed down, without having gone far
  release,     ///< it comes up after a long press
  drag_start,  ///< it has gone far enough; `from` is where it went down
  drag_move,
  drag_end,  ///< it comes up after a drag
  flick,     ///< it comes up after a drag, and was fast
  cancel,    ///< the press or drag is lost, or another button went down
};

/// What a pointer meant.
struct Gesture {
  GestureKind kind = GestureKind::hover;          ///< what it is
  std::uint32_t pointer = 0;                      ///< which one, as its inputs say
  PointerKind pointer_kind = PointerKind::mouse;  ///< mouse, touch or pen
  PointerButton button = PointerButton::primary;  ///< that went down, or up
  Vec2 at = {};                                   ///< where the pointer is
  Vec2 from = {};                                 ///< where it went down; as `at` for a hover
  double time = 0;                                ///< seconds; of what became due, when it did
  Vec2 velocity = {};                             ///< px per second; of drag_end and flick
  bool shift = false;                             ///< Shift was held down when the pointer went down
  bool control = false;                           ///< Ctrl was, or Command

  friend constexpr bool operator==(const Gesture&, const Gesture&) = default;
};

/// Makes gestures of pointer inputs. Knows no cards. Every pointer is read by itself.
class APSIDON_CORE_EXPORT GestureReader {
 public:
  /// Throws Error when a threshold is out of its range.
  explicit GestureReader(const GestureThresholds& thresholds = {});

  /// How far, how long and how fast.
  [[nodiscard]] const GestureThresholds& thresholds() const { return thresholds_; }
  /// From the next input on.
  void set_thresholds(const GestureThresholds& thresholds) { thresholds_ = thresholds; }

  /// What this input means, in order. Valid until the next call. An input that is not finite means nothing,
  /// nor does one for which there is no room.
  /// What is due before its time is to be asked for with `advance_to` first.
  std::span<const Gesture> read(const PointerInput& input);
  /// What has become due up to this time: long presses, and taps that no second one followed.
  std::span<const Gesture> advance_to(double time);
  /// When the next of them is due; infinity when nothing is.
  [[nodiscard]] double due() const;

  /// Called while a press is told of: a tap of this pointer waits for a second one. Otherwise it is told at
  /// once.
  void want_double_tap(std::uint32_t pointer);
  /// Forgets the press or drag of a pointer, without a gesture, until it goes down again.
  void forget(std::uint32_t pointer);
  /// Likewise of all pointers.
  void forget_all();
  /// Whether something may still come of what this pointer did: it is down, or a tap of it waits.
  [[nodiscard]] bool expects(std::uint32_t pointer) const;
  /// Whether this pointer may go down: `most_pointers` may be down at one time, and another is not read.
  [[nodiscard]] bool has_room(std::uint32_t pointer) const;
  /// Whether any pointer is down and not forgotten.
  [[nodiscard]] bool pressed() const;

 private:
  struct Sample {
    Vec2 at;
    double time;
  };
  struct Pointer {
    std::uint32_t id = 0;
    PointerKind kind = PointerKind::mouse;
    PointerButton button = PointerButton::primary;
    bool shift = false;
    bool control = false;
    bool pressed = false;
    bool dragging = false;
    bool long_pressed = false;
    bool wants_double = false;
    Vec2 from = {};
    Vec2 at = {};
    double down = 0;
    std::array<Sample, 8> samples{};  // the last positions, a ring
    std::size_t sampled = 0;
    bool tap_waits = false;  // for a second one
    Gesture tap = {};
    double tap_due = 0;
  };

  Pointer& of(const PointerInput& input);
  void say(GestureKind kind, const Pointer& pointer, double time);
  void sample(Pointer& pointer, const PointerInput& input);
  [[nodiscard]] Vec2 velocity(const Pointer& pointer, double time) const;
  void go_down(Pointer& pointer, const PointerInput& input);
  void go_up(Pointer& pointer, const PointerInput& input);
  void flush_tap(Pointer& pointer, double time);
  void say_tap(Pointer& pointer, double time);
  [[nodiscard]] float slop(const Pointer& pointer) const;

  GestureThresholds thresholds_;
  std::vector<Pointer> pointers_ = {};
  std::vector<Gesture> said_ = {};
};

}  // namespace apsidon
