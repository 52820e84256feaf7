#pragma once
// A session that does whatever can be done to a playfield, with what is there and with what is not, and knows
// what has to hold after each step. For the tests, and for the fuzzers.
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/input_log.hpp"
#include "support/random.hpp"

namespace apsidon::test {

/// The usual random table, with rules and a goal in code, a zone that scrolls, and a panel.
TableSetup with_rules_in_code(Random& r);

class Session {
 public:
  /// A hostile one also hands in numbers that are none, times that are late or far, and ids of nothing.
  Session(const TableSetup& setup, const PlayfieldOptions& options, bool hostile = false);
  Session(const Session&) = delete;
  Session& operator=(const Session&) = delete;

  /// Does something, whatever it is.
  void step(Random& r);
  /// Goes on, and hears what is told.
  void go(double seconds);
  /// Lets go of all that holds it, and goes on until it rests.
  void finish();
  /// Which of the properties does not hold; empty when all do.
  [[nodiscard]] std::string wrong(Random& r);
  /// The same of what has to hold at the end: that all rests, and that table and log tell the same once more.
  [[nodiscard]] std::string wrong_at_end() const;

  [[nodiscard]] const TableSetup& setup() const { return setup_; }
  [[nodiscard]] InputLog log() const;
  [[nodiscard]] const std::vector<Event>& told() const { return told_; }
  [[nodiscard]] const Playfield& field() const { return field_; }

 private:
  void play(Random& r);
  void point(Random& r);
  void edit(Random& r);
  void perform(Random& r);
  void change_options(Random& r);
  void change_rules(Random& r);
  void change_time(Random& r);
  void change_rounds(Random& r);
  [[nodiscard]] CardId card(Random& r) const;
  [[nodiscard]] ZoneId zone(Random& r) const;
  [[nodiscard]] Vec2 some_point(Random& r) const;
  [[nodiscard]] double number(Random& r, double low, double high) const;
  [[nodiscard]] double time(Random& r) const;
  [[nodiscard]] std::string wrong_cards() const;
  [[nodiscard]] std::string wrong_frame() const;
  [[nodiscard]] std::string wrong_answers(Random& r);
  void hear(const Event& event);

  TableSetup setup_;
  PlayfieldOptions options_;
  bool hostile_;
  Playfield field_;
  Playfield snapshot_;
  std::vector<Input> log_ = {};
  std::vector<Event> told_ = {};
  std::uint32_t last_performance_ = 0;
  std::uint32_t last_timer_ = 0;
  std::uint32_t last_countdown_ = 0;
  std::string wrong_event_ = {};
};

/// Where a replay of the session, through both file formats, differs from it; empty when it does not.
[[nodiscard]] std::string replay_differs(const Session& session);

}  // namespace apsidon::test
