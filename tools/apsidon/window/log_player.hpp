#pragma once
// A session that is played back, and can be gone through.
#include <optional>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/input_log.hpp"

namespace apsidon::tool {

class LogPlayer {
 public:
  explicit LogPlayer(InputLog log) : log_(std::move(log)) {}

  /// Seconds of the session.
  [[nodiscard]] double length() const;
  [[nodiscard]] double at() const { return at_; }
  [[nodiscard]] bool running() const { return running_; }
  /// What its playfield begins with, so that it is at its start at this time.
  [[nodiscard]] PlayfieldOptions options(double now) const;

  /// Hands over what has come due since the last call. While it does not run the table stands still.
  void feed(Playfield& field, double now);
  void run(bool running) { running_ = running; }
  /// The session as it was at this time of it: from its beginning, at once. O(events until then).
  void go_to(double at, const TableSetup& setup, std::optional<Playfield>& field, double now);

 private:
  void hand_in(Playfield& field, double until);

  InputLog log_;
  std::size_t next_ = 0;
  double at_ = 0;
  double last_ = -1;  // when it was fed
  double later_ = 0;  // by which the window's clock is ahead of the session's
  bool running_ = true;
};

}  // namespace apsidon::tool
