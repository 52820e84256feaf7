#pragma once
// What the four demo games have in common: a playfield that goes on in even ticks, so that what a game does
// about an event happens at the same time in a replay.
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace games {

using namespace apsidon;

class Game {
 public:
  Game(TableSetup setup, const PlayfieldOptions& options) : field_(std::move(setup), options) {}
  virtual ~Game() = default;

  [[nodiscard]] const Playfield& field() const { return field_; }
  [[nodiscard]] Playfield& field() { return field_; }
  [[nodiscard]] bool over() const { return over_; }
  [[nodiscard]] bool won() const { return won_; }
  /// One line for people.
  [[nodiscard]] virtual std::string score() const = 0;

  /// Everything that comes in goes through here.
  bool input(const Input& input) {
    go_to(time_of(input));
    log_.push_back(input);
    return field_.input(input);
  }
  /// Goes on to a time; what happens is heard at most a sixtieth of a second later.
  void go_to(double time) {
    for (; tick_at(ticks_ + 1) <= time; ++ticks_) {
      field_.advance_to(tick_at(ticks_ + 1));
      const std::vector<Event> heard(field_.events().begin(), field_.events().end());
      for (const Event& event : heard) {
        told_.push_back(event);
        hear(event);
      }
    }
  }
  /// All that came in so far, to be replayed.
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
  [[nodiscard]] PanelId panel(const std::string& name) const {
    for (std::uint32_t i = 0; i < field_.where().panels().size(); ++i) {
      if (field_.where().panels()[i].name == name) return {i + 1};
    }
    return {};
  }

 private:
  static double tick_at(std::int64_t tick) { return static_cast<double>(tick) / 60; }

  Playfield field_;
  std::int64_t ticks_ = 0;
  std::vector<Event> told_ = {};
  std::vector<Input> log_ = {};
  bool over_ = false;
  bool won_ = false;
};

}  // namespace games
