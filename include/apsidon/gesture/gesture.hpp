#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

enum class PointerPhase { move, down, up, cancel, leave };
enum class PointerKind { mouse, touch, pen };

/// What a window tells of a pointer, with its own time.
struct PointerInput {
  PointerPhase phase = PointerPhase::move;
  Vec2 at = {};               ///< logical px
  double time = 0;            ///< seconds
  std::uint32_t pointer = 0;  ///< which pointer, where there are several
  PointerKind kind = PointerKind::mouse;

  friend constexpr bool operator==(const PointerInput&, const PointerInput&) = default;
};

/// Distances above which a press becomes a drag.
struct GestureThresholds {
  float mouse_slop = 4;   ///< px, [0, 1000]; for pens too
  float touch_slop = 10;  ///< px, [0, 1000]

  friend constexpr bool operator==(const GestureThresholds&, const GestureThresholds&) = default;
};

/// Throws Error when a threshold is out of its range.
APSIDON_CORE_EXPORT void check(const GestureThresholds& thresholds);

enum class GestureKind {
  hover,       ///< a pointer moves and presses nothing
  press,       ///< a pointer goes down
  tap,         ///< it comes up again without having gone far
  drag_start,  ///< it has gone far enough; `from` is where it went down
  drag_move,
  drag_end,  ///< it comes up after a drag
  cancel,    ///< the press or drag is lost
};

struct Gesture {
  GestureKind kind = GestureKind::hover;
  Vec2 at = {};    ///< where the pointer is
  Vec2 from = {};  ///< where it went down; as `at` for a hover
  double time = 0;
  PointerKind pointer_kind = PointerKind::mouse;

  friend constexpr bool operator==(const Gesture&, const Gesture&) = default;
};

/// Makes gestures of pointer inputs. Knows no cards. One pointer presses at a time: while it is down, others
/// are not listened to.
class APSIDON_CORE_EXPORT GestureReader {
 public:
  explicit GestureReader(const GestureThresholds& thresholds = {});

  /// What this input means, in order. Valid until the next call. An input that is not finite means nothing.
  std::span<const Gesture> read(const PointerInput& input);
  /// Forgets the press that is under way, without a gesture.
  void forget() { pressed_ = false; }
  [[nodiscard]] bool pressed() const { return pressed_; }

 private:
  void say(GestureKind kind, const PointerInput& input);

  GestureThresholds thresholds_;
  std::array<Gesture, 2> said_{};
  std::size_t count_ = 0;
  bool pressed_ = false;
  bool dragging_ = false;
  std::uint32_t pointer_ = 0;
  Vec2 from_;
};

}  // namespace apsidon
