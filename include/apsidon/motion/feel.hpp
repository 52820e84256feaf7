#pragma once
#include <string>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/angle.hpp"
#include "apsidon/motion/choreography.hpp"

namespace apsidon {

/// What a shuffle looks like. The order that comes of it is the same.
enum class ShuffleLook : std::uint8_t {
  riffle,    ///< two halves beside each other, and into one another
  wash,      ///< all over the table, and back
  straight,  ///< each card straight to its new place
};

/// An effect whose size goes by the card.
struct CardEffect {
  float seconds = 0.4f;  ///< [0, 60]
  float swings = 1;      ///< [0, 100]
  float width = 0;       ///< how far to the side, card widths, [0, 10]
  Angle turn = {};       ///< how far it turns, -360° to 360°
  float growth = 0;      ///< how much larger it gets, [-1, 10]
  float brightness = 0;  ///< how much brighter it gets, [-1, 10]
  float lift = 0;        ///< card widths, [0, 10]

  friend constexpr bool operator==(const CardEffect&, const CardEffect&) = default;
};

/// The effect for a card of this width, px.
[[nodiscard]] APSIDON_CORE_EXPORT Effect effect_of(const CardEffect& effect, EffectKind kind,
                                                   float card_width);

/// The timings, curves and springs that a table moves with. What is here is the brisk one; `springy()` and
/// `calm()` are others, and files hold any.
struct Feel {
  std::string name = "brisk";  ///< for people, and in files
  Choreography move{.glide = {.seconds = 0.26f, .curve = {0.25f, 0.6f, 0.3f, 1}, .lift = 0.2f},
                    .stagger = 0};  ///< to another zone; its cues are told of a script's moves only
  Glide shift{.seconds = 0.2f, .curve = ease_in_out};                ///< making room, closing a gap
  Glide flip{.seconds = 0.3f, .curve = ease_in_out, .lift = 0.15f};  ///< flipping in place
  Angle flip_axis = {};  ///< of every flip: 0° about the vertical, 90° about the horizontal, -180° to 180°
  Glide back{.seconds = 0.3f, .curve = {0.3f, 0.5f, 0.3f, 1}};  ///< after a drag that moved nothing
  Glide carry{.seconds = 0.07f, .curve = ease_out};             ///< behind the pointer
  float carry_lift = 0.3f;                                      ///< of a held card, card widths, [0, 10]
  Angle tilt_angle = Angle::degrees(8);  ///< the most by which a held card leans into its way, 0° to 90°
  float tilt_speed = 12;                 ///< at which it leans most, card widths per second, [0.1, 1000]
  Spring tilt{.period = 0.4f, .damping = 1};  ///< damped by less than 1 it counts as 1, and leans no further
  Glide raise{.seconds = 0.14f, .curve = ease_out};  ///< a hovered card comes out, or goes back
  Glide zoom{.seconds = 0.16f, .curve = ease_out};   ///< the larger picture of a card comes, or goes
  DealOrder deal_order = DealOrder::rounds;          ///< which card is dealt after which
  /// Cards that are dealt.
  Choreography deal{.glide = {.seconds = 0.42f, .curve = {0.2f, 0.6f, 0.25f, 1}, .lift = 0.5f},
                    .stagger = 0.055f};
  /// Cards that come together onto one zone.
  Choreography gather{.glide = {.seconds = 0.4f, .curve = {0.4f, 0, 0.3f, 1}, .lift = 0.35f},
                      .stagger = 0.3f,
                      .by = StaggerBy::distance};
  ShuffleLook shuffle_look = ShuffleLook::riffle;  ///< how a shuffle looks
  /// Each round of a shuffle.
  Choreography shuffle{.glide = {.seconds = 0.22f, .curve = ease_in_out, .lift = 0.3f}, .stagger = 0.012f};
  int shuffle_rounds = 2;  ///< how often it is done, [1, 10]
  /// Cards taken from a stock.
  Choreography draw{.glide = {.seconds = 0.36f,
                              .curve = {0.3f, 0.5f, 0.2f, 1},
                              .lift = 0.5f,
                              .flip_from = 0.1f,
                              .flip_to = 0.75f},
                    .stagger = 0.09f};
  /// Several cards that are flipped at once.
  Choreography reveal{.glide = {.seconds = 0.3f, .curve = ease_in_out, .lift = 0.2f}, .stagger = 0.05f};
  /// Cards that are won, and fade away.
  Choreography collect{.glide = {.seconds = 0.5f, .curve = {0.5f, 0, 0.8f, 0.6f}, .lift = 0.6f},
                       .stagger = 0.06f};
  /// The wreath at the end of a game.
  Choreography finale{.glide = {.seconds = 1.1f, .curve = {0.3f, 0.1f, 0.3f, 1}, .lift = 1.2f, .bend = 0.35f},
                      .stagger = 0.05f};
  float finale_stay = 0.5f;  ///< seconds that the cards of a finale stay before they go home, [0, 60]
  float badge = 0.3f;        ///< height of a number on a card, card widths, [0.1, 1]; 16 px at least
  CardEffect shake{.seconds = 0.36f, .swings = 3, .width = 0.07f};  ///< refused
  CardEffect pulse{
      .seconds = 0.7f, .swings = 2, .growth = 0.05f, .brightness = 0.12f, .lift = 0.15f};  ///< hinted

  friend bool operator==(const Feel&, const Feel&) = default;
};

/// Throws Error when a number is out of its range.
APSIDON_CORE_EXPORT void check(const Feel& feel);

/// On springs that overshoot.
[[nodiscard]] APSIDON_CORE_EXPORT Feel springy();
/// Slow and level.
[[nodiscard]] APSIDON_CORE_EXPORT Feel calm();
/// The same events at the same times, without travel: cards are where they go when they get there, and show
/// their other side when they were edge-on. What was on a spring takes its period.
[[nodiscard]] APSIDON_CORE_EXPORT Feel reduced(const Feel& feel);

}  // namespace apsidon
