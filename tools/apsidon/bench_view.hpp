#pragma once
// The bench: what is on a table and why, and knobs that act at once, over the table in its window.
#include <array>
#include <deque>
#include <memory>
#include <string>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_window.hpp"

namespace apsidon::tool {

/// What the bench asks of the session that it is in.
struct BenchRequests {
  bool deal = false;
  bool new_round = false;
  bool save_table = false;
  bool save_feel = false;
};

class BenchView {
 public:
  explicit BenchView(SdlWindow& window);
  BenchView(const BenchView&) = delete;
  BenchView& operator=(const BenchView&) = delete;
  ~BenchView();

  /// Whether the event was the bench's own.
  bool take(const SDL_Event& event);
  void hear(const Event& event, const Playfield& field);
  /// Milliseconds of a frame that was drawn.
  void note_frame(double ms);
  /// A sentence over the table until the next one; empty: none.
  void set_message(std::string text) { message_ = std::move(text); }
  void open(bool open);
  [[nodiscard]] bool is_open() const { return open_; }
  /// What it takes from a window, so that nothing of the table lies below it.
  [[nodiscard]] Insets insets(Size window) const;

  /// Lays out what shows; `draw` is for the window's overlay then.
  BenchRequests update(Playfield& field, TableSetup& setup);
  void draw(SDL_Renderer* renderer) const;

 private:
  void pointed_at(Playfield& field, TableSetup& setup);
  void zone_knobs(Playfield& field, TableSetup& setup, ZoneId zone);
  void feel_knobs(Playfield& field);
  void time_knobs(Playfield& field, BenchRequests& requests) const;
  void moves_and_events(const Playfield& field);
  void outlines(const Playfield& field) const;
  void hint() const;

  SdlWindow& window_;
  struct Gui;
  std::unique_ptr<Gui> gui_;
  bool open_ = false;
  bool outlines_ = false;
  bool all_alike_ = true;  // knobs act on all zones of a name
  Hit last_ = {};          // what was pointed at last: it stays while the pointer is on the bench
  std::string message_ = {};
  std::deque<std::string> events_ = {};
  std::array<char, 64> filter_{};
  std::array<float, 120> frames_{};
  std::size_t frame_ = 0;
};

}  // namespace apsidon::tool
