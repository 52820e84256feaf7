#include "window/log_player.hpp"

#include <algorithm>
#include <variant>

namespace apsidon::tool {

double LogPlayer::length() const {
  constexpr double after = 1;  // for what the last input began
  return log_.inputs.empty() ? after : time_of(log_.inputs.back()) - log_.options.start_time + after;
}

PlayfieldOptions LogPlayer::options(double now) const {
  PlayfieldOptions options = log_.options;
  options.start_time = now;
  return options;
}

void LogPlayer::feed(Playfield& field, double now) {
  if (last_ < 0) later_ = now - log_.options.start_time;
  if (running_) {
    if (field.time().stopped_for("log")) {
      field.time().release("log");
      later_ = now - at_ - log_.options.start_time;
    }
    at_ = now - later_ - log_.options.start_time;
    hand_in(field, at_);
    if (at_ >= length()) running_ = false;
  } else if (!field.time().stopped_for("log") && at_ < length()) {
    field.time().hold("log");
  }
  last_ = now;
}

void LogPlayer::go_to(double at, const TableSetup& setup, std::optional<Playfield>& field, double now) {
  at_ = std::clamp(at, 0.0, length());
  later_ = now - at_ - log_.options.start_time;
  last_ = now;
  next_ = 0;
  field.emplace(setup, options(now - at_));
  hand_in(*field, at_);
}

/// The table's clock goes by the window's: what came in then is to come now.
void LogPlayer::hand_in(Playfield& field, double until) {
  for (; next_ < log_.inputs.size(); ++next_) {
    const double time = time_of(log_.inputs[next_]);
    if (time - log_.options.start_time > until) return;
    (void)field.input(at_time(log_.inputs[next_], time + later_));
  }
}

}  // namespace apsidon::tool
