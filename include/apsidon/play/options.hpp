#pragma once
#include <cstddef>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/gesture/thresholds.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/handling.hpp"

namespace apsidon {

/// What a playfield begins with, beside its table.
struct PlayfieldOptions {
  Size window{1280, 800};             ///< logical px; may be empty
  float pixel_ratio = 1;              ///< device pixels in a logical one, > 0
  Insets insets = {};                 ///< what of the window stays free, px: a phone's cut-outs
  float corner_radius = 0.07f;        ///< of a card, share of its width, [0, 0.5]
  Feel feel = {};                     ///< how cards move
  GestureThresholds thresholds = {};  ///< when a press is a drag, a long press, a flick
  DragOptions drag = {};              ///< how dragging behaves
  HoverOptions hover = {};            ///< how hovering and zooming behave
  SeatId seat = {};                   ///< who plays here; none: whoever is on turn, or a table without seats
  std::size_t most_undos = 1000;      ///< moves that can be taken back, [1, 1e15]
  double start_time = 0;              ///< seconds; the time of the first frame

  friend bool operator==(const PlayfieldOptions&, const PlayfieldOptions&) = default;
};

/// Throws Error when an option is out of its range.
APSIDON_CORE_EXPORT void check(const PlayfieldOptions& options);

}  // namespace apsidon
