#pragma once
// What the four demo games have in common: the loop, a log of all that came in, the buttons and the sentence
// at the lower edge, the box at the end, and sounds.
#include <functional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace games {

using namespace apsidon;

/// What a client with a loudspeaker would play when something happens; empty: nothing.
inline std::string_view sound_of(const Event& event) {
  switch (event.kind) {
    case EventKind::picked_up:
      return "lift";
    case EventKind::dropped:
    case EventKind::landed:
      return "lay";
    case EventKind::edge_on:
      return "turn";
    case EventKind::departed:
      return "slide";
    case EventKind::pick_refused:
    case EventKind::refused:
      return "no";
    case EventKind::matched:
      return "chime";
    case EventKind::won:
      return "fanfare";
    case EventKind::time_up:
    case EventKind::no_moves:
      return "sigh";
    default:
      return event.kind == EventKind::tapped && event.panel ? "click" : "";
  }
}

class Game {
 public:
  Game(TableSetup setup, const PlayfieldOptions& options)
      : setup_(std::move(setup)), options_(options), field_(setup_, options) {
    field_.set_recorder([this](const Input& input) { log_.push_back(input); });
    for (const PanelSetup& panel : setup_.panels) {
      if (panel.name == "help") help_ = panel.text;
    }
  }
  Game(const Game&) = delete;
  Game& operator=(const Game&) = delete;
  virtual ~Game() = default;

  [[nodiscard]] const Playfield& field() const { return field_; }
  [[nodiscard]] Playfield& field() { return field_; }
  [[nodiscard]] bool over() const { return over_; }
  [[nodiscard]] bool won() const { return won_; }
  /// Whether a button has asked for another round: that is another game.
  [[nodiscard]] bool asks_for_round() const { return asks_for_round_; }
  /// One line for people.
  [[nodiscard]] virtual std::string score() const = 0;
  void set_sounds(std::function<void(std::string_view)> play) { sounds_ = std::move(play); }

  /// Hands an input in, to be taken when its time has come.
  bool input(const Input& input) { return field_.input(input); }
  /// Goes on to a time, and does what is to be done about each event when it happens.
  void go_to(double time) {
    if (const Size window = field_.frame().window; window != window_) fit(window_ = window);
    while (const auto event = field_.next_event(time)) {
      told_.push_back(*event);
      if (const auto sound = sound_of(*event); sounds_ && !sound.empty()) sounds_(sound);
      serve(*event);
      hear(*event);
    }
  }
  /// What the session began with, and all that came in so far: it replays without this class.
  [[nodiscard]] const TableSetup& setup() const { return setup_; }
  [[nodiscard]] const PlayfieldOptions& options() const { return options_; }
  [[nodiscard]] const std::vector<Input>& log() const { return log_; }
  /// All that has happened so far.
  [[nodiscard]] const std::vector<Event>& told() const { return told_; }

 protected:
  virtual void hear(const Event& event) = 0;
  /// The window has another size, or is seen for the first time.
  virtual void fit(Size) {}
  /// What the box says at the end; a game that is won shows all its cards before.
  void finish(bool won, const std::string& result) {
    over_ = true;
    won_ = won;
    result_ = result;
    if (!won) return show_result();
    finale_ = field_.performances().perform(finale());
  }
  /// The sentence at the lower edge.
  void say(const std::string& sentence) {
    if (sentence == said_) return;
    said_ = sentence;
    field_.edits().set_panel(panel("help"), sentence);
  }
  [[nodiscard]] ZoneId zone(const std::string& name) const { return *field_.table().find_zone(name); }
  [[nodiscard]] std::size_t cards_in(const std::string& name) const {
    return field_.table().zone(zone(name))->cards.size();
  }
  /// Stale where the table has none of this name.
  [[nodiscard]] PanelId panel(const std::string& name) const {
    return field_.where().find_panel(name).value_or(PanelId{});
  }

 private:
  /// What is the same in all games: buttons, why something is refused, and the end that is taken back.
  void serve(const Event& event) {
    const auto is_tapped = [&](const char* name) {
      return event.kind == EventKind::tapped && event.panel && event.panel == panel(name);
    };
    if (is_tapped("new") || is_tapped("again")) asks_for_round_ = true;
    if (is_tapped("undo") || is_tapped("back")) (void)field_.moves().undo();
    if (event.kind == EventKind::refused || event.kind == EventKind::pick_refused) {
      say(describe(event.verdict, field_.table()));
    } else if (event.kind == EventKind::picked_up || event.kind == EventKind::dropped ||
               event.kind == EventKind::undone) {
      say(help_);
    }
    if (event.kind == EventKind::ended && event.performance == finale_ && over_) show_result();
    if (event.kind == EventKind::undone && over_) {
      over_ = won_ = false;
      field_.switches().hide(panel("over"));
    }
    const PanelId undo = panel("undo");
    const bool can = field_.moves().can_undo();
    if (undo && field_.switches().is_off(undo) == can)
      can ? field_.switches().switch_on(undo) : field_.switches().switch_off(undo);
  }

  void show_result() {
    field_.edits().set_panel(panel("result"), result_);
    field_.edits().set_tone(panel("result"), won_ ? PanelTone::good : PanelTone::neutral);
    field_.edits().set_panel(panel("score"), score());
    if (won_) field_.switches().switch_off(panel("back"));
    field_.switches().show(panel("over"));
  }

  TableSetup setup_;
  PlayfieldOptions options_;
  Playfield field_;
  std::vector<Event> told_ = {};
  std::vector<Input> log_ = {};
  std::function<void(std::string_view)> sounds_ = {};
  Size window_ = {};
  std::string help_ = {};
  std::string said_ = {};
  std::string result_ = {};
  PerformanceId finale_ = {};
  bool asks_for_round_ = false;
  bool over_ = false;
  bool won_ = false;
};

}  // namespace games
