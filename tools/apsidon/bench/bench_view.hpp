#pragma once
// The bench: what is on a table and why, and knobs that act at once, over the table in its window.
#include <array>
#include <optional>
#include <string>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_window.hpp"
#include "bench/bench_panel.hpp"
#include "window/log_player.hpp"

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
  explicit BenchView(SdlWindow& window) : window_(window), panel_(window) {}

  [[nodiscard]] BenchPanel& panel() { return panel_; }
  void hear(const Event& event, const Playfield& field);
  /// Lays out what shows, in every frame.
  BenchRequests update(Playfield& field, TableSetup& setup, const LogPlayer* log);

 private:
  /// What is under the pointer; it stays while the pointer is on the bench.
  void look_below(const Playfield& field);
  void pointed_at(Playfield& field, TableSetup& setup);
  void card_knobs(Playfield& field, TableSetup& setup, const Card& card);
  void zone_knobs(Playfield& field, TableSetup& setup, ZoneId zone);
  void plan_knobs(Playfield& field, TableSetup& setup, ZoneId zone);
  void zone_text(Playfield& field, TableSetup& setup);
  /// The zones that a knob of this one acts on.
  [[nodiscard]] std::vector<ZoneId> meant(const TableSetup& setup, ZoneId zone) const;
  void feel_knobs(Playfield& field);
  void time_knobs(Playfield& field, BenchRequests& requests);
  static void log_knobs(const LogPlayer& log, BenchRequests& requests);
  void moves_and_events(const Playfield& field);
  void layer_knobs();
  void outlines(const Playfield& field) const;

  SdlWindow& window_;
  BenchPanel panel_;
  std::array<bool, sketch_layers.size()> layers_{};  // what of the outlines shows
  double step_until_ = 0;                            // when the clock stands still again, or 0
  bool all_alike_ = true;                            // knobs act on all zones of a name
  Hit last_ = {};            // what was pointed at last: it stays while the pointer is on the bench
  std::size_t plan_ = 0;     // whose gaps the knobs set
  ZoneId edited_zone_ = {};  // whose text is edited, from which text, and what was wrong with it
  std::string edited_from_ = {};
  std::array<char, 8192> edited_{};
  std::string edit_problem_ = {};
  bool editing_ = false;
};

}  // namespace apsidon::tool
