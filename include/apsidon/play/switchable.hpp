#pragma once
#include "apsidon/cards/ids.hpp"
#include "apsidon/layout/panel_id.hpp"

namespace apsidon {

/// A card, a zone or a panel: exactly one of them.
struct Switchable {
  constexpr Switchable() = default;
  constexpr Switchable(CardId of) : card(of) {}    // NOLINT(google-explicit-constructor): it stands for one
  constexpr Switchable(ZoneId of) : zone(of) {}    // NOLINT(google-explicit-constructor)
  constexpr Switchable(PanelId of) : panel(of) {}  // NOLINT(google-explicit-constructor)

  CardId card = {};
  ZoneId zone = {};
  PanelId panel = {};

  friend constexpr bool operator==(const Switchable&, const Switchable&) = default;
  friend constexpr auto operator<=>(const Switchable&, const Switchable&) = default;
};

}  // namespace apsidon
