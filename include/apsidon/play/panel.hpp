#pragma once
#include <cstdint>
#include <string>

#include "apsidon/cards/ids.hpp"
#include "apsidon/layout/panel_id.hpp"

namespace apsidon {

/// What a panel is for; how it looks is the client's.
enum class PanelKind : std::uint8_t {
  caption,  ///< words
  counter,  ///< a number with a word to it
  button,   ///< can be tapped
  bar,      ///< filled by a share
  box,      ///< a place of the client's own
};

/// What a panel says, beside its words: how it is drawn.
enum class PanelTone : std::uint8_t { neutral, good, bad };

/// A named box that holds no cards.
struct PanelSetup {
  std::string name = {};            ///< not empty, unique among the panels
  PanelKind kind = PanelKind::box;  ///< how it is drawn
  /// What it says. "{sold} of {wanted} sold" has the numbers of those names, of the panel's seat, or else of
  /// the table; "{cards of stock}", "{points of south}" those of a zone or a seat. What no number is called
  /// stays as it is.
  std::string text = {};
  float fill = 1;  ///< of a bar: the share that is filled, [0, 1]
  /// Of a bar that a number fills, in place of `fill`: which one, called as in `text`, and with how much it
  /// is full, another one or a whole number: "water" and "10". Empty: none does.
  std::string filled_by = {};
  std::string full_at = {};             ///< of `filled_by`: with how much the bar is full
  PanelTone tone = PanelTone::neutral;  ///< how it is drawn
  SeatId seat = {};                     ///< whose it is: it glows while that is on turn
  bool round = false;                   ///< drawn as a circle, or with round ends
  bool hidden = false;                  ///< until it is shown
  bool off = false;                     ///< cannot be tapped until it is switched on
  std::string data = {};                ///< the client's own JSON object, kept verbatim; empty for none

  friend bool operator==(const PanelSetup&, const PanelSetup&) = default;
};

}  // namespace apsidon
