#pragma once
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/motion/glide.hpp"

namespace apsidon {

/// In which order a deal gives out the cards.
enum class DealOrder : std::uint8_t {
  rounds,  ///< the first card of every zone, then the second of every zone, …
  zones,   ///< all cards of the first zone, then all of the second, …
};

/// By what the departures of a choreography are apart.
enum class StaggerBy : std::uint8_t {
  order,     ///< each card leaves `stagger` seconds after the one before
  distance,  ///< the nearest leaves at once, the farthest after `stagger` seconds, the others in between
};

/// A named moment of a choreography, for sounds and the like.
struct Cue {
  std::string name = {};  ///< not empty
  float at = 0;           ///< share of the time from the first departure to the last arrival, [0, 1]

  friend bool operator==(const Cue&, const Cue&) = default;
};

/// How many cards move together.
struct Choreography {
  Glide glide = {};                 ///< of each card
  float stagger = 0.05f;            ///< seconds, [0, 60]
  StaggerBy by = StaggerBy::order;  ///< what decides which card leaves when
  float longest = 6;           ///< seconds in which all leave: more cards leave closer together, [0, 600]
  std::vector<Cue> cues = {};  ///< moments that are told, for sounds and sparks

  friend bool operator==(const Choreography&, const Choreography&) = default;
};

}  // namespace apsidon
