#pragma once
// What a tap means, and a key that acts on what is focused. Not installed.
#include "apsidon/play/hit.hpp"
#include "apsidon/play/setup.hpp"
#include "play/requests/hand.hpp"

namespace apsidon::play_detail {

/// What a tap is looked at with.
struct TapView {
  const TableSetup& setup;
  const Hand::Carry& carry;  ///< what is in the hand, if anything is
  bool open = true;          ///< the gate
  bool off = false;          ///< what was pressed is a panel that is switched off
};

/// What comes of a tap. Of all that it does telling comes first, and what it does on its zone last.
///
/// Invariant: through a closed gate it is told and does nothing; with something in the hand it lays that
/// down, or puts it back.
struct Tap {
  Hit on = {};             ///< what was pressed, without a card that is not there any more
  bool told = false;       ///< an event tells of it
  bool drops = false;      ///< what is in the hand goes to the zone
  bool puts_back = false;  ///< what is in the hand goes back
  TapKind does = TapKind::none;
};

/// A tap, or the second of two, on what was pressed.
[[nodiscard]] Tap read_tap(const Gesture& gesture, const Hit& pressed, const TapView& view);

/// A key that acts on what is focused. `twice`: as a double tap does, where that does something. What is told
/// of is tapped; of all else a card is picked up.
[[nodiscard]] Tap read_act(const Hit& on, bool twice, const TableSetup& setup);

}  // namespace apsidon::play_detail
