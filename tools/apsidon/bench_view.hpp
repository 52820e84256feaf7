#pragma once
// The bench: what is on a table and why, and knobs that act at once, over the table in its window.
#include <array>
#include <deque>
#include <memory>
#include <optional>
#include <string>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_window.hpp"
#include "log_player.hpp"

namespace apsidon::tool {

/// What the bench asks of the session that it is in.
struct BenchRequests {
  bool deal = false;
  bool new_round = false;
  bool save_table = false;
  bool save_feel = false;
  std::optional<bool> run_log = {};
  std::optional<double> log_at = {};  // where in the session that is played back
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
  /// A sentence over the table: until the next one, or for some seconds where it is good news; empty: none.
  void set_message(std::string text, bool good = false) {
    message_ = std::move(text);
    good_ = good;
    said_at_ = window_.now();
  }
  void open(bool open);
  [[nodiscard]] bool is_open() const { return open_; }
  /// What it takes from a window, so that nothing of the table lies below it.
  [[nodiscard]] Insets insets(Size window) const;

  /// Lays out what shows; `draw` is for the window's overlay then.
  BenchRequests update(Playfield& field, TableSetup& setup, const LogPlayer* log);
  void draw(SDL_Renderer* renderer) const;

 private:
  /// What is under the pointer; it stays while the pointer is on the bench.
  void look_below(const Playfield& field);
  void pointed_at(Playfield& field, TableSetup& setup);
  void card_knobs(Playfield& field, TableSetup& setup, const Card& card);
  void zone_knobs(Playfield& field, TableSetup& setup, ZoneId zone);
  void plan_knobs(Playfield& field, TableSetup& setup, ZoneId zone);
  void zone_text(Playfield& field, TableSetup& setup, ZoneId zone);
  /// The zones that a knob of this one acts on.
  [[nodiscard]] std::vector<ZoneId> meant(const TableSetup& setup, ZoneId zone) const;
  void feel_knobs(Playfield& field);
  void time_knobs(Playfield& field, BenchRequests& requests);
  static void log_knobs(const LogPlayer& log, BenchRequests& requests);
  void moves_and_events(const Playfield& field);
  void layer_knobs();
  void outlines(const Playfield& field) const;
  void hint() const;

  SdlWindow& window_;
  struct Gui;
  std::unique_ptr<Gui> gui_;
  bool open_ = false;
  bool hints_ = true;     // says at first how it is opened
  int frames_after_ = 0;  // still to be drawn after an event: lists that open need some
  std::array<bool, sketch_layers.size()> layers_{};  // what of the outlines shows
  double step_until_ = 0;                            // when the clock stands still again, or 0
  bool all_alike_ = true;                            // knobs act on all zones of a name
  Hit last_ = {};  // what was pointed at last: it stays while the pointer is on the bench
  std::string message_ = {};
  bool good_ = false;  // news, and no complaint: it goes by itself
  double said_at_ = 0;
  std::deque<std::string> events_ = {};
  std::array<char, 64> filter_{};
  std::size_t plan_ = 0;     // whose gaps the knobs set
  ZoneId edited_zone_ = {};  // whose text is edited, from which text, and what was wrong with it
  std::string edited_from_ = {};
  std::array<char, 8192> edited_{};
  std::string edit_problem_ = {};
  bool editing_ = false;
  std::array<float, 120> frames_{};
  std::size_t frame_ = 0;
};

}  // namespace apsidon::tool
