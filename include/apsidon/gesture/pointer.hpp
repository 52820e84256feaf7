#pragma once
#include <cstdint>

#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

/// What happened to a pointer; `cancel`: the system took it away; `leave`: it left the window.
enum class PointerPhase : std::uint8_t { move, down, up, cancel, leave };
/// What a pointer is, by W3C Pointer Events.
enum class PointerKind : std::uint8_t { mouse, touch, pen };
/// Which button went down or up, by the numbers of W3C Pointer Events; a finger is the primary one.
enum class PointerButton : std::uint8_t { primary = 0, middle = 1, secondary = 2, back = 3, forward = 4 };

/// What a window tells of a pointer, with its own time.
struct PointerInput {
  PointerPhase phase = PointerPhase::move;        ///< what happened to it
  Vec2 at = {};                                   ///< logical px
  double time = 0;                                ///< seconds
  std::uint32_t pointer = 0;                      ///< which pointer, where there are several
  PointerKind kind = PointerKind::mouse;          ///< mouse, touch or pen
  PointerButton button = PointerButton::primary;  ///< of down and up
  bool shift = false;                             ///< Shift is held down
  bool control = false;                           ///< Ctrl is, or Command

  friend constexpr bool operator==(const PointerInput&, const PointerInput&) = default;
};

}  // namespace apsidon
