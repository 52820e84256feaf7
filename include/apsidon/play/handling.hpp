#pragma once
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/angle.hpp"
#include "apsidon/geometry/vec2.hpp"

namespace apsidon {

/// What a card does while the pointer is over it.
enum class HoverKind : std::uint8_t {
  none,
  lift,   ///< rises where it is; its neighbours stay
  raise,  ///< comes out as its layout has it, and its neighbours make room
};

/// What a tap on a zone does, beside the event.
enum class TapKind : std::uint8_t {
  none,
  flip,      ///< flips the card, as the zone's rules have it
  pick,      ///< picks the run up; the next tap on a place that takes it lays it there
  draw,      ///< takes from the stock, or recycles the waste into it
  send,      ///< sends the run to the best place that takes it
  reorient,  ///< turns the card from upright to sideways or back, likewise
  select,    ///< chooses the card, as the zone's rules have it, or takes it out of what is chosen
  /// By a mouse chooses it alone, with Ctrl or Command as `select`; by fingers and keys as `select`. With
  /// Shift both choose all from the card chosen last to this one, in one zone.
  select_one,
};

/// Where a card goes that is flicked out of its zone's area, by the direction of the flick: that to which it
/// goes farther, across or down. None: nowhere.
struct FlickTargets {
  ZoneId left = {};   ///< of a flick to the left
  ZoneId right = {};  ///< of a flick to the right
  ZoneId up = {};     ///< of a flick up
  ZoneId down = {};   ///< of a flick down

  /// The same in every direction.
  [[nodiscard]] static constexpr FlickTargets anywhere(ZoneId to) { return {to, to, to, to}; }

  friend bool operator==(const FlickTargets&, const FlickTargets&) = default;
};

/// How a zone shows which of its cards may be played: those of `legal_moves`, while it is the player's turn.
enum class PlayableLook : std::uint8_t {
  none,  ///< not at all
  mark,  ///< those that may are marked
  dim,   ///< those that may not are dimmed
};

/// What a player's hand may do with a zone, beside what its rules say.
struct ZoneHandling {
  HoverKind hover = HoverKind::none;  ///< what a card does under the pointer
  bool zoom = false;                  ///< a card that is hovered, or pressed long, shows a larger picture
  bool zooms_beside_zone =
      false;  ///< that stands beside the whole zone, as of a hand always; else by the card
  /// A card of it that is held, or waits in another zone for its answer, leaves no gap; where cards are
  /// sorted by dragging a held one leaves none anyway.
  bool closes_gaps = false;
  TapKind tap = TapKind::none;         ///< what a tap on a card or the zone does
  TapKind double_tap = TapKind::none;  ///< any but pick; a single tap waits for it then
  FlickTargets flick_to = {};          ///< where flicked cards go
  /// Shows which cards may be played; one that may not shakes at a tap that does nothing else, and is told of
  /// with the reason.
  PlayableLook playable = PlayableLook::none;

  friend bool operator==(const ZoneHandling&, const ZoneHandling&) = default;
};

/// Where the pointer holds a card.
enum class Grip : std::uint8_t {
  keep,    ///< the card is held where it was touched
  centre,  ///< the pointer is in the middle of the lowest card of the run
};

/// What follows the pointer in a drag.
enum class DragLook : std::uint8_t {
  card,  ///< the cards themselves follow the pointer
  copy,  ///< translucent copies do, and the cards stay until they are dropped
};

/// How cards are dragged.
struct DragOptions {
  Grip grip = Grip::keep;          ///< where the pointer holds the card
  DragLook look = DragLook::card;  ///< what follows the pointer
  float held_opacity = 1;          ///< of held cards, [0, 1]
  /// How much of a held card has to lie over a zone that takes it, share of the card, for that to be aimed
  /// at, [0, 1]. Being under the pointer counts as half a card; of several the one with most is aimed at.
  float aim_overlap = 0.1f;
  /// A release so far to one side of where the drag began, card widths, is a flick in that direction, however
  /// slow, [0, 100]; 0: only fast ones are.
  float swipe = 0;
  bool several = false;       ///< each pointer may drag a run of its own, at once with those of others
  float above_finger = 0.3f;  ///< how far a card is held above a finger, share of its height, [0, 4]
  float copy_opacity = 0.6f;  ///< [0, 1]

  friend bool operator==(const DragOptions&, const DragOptions&) = default;
};

/// Where a larger picture stands beside its card.
enum class ZoomSide : std::uint8_t { above, left, right, below };
/// How a card is drawn while its larger picture shows.
enum class ZoomedLook : std::uint8_t { shown, dimmed, hidden };

/// What happens under a pointer that presses nothing.
struct HoverOptions {
  double in_seconds = 0;      ///< delay before a card is hovered, [0, 10]
  double out_seconds = 0.06;  ///< delay before the hover ends over nothing, [0, 10]
  float rise = 0.04f;         ///< how far up a card goes that rises in place, share of its height, [-4, 4]
  float growth = 0.03f;       ///< how much larger it gets, [-1, 10]
  Angle turn = {};            ///< how far it turns, -180° to 180°
  float lift = 0.2f;          ///< card widths, [0, 10]
  float chosen_rise = 0.2f;   ///< how far a chosen card comes out of its row, share of its height, [-4, 4]
  float margin = 3;  ///< px that the pointer has to go beyond the card's border to leave it, [0, 100]
  double zoom_seconds = 0.35;  ///< of hovering until the larger picture comes, [0, 60]
  float zoom = 2.2f;    ///< its size, times that of the table's cards, as far as the window has room, [1, 20]
  float zoom_gap = 12;  ///< px to the card and to the window's edge, [0, 1000]
  std::vector<ZoomSide> zoom_sides = {ZoomSide::above, ZoomSide::right, ZoomSide::left,
                                      ZoomSide::below};  ///< the first that has room
  ZoomedLook zoomed = ZoomedLook::shown;                 ///< the card itself meanwhile

  friend bool operator==(const HoverOptions&, const HoverOptions&) = default;
};

}  // namespace apsidon
