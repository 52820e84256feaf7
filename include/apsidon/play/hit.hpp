#pragma once
#include <cstdint>

#include "apsidon/cards/ids.hpp"
#include "apsidon/layout/panel_id.hpp"

namespace apsidon {

/// What lies at a point.
struct Hit {
  CardId card = {};    ///< none where only a zone is hit
  ZoneId zone = {};    ///< none where no zone is hit
  PanelId panel = {};  ///< only where neither card nor zone is

  friend constexpr bool operator==(const Hit&, const Hit&) = default;
};

/// What one thing at a point has to do with the answer.
struct Explained {
  /// Why a thing is the answer, or is not.
  enum class Because : std::uint8_t {
    answer,   ///< this is what a press takes
    covered,  ///< something that takes hits lies above it
    held,     ///< it is in the hand, and takes no hits
    zoomed,   ///< it is a preview, and takes no hits
    clipped,  ///< its zone is scrolled, and does not show it here
  };
  Hit what = {};                       ///< a card, a zone or a panel
  Because because = Because::covered;  ///< why it is the answer, or is not

  friend bool operator==(const Explained&, const Explained&) = default;
};

}  // namespace apsidon
