#pragma once
// What the four demo games have in common: the loop, and a log of all that came in.
#include <string>
#include <utility>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace games {

using namespace apsidon;

class Game {
 public:
  Game(TableSetup setup, const PlayfieldOptions& options)
      : setup_(std::move(setup)), options_(options), field_(setup_, options) {
    field_.set_recorder([this](const Input& input) { log_.push_back(input); });
  }
  Game(const Game&) = delete;
  Game& operator=(const Game&) = delete;
  virtual ~Game() = default;

  [[nodiscard]] const Playfield& field() const { return field_; }
  [[nodiscard]] Playfield& field() { return field_; }
  [[nodiscard]] bool over() const { return over_; }
  [[nodiscard]] bool won() const { return won_; }
  /// One line for people.
  [[nodiscard]] virtual std::string score() const = 0;

  /// Hands an input in, to be taken when its time has come.
  bool input(const Input& input) { return field_.input(input); }
  /// Goes on to a time, and does what is to be done about each event when it happens.
  void go_to(double time) {
    while (const auto event = field_.next_event(time)) {
      told_.push_back(*event);
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
  void finish(bool won) {
    over_ = true;
    won_ = won;
  }
  [[nodiscard]] ZoneId zone(const std::string& name) const { return *field_.table().find_zone(name); }
  [[nodiscard]] std::size_t cards_in(const std::string& name) const {
    return field_.table().zone(zone(name))->cards.size();
  }
  [[nodiscard]] PanelId panel(const std::string& name) const { return *field_.where().find_panel(name); }

 private:
  TableSetup setup_;
  PlayfieldOptions options_;
  Playfield field_;
  std::vector<Event> told_ = {};
  std::vector<Input> log_ = {};
  bool over_ = false;
  bool won_ = false;
};

}  // namespace games
