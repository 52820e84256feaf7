#pragma once
#include <optional>

#include "apsidon/geometry/hidden.hpp"
#include "apsidon/play/input.hpp"
#include "apsidon/sdl_export.hpp"

union SDL_Event;
struct SDL_Window;

namespace apsidon {

/// What SDL's events mean to a table: mouse, fingers, keys, game controllers, the window's size and
/// attention. Nothing else of a program's events is its concern, and a program may take an event before it.
///
/// | input | comes from |
/// |---|---|
/// | pointer 0 | the mouse; what SDL makes of a finger besides is left out |
/// | pointers 1, 2, … | fingers, by the order in which they came down |
/// | left, right, up, down | arrows; pad and left stick, each push once |
/// | next, previous | Tab, Shift+Tab; shoulders |
/// | act, second | Enter or Space, Shift+Enter; A, Y |
/// | cancel | Escape; B |
/// | send, send_top | S, Shift+S; X |
/// | undo, redo | Ctrl+Z, Ctrl+Y or Ctrl+Shift+Z; Back, Start |
/// | resize, blur | the window's |
/// | hold and release for "background" | the window is hidden or comes back |
class APSIDON_SDL_EXPORT SdlInputs {
 public:
  /// The window outlives it.
  explicit SdlInputs(SDL_Window* window);

  /// Nothing for an event that means nothing to a table. Controllers are opened when they are told of.
  [[nodiscard]] std::optional<Input> read(const SDL_Event& event);
  /// The window as it is now.
  [[nodiscard]] ResizeInput size() const;
  /// The time that events have, seconds since SDL began.
  [[nodiscard]] static double now();

 private:
  struct APSIDON_SDL_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

}  // namespace apsidon
