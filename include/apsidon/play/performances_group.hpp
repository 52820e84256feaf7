#pragma once
#include <functional>
#include <optional>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/script.hpp"

namespace apsidon {

/// How a script is performed.
struct PerformOptions {
  bool closes_gate = false;  ///< the gate is closed until it ends, for the reason "performing"
};

/// What moves together, and how: `field.performances().running(id)`.
class APSIDON_CORE_EXPORT PerformancesGroup : public play_detail::Group {
 public:
  /// Whether it has not ended; false for a stale id.
  [[nodiscard]] bool running(PerformanceId performance) const;
  /// How the table moves now.
  [[nodiscard]] const Feel& feel() const;

  /// Begins a script: its acts change the table as they begin, and the cards follow as the feel has it.
  /// Refused acts and stale ids are passed over. The id is what it is skipped, stopped and asked by; events
  /// say how it goes.
  PerformanceId perform(const Script& script, const PerformOptions& options = {});
  /// Deals: all cards fly, one after another, from the stock to where the table has them.
  PerformanceId deal();
  /// Shakes a card from side to side: as the feel has it, or as stated for this once.
  Verdict shake(CardId card, const std::optional<CardEffect>& effect = {});
  /// Lets a card swell, as a hint; likewise.
  Verdict pulse(CardId card, const std::optional<CardEffect>& effect = {});
  /// Whatever `calls` calls of this playfield is done when the performance has ended, or was stopped, in that
  /// order and after what was put behind it before: what a server sends while a deal is still to be seen. It
  /// runs now; each of its calls says yes, and what came of it events tell later. Of a performance that does
  /// not run any more all is done at once. A saved game has none of what still waits so.
  Verdict behind(PerformanceId performance, const std::function<void()>& calls);
  /// Goes to its end at once: all that is still to happen happens now.
  Verdict skip(PerformanceId performance);
  /// Ends it where it is: cards go home, acts that have not begun do not happen.
  Verdict stop(PerformanceId performance);
  /// How fast it goes, [0, 1000]; 0 pauses it. Another number is refused.
  Verdict set_speed(PerformanceId performance, double speed);
  /// How the table moves from now on; what is on its way keeps its way. Refused when a number is out of
  /// its range, which the verdict names.
  Verdict set_feel(Feel feel);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
