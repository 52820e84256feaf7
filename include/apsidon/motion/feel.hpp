#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/motion/easing.hpp"

namespace apsidon {

/// How one kind of way is travelled.
struct Glide {
  float seconds = 0.3f;  ///< [0, 60]
  CubicBezier curve = ease_in_out;
  float lift = 0;  ///< highest point of the way above its ends, card widths, [0, 10]

  friend constexpr bool operator==(const Glide&, const Glide&) = default;
};

/// In which order a deal gives out the cards.
enum class DealOrder {
  rounds,  ///< the first card of every zone, then the second of every zone, …
  zones,   ///< all cards of the first zone, then all of the second, …
};

/// A deal: cards leave the stock one after another.
struct DealStyle {
  Glide glide{.seconds = 0.42f, .curve = {0.2f, 0.6f, 0.25f, 1}, .lift = 0.5f};
  float stagger = 0.055f;  ///< seconds between two cards, [0, 60]
  DealOrder order = DealOrder::rounds;

  friend constexpr bool operator==(const DealStyle&, const DealStyle&) = default;
};

/// A shake that dies away: what a card does when it is refused.
struct ShakeStyle {
  float seconds = 0.36f;  ///< [0, 60]
  float width = 0.07f;    ///< to either side, card widths, [0, 10]
  float swings = 3;       ///< whole swings, [0, 100]

  friend constexpr bool operator==(const ShakeStyle&, const ShakeStyle&) = default;
};

/// The timings and curves that a table moves with.
struct Feel {
  Glide move{.seconds = 0.26f, .curve = {0.25f, 0.6f, 0.3f, 1}, .lift = 0.2f};  ///< to another zone
  Glide shift{.seconds = 0.2f, .curve = ease_in_out};                ///< making room, closing a gap
  Glide flip{.seconds = 0.3f, .curve = ease_in_out, .lift = 0.15f};  ///< turning over in place
  Glide back{.seconds = 0.3f, .curve = {0.3f, 0.5f, 0.3f, 1}};       ///< after a drag that moved nothing
  Glide carry{.seconds = 0.07f, .curve = ease_out};                  ///< behind the pointer
  float carry_lift = 0.3f;                                           ///< of a held card, card widths, [0, 10]
  DealStyle deal = {};
  ShakeStyle shake = {};

  friend constexpr bool operator==(const Feel&, const Feel&) = default;
};

/// Throws Error when a number is out of its range.
APSIDON_CORE_EXPORT void check(const Feel& feel);

}  // namespace apsidon
