#pragma once
// The bench as a thing to look at: a panel over the right of a window, its tabs, messages and plot of frames.
#include <array>
#include <deque>
#include <functional>
#include <memory>
#include <string>

#include "apsidon/sdl/sdl_window.hpp"

namespace apsidon::tool {

class BenchPanel {
 public:
  explicit BenchPanel(SdlWindow& window);
  BenchPanel(const BenchPanel&) = delete;
  BenchPanel& operator=(const BenchPanel&) = delete;
  ~BenchPanel();

  /// Whether the event was the bench's own.
  bool take(const SDL_Event& event);
  void open(bool open);
  /// What it takes from a window, so that nothing of a table lies below it.
  [[nodiscard]] Insets insets(Size window) const;
  /// A line for its list of events.
  void hear(std::string line);
  /// Milliseconds of a frame that was drawn, and of these the core's.
  void note_frame(double ms, double core_ms);
  /// A sentence over the table: until the next one, or for some seconds where it is good news; empty: none.
  void set_message(std::string text, bool good = false) {
    message_ = std::move(text);
    good_ = good;
    said_at_ = window_.now();
  }

  /// Whether anything of it shows, or has just gone.
  [[nodiscard]] bool is_needed() const { return open_ || hints_ || !message_.empty() || frames_after_ > 0; }

  // In every frame in which it is needed: begin; what shows, only if that returned true; end. `draw` is for
  // the window's overlay.

  [[nodiscard]] bool begin(const std::string& title);
  /// Within a tab bar; leaves room for the plot.
  void tab(const char* name, const std::function<void()>& show) const;
  /// The list of events, with its filter.
  void events(float height);
  void end();
  void draw(SDL_Renderer* renderer) const;

 private:
  void keep_drawing();
  void hint() const;

  SdlWindow& window_;
  struct Gui;
  std::unique_ptr<Gui> gui_;
  bool open_ = false;
  bool hints_ = true;     // says at first how it is opened
  int frames_after_ = 0;  // still to be drawn after an event
  std::string message_ = {};
  bool good_ = false;
  double said_at_ = 0;
  std::deque<std::string> events_ = {};
  std::array<char, 64> filter_{};
  std::array<float, 120> frames_{};
  std::size_t frame_ = 0;
  double core_ms_ = 0;
};

}  // namespace apsidon::tool
