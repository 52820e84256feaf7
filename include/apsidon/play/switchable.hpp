#pragma once
#include "apsidon/cards/ids.hpp"
#include "apsidon/layout/panel_id.hpp"

namespace apsidon {

/// A card, a zone or a panel: exactly one of them.
struct Switchable {
  constexpr Switchable() = default;
  /// A card may stand wherever such a thing is wanted.
  constexpr Switchable(CardId of) : card(of) {}  // NOLINT(google-explicit-constructor): it stands for one
  /// Likewise a zone.
  constexpr Switchable(ZoneId of) : zone(of) {}  // NOLINT(google-explicit-constructor)
  /// Likewise a panel.
  constexpr Switchable(PanelId of) : panel(of) {}  // NOLINT(google-explicit-constructor)

  CardId card = {};    ///< if it is a card
  ZoneId zone = {};    ///< if it is a zone
  PanelId panel = {};  ///< if it is a panel

  friend constexpr bool operator==(const Switchable&, const Switchable&) = default;
  /// Cards, then zones, then panels, by id.
  friend constexpr auto operator<=>(const Switchable&, const Switchable&) = default;
};

}  // namespace apsidon
