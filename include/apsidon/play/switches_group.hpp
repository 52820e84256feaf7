#pragma once
#include <span>
#include <string>
#include <string_view>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/switchable.hpp"

namespace apsidon {

/// What is switched off, hidden or marked for now, by reasons: `field.switches().is_off(card)`. A thing is
/// off while at least one reason switches it off. Cards that are off cannot be picked up, zones that are give
/// and take nothing, panels that are cannot be tapped; they are drawn dimmed, and neither hovered nor
/// focused. What is hidden is off, is not drawn, and takes no hits. What is marked glows, and is played as
/// ever.
class APSIDON_CORE_EXPORT SwitchesGroup : public play_detail::Group {
 public:
  /// Whether it is switched off: by itself, a card with its zone, a panel within an overlay with that;
  /// likewise `is_hidden`.
  [[nodiscard]] bool is_off(Switchable what) const;
  /// Whether it is not drawn and takes no hits.
  [[nodiscard]] bool is_hidden(Switchable what) const;
  /// The reasons of its own that switch it off or hide it, in the order in which they were given. Valid until
  /// the next call of the playfield that is not const.
  [[nodiscard]] std::span<const std::string> reasons_off(Switchable what) const;
  /// Likewise, those that hide it.
  [[nodiscard]] std::span<const std::string> reasons_hidden(Switchable what) const;

  /// By what names the game has marked it itself, likewise.
  [[nodiscard]] std::span<const std::string> marks(Switchable what) const;

  // Of all six: what is not there is refused. `lasts`: the reason lasts from round to round, of a zone or a
  // panel; any other ends with its round. The game's own sentence for the reason says why a card cannot be
  // played. A panel that its set-up hides or switches off is so for the reason "".

  /// Off until this reason, and every other, is taken back with `switch_on`. A drag of a card that is
  /// switched off goes on, and finds no zone that takes it.
  Verdict switch_off(Switchable what, std::string_view reason = "", bool lasts = false);
  /// Takes a reason of `switch_off` back.
  Verdict switch_on(Switchable what, std::string_view reason = "");
  /// Hidden until this reason, and every other, is taken back with `show`.
  Verdict hide(Switchable what, std::string_view reason = "", bool lasts = false);
  /// Takes a reason of `hide` back.
  Verdict show(Switchable what, std::string_view reason = "");
  /// A hint, a winner, whose card it was: it glows until `unmark`, or for so many seconds of the table's
  /// clock, cut to [0, 3600], and no longer than its round; 0: until then. A zone's cards glow with it.
  /// Marked again by the same name, its time begins anew.
  Verdict mark(Switchable what, std::string_view name, double seconds = 0);
  /// Takes a mark back.
  Verdict unmark(Switchable what, std::string_view name);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
