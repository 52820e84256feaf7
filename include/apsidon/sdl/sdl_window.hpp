#pragma once
#include <functional>
#include <limits>
#include <string>

#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/picture.hpp"
#include "apsidon/geometry/hidden.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/sdl_export.hpp"

union SDL_Event;
struct SDL_Renderer;
struct SDL_Window;

namespace apsidon {

/// What a window begins with.
struct SdlWindowOptions {
  std::string title = "Apsidon";  ///< in its title bar
  Size size = {1280, 800};        ///< logical px
  bool full_screen = false;       ///< over the whole screen
};

/// Where the time of the last frame went, seconds.
struct SdlFrameTimes {
  double drawing = 0;     ///< from the frame to the end of its last card
  double presenting = 0;  ///< until the screen had it
};

/// A window for a table, for a program that has none of its own:
///
///     apsidon::SdlWindow window({.title = "Potting bench"});
///     apsidon::Playfield field(setup, window.options());
///     while (window.next(field)) {
///       while (const auto event = field.next_event(window.now())) …
///       window.show(field);
///     }
///
/// It draws only when the frame has changed, sleeps while nothing happens, and holds the table's clock while
/// it is hidden.
class APSIDON_SDL_EXPORT SdlWindow {
 public:
  /// Throws Error when there is no display, or none that SDL can use.
  explicit SdlWindow(const SdlWindowOptions& options = {});

  /// What a playfield for this window begins with: its size, its pixel ratio, its time.
  [[nodiscard]] PlayfieldOptions options() const;
  /// Sleeps until something is to be done, by `field.next_due()`, or something comes in, but no longer than
  /// until `latest`; hands what came in to the playfield. False once the window is closed.
  bool next(Playfield& field, double latest = std::numeric_limits<double>::infinity());
  /// Draws the playfield's frame, if it is another than the one that shows.
  void show(const Playfield& field);
  // The same for whoever has frames and no playfield, as a form of lone cards.

  /// Hands what came in to `hear`; sleeps no longer than until `next_due`, as of `LoneCard::next_due`.
  bool next(const std::function<void(const Input&)>& hear, double next_due);
  /// Draws a frame, if its revision is another than that of the one that shows.
  void show(const Frame& frame, const Deck& deck);

  /// The time of now, for `next_event`.
  [[nodiscard]] double now() const;

  /// Pictures from the next frame on; null: none. It outlives the window.
  void set_gallery(const Gallery* gallery);
  /// Over the whole screen, or back.
  void set_full_screen(bool full);
  [[nodiscard]] bool full_screen() const;  ///< whether it is over the whole screen
  void close();                            ///< `next` returns false from now on.
  /// The next frame is drawn, also where it is the same.
  void redraw();
  /// Sees every event first; what it returns true for goes nowhere else.
  void set_event_filter(std::function<bool(const SDL_Event&)> filter);
  /// Draws over every frame before it is presented.
  void set_overlay(std::function<void(SDL_Renderer*)> draw);
  /// What shows of a playfield now, in device pixels.
  [[nodiscard]] Picture picture(const Playfield& field);
  [[nodiscard]] SdlFrameTimes times() const;  ///< of the frame that was drawn last
  /// How many frames were drawn.
  [[nodiscard]] std::uint64_t frames() const;

  [[nodiscard]] SDL_Window* window() const;      ///< owned by this
  [[nodiscard]] SDL_Renderer* renderer() const;  ///< owned by this

 private:
  void draw(const Frame& frame, const Deck& deck);

  struct APSIDON_SDL_NO_EXPORT Impl;
  Hidden<Impl> impl_;
};

}  // namespace apsidon
