#pragma once
#include <cstdint>
#include <string>

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
  std::string name = {};  ///< not empty, unique among the panels
  PanelKind kind = PanelKind::box;
  std::string text = {};
  float fill = 1;  ///< of a bar: the share that is filled, [0, 1]
  PanelTone tone = PanelTone::neutral;
  bool round = false;     ///< drawn as a circle, or with round ends
  bool hidden = false;    ///< until it is shown
  bool off = false;       ///< cannot be tapped until it is switched on
  std::string data = {};  ///< the client's own JSON object, kept verbatim; empty for none

  friend bool operator==(const PanelSetup&, const PanelSetup&) = default;
};

}  // namespace apsidon
