#pragma once
#include <span>
#include <string>
#include <string_view>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/gesture/pointer.hpp"
#include "apsidon/play/group.hpp"

namespace apsidon {

/// What opens and closes input: `field.gate().is_open()`. Closed while at least one reason holds it; then the
/// table takes no pointers and no keys. Overlays lie above it: buttons on them can still be tapped. While
/// cards are compared the gate is closed for the reason "comparing".
class APSIDON_CORE_EXPORT GateGroup : public play_detail::Group {
 public:
  /// Whether the table takes pointers and keys.
  [[nodiscard]] bool is_open() const;
  /// Whether this reason holds it closed.
  [[nodiscard]] bool closed_for(std::string_view reason) const;
  /// The reasons that hold it closed, in the order in which they were given. Valid until the next call of the
  /// playfield that is not const.
  [[nodiscard]] std::span<const std::string> reasons() const;

  /// Cancels what is pressed or dragged. The reason ends with the round, unless it `lasts`: the next round
  /// begins with an open gate.
  Verdict close(std::string_view reason, bool lasts = false);
  /// Takes this reason back; it opens with the last of them.
  Verdict open(std::string_view reason);
  /// Presses of this button are told (`tapped`) even while the gate is closed, wherever they are, and do
  /// nothing else: for what a game does at any time, like starting over.
  Verdict let_through(PointerButton button, bool on = true);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
