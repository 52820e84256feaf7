#pragma once
// What a layout is asked for, and what it did to the cards: values that pass between the rooms of play. Not
// installed.
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/geometry/pose.hpp"
#include "apsidon/layout/laid.hpp"
#include "apsidon/play/script.hpp"

namespace apsidon::play_detail {

/// Why resting poses changed, which decides how cards get to the new ones.
enum class Change : std::uint8_t {
  first,
  table,
  window,
  room,
  plan,  ///< zones lie in another way, or elsewhere
};

/// Where a card rests.
struct Rest {
  Pose neutral = {};
  Pose resting = {};
};

/// Room for so many more cards before the card at `index`.
struct Insertion {
  ZoneId zone = {};
  std::size_t index = 0;
  std::size_t count = 1;
};

/// A card that waits for an answer at a zone in which it does not lie yet, as it would lie there.
struct Guest {
  ZoneId zone = {};
  CardId card = {};
  std::uint32_t slot = 0;
  LaidCard laid = {};
  std::size_t before = on_top;  ///< the index of the zone's card below which it would lie

  static constexpr std::size_t on_top = ~std::size_t{0};
  friend bool operator==(const Guest&, const Guest&) = default;
};

/// A guest that a layout has given another pose.
struct GuestShift {
  std::uint32_t slot = 0;
  Pose goal = {};
  bool arrives = false;  ///< it was no guest of this zone before
};

/// What resting poses depend on beside the table and the window.
struct LayoutRequest {
  CardId raised = {};                          ///< comes out of its layout
  std::span<const Insertion> insertions = {};  ///< of one zone the last counts
  std::span<const Guest> guests = {};          ///< waiting, in their order
  std::span<const CardId> held = {};           ///< follow a pointer; the others may close up
  std::span<const CardId> chosen = {};         ///< come out of their rows
  float chosen_rise = 0;                       ///< so far, share of a card's height
  float flip_axis = 0;                         ///< radians
};

/// A card that a layout has given another resting pose, or found in another zone.
struct Shift {
  std::uint32_t slot = 0;
  CardId card = {};
  bool appeared = false;  ///< it is new on the table; nothing else applies then
  bool other_zone = false;
  bool flips = false;
  std::uint64_t rested_at = 0;  ///< its drawing order where it rested before
  Pose before = {};             ///< its resting pose before
};

/// Who sends the cards that a change of the table moves: the feel, or an act of a performance, whose cards
/// are collected for it.
struct Sender {
  PerformanceId acting = {};
  bool act_sends = false;
  bool within_too = false;  ///< the act sends those, too, that only lie elsewhere in their zone
  std::vector<Shift> for_act = {};
};

}  // namespace apsidon::play_detail
