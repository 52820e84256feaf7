#pragma once
#include <cstdint>
#include <span>
#include <string_view>

#include "apsidon/cards/card.hpp"
#include "apsidon/cards/verdict.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/hit.hpp"

namespace apsidon {

/// What the player holds, hovers and has the keys on, and how the hand behaves: `field.hand().held()`.
class APSIDON_CORE_EXPORT HandGroup : public play_detail::Group {
 public:
  /// The run that is in the hand; no cards when none is. Of several the one that a pointer moved last. Of
  /// chosen cards it begins with the one that was gripped: `selection()` has the others.
  [[nodiscard]] Run held() const;
  /// The run that this pointer drags; no cards when it drags none.
  [[nodiscard]] Run held_by(std::uint32_t pointer) const;
  /// The zones that would take the held run, in order; empty when nothing is held. Valid until the next call
  /// of the playfield that is not const.
  [[nodiscard]] std::span<const ZoneId> targets() const;
  /// The zone that would get the held run if it were let go now; none when none would.
  [[nodiscard]] ZoneId aimed_at() const;
  /// The card that is hovered; none when none is.
  [[nodiscard]] CardId hovered() const;
  /// The card whose preview shows.
  [[nodiscard]] CardId previewed() const;
  /// The cards that the player has chosen, in the order of choosing. Valid until the next call of the
  /// playfield that is not const.
  [[nodiscard]] std::span<const CardId> selection() const;
  /// What keys act on; nothing before the first key.
  [[nodiscard]] Hit focused() const;
  /// What would be picked up with the focused card; no cards when nothing would.
  [[nodiscard]] Run focused_run() const;
  /// The pointer's shape here, as a CSS cursor keyword: "default", "pointer", "grab", "grabbing",
  /// "not-allowed" or "wait".
  [[nodiscard]] std::string_view cursor() const;

  /// How dragging behaves.
  [[nodiscard]] const DragOptions& drag_options() const;
  /// How hovering and zooming behave.
  [[nodiscard]] const HoverOptions& hover_options() const;
  /// When a press is a drag, a long press, a flick.
  [[nodiscard]] const GestureThresholds& thresholds() const;

  /// Puts the focus on a card, a zone or a button that keys can act on now, or with nothing takes it away;
  /// what is none of that is refused, and changes nothing.
  Verdict focus(const Hit& what);
  /// Chooses a card, as a tap does where a tap selects; refused where the zone's rules refuse it. What they
  /// would not let be chosen any more, or has left its zone, is not chosen any more.
  Verdict select(CardId card);
  /// The card is not chosen any more.
  Verdict deselect(CardId card);
  /// Nothing is chosen any more.
  Verdict clear_selection();
  /// Shows the preview of a card where its zone zooms, until another comes or goes; none ends it. Refused
  /// when it does not show.
  Verdict preview(CardId card);
  // Options hold from now on, not for what is pressed or held already; those out of their range are refused,
  // and the verdict names the number.

  /// How dragging behaves from now on.
  Verdict set_drag_options(const DragOptions& options);
  /// How hovering and zooming behave from now on.
  Verdict set_hover_options(const HoverOptions& options);
  /// When a press is a drag, a long press, a flick, from now on.
  Verdict set_thresholds(const GestureThresholds& thresholds);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
