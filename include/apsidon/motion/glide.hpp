#pragma once
#include <optional>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/vec2.hpp"
#include "apsidon/motion/easing.hpp"
#include "apsidon/motion/spring.hpp"

namespace apsidon {

/// How one kind of way is travelled: in a stated time along a curve, or on a spring.
struct Glide {
  float seconds = 0.3f;               ///< of the way on a curve, [0, 60]
  Easing curve = ease_in_out;         ///< how the way is shared out over the time
  std::optional<Spring> spring = {};  ///< where it is set, in place of seconds and curve
  float lift = 0;                     ///< highest point of the way above its ends, card widths, [0, 10]
  float bend =
      0;  ///< an arc: how far its middle lies to the right of the straight way, share of that, [-4, 4]
  float flip_from = 0;  ///< share of the way at which a flip begins, [0, 1]
  float flip_to = 1;    ///< share of the way at which it has turned, [flip_from, 1]

  friend bool operator==(const Glide&, const Glide&) = default;
};

/// What an effect adds to a pose.
struct Offset {
  Vec2 move = {};        ///< px
  float rotation = 0;    ///< radians
  float scale = 0;       ///< 0.1 makes a card of scale 1 a tenth larger
  float brightness = 0;  ///< 0.2 makes it a fifth brighter
  float lift = 0;        ///< card widths

  friend constexpr bool operator==(const Offset&, const Offset&) = default;
};

/// How an effect goes to and fro.
enum class EffectKind {
  swing,  ///< to either side and dying away: refused
  pulse,  ///< swells and sinks: hinted
  kick,   ///< a quick push that dies away
};

/// Something that a card does beside its way, with a clock of its own. It begins and ends with nothing added,
/// at rest.
struct Effect {
  EffectKind kind = EffectKind::pulse;  ///< how it goes to and fro
  float seconds = 0.4f;                 ///< [0, 60]
  float swings = 1;                     ///< whole swings or pulses, [0, 100]
  Offset most = {};                     ///< what is added at the height of it

  friend constexpr bool operator==(const Effect&, const Effect&) = default;
};

}  // namespace apsidon
