#pragma once
#include <cstdint>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/quad.hpp"
#include "apsidon/play/panel.hpp"
#include "apsidon/play/switchable.hpp"

namespace apsidon {

/// What an item of a frame is.
enum class FrameKind : std::uint8_t {
  outline,  ///< the place of a zone in which nothing lies
  card,
  copy,  ///< a translucent copy of a card that is dragged
  zoom,  ///< a larger picture of a card; takes no hits
};

/// Why an item is marked; several may apply.
struct Marks {
  bool legal_target = false;  ///< would take what is held
  bool aimed_at = false;      ///< would get it if it were let go now
  bool held = false;          ///< is in the hand
  bool refused = false;       ///< shakes because it was refused
  bool focus = false;         ///< keys act on it
  bool hovered = false;       ///< the pointer is on it
  bool selected = false;      ///< the player has chosen it
  bool playable = false;      ///< its zone shows that it may be played
  bool locked = false;        ///< waits for the game's answer
  bool off = false;           ///< is switched off: drawn dimmed
  bool glows = false;         ///< the game has marked it, or its zone

  friend constexpr bool operator==(const Marks&, const Marks&) = default;
};

/// The brightness of what is switched off.
inline constexpr float dimmed_brightness = 0.6f;

/// One thing to draw. What changes while a card moves lies apart in a cache line of its own.
struct FrameItem {
  FrameKind kind = FrameKind::card;  ///< what is drawn
  bool back = false;                 ///< the card shows its back
  Marks marks = {};                  ///< why it is drawn otherwise
  /// Of a back, in a deck whose backs tell the suit: which, from 0; -1: none, or not known.
  std::int16_t back_suit = -1;
  CardId card = {};         ///< none for an outline
  ZoneId zone = {};         ///< where the card lies, or whose outline it is
  FaceId face = {};         ///< what shows; none for a back, an outline, or a face that is not known
  Size size = {};           ///< upright, px
  Rect clip = everywhere;   ///< of a zone that scrolls: nothing shows outside of it
  float brightness = 1;     ///< 1: as it is; below: darker
  std::uint64_t order = 0;  ///< items are sorted by it: layer, then order of departure or place in the zone
  /// From the upright item, its middle at the origin, to the window; without perspective.
  alignas(64) Matrix matrix = {};
  Quad corners = {};  ///< in the window, with perspective, clockwise from the top left of the side that shows
  float opacity = 1;  ///< 0: nothing shows
  float lift = 0;     ///< card widths above the table

  friend constexpr bool operator==(const FrameItem&, const FrameItem&) = default;
};

/// A panel of the plan that is to be drawn, below the cards unless it is an overlay or lies in one. Those are
/// last, each overlay before what lies in it.
struct FramePanel {
  PanelId panel = {};                   ///< which one
  Rect area = {};                       ///< px of the window
  bool overlay = false;                 ///< lies above the cards
  PanelKind kind = PanelKind::box;      ///< how it is drawn
  std::string text = {};                ///< what it says, its numbers put in
  float fill = 1;                       ///< of a bar, 0 to 1
  PanelTone tone = PanelTone::neutral;  ///< how it is drawn
  bool round = false;                   ///< drawn as a circle, or with round ends
  bool glows = false;                   ///< it is the turn of its seat, or the game has marked it
  bool off = false;                     ///< cannot be tapped now
  bool focus = false;                   ///< keys act on it

  friend bool operator==(const FramePanel&, const FramePanel&) = default;
};

/// A number of a card, to be drawn on it when it is drawn: it goes and turns with the card.
struct FrameBadge {
  std::uint32_t item = 0;   ///< on which it is: an index of the frame's items
  CardId card = {};         ///< of which card
  std::string number = {};  ///< what it is called
  std::string text = {};    ///< the number as text
  Rect place =
      {};  ///< shares of the upright card from its top left; `point_in(item.corners, …)` is in the window

  friend bool operator==(const FrameBadge&, const FrameBadge&) = default;
};

/// What the game has marked by name, `switches().mark(card, "hint")`: it glows. The panel of a seat on turn
/// is marked "on-turn". For those who draw each name otherwise.
struct FrameMark {
  Switchable of = {};     ///< what is marked
  std::string name = {};  ///< by which name

  friend bool operator==(const FrameMark&, const FrameMark&) = default;
};

/// What to draw now, back to front.
struct Frame {
  std::uint64_t revision = 0;           ///< grows when anything in the frame changes; the first frame has 1
  Size window = {};                     ///< px
  float pixel_ratio = 1;                ///< device pixels per px
  Size card = {};                       ///< px
  float corner_radius = 0;              ///< of a card, px
  std::vector<FrameItem> items = {};    ///< back to front
  std::vector<FrameBadge> badges = {};  ///< in the order of their items
  std::vector<FramePanel> panels = {};  ///< below the items, but for overlays
  std::vector<FrameMark> marked = {};   ///< marks of the game's, and of the turn
  Rect sweep = {};  ///< with which the player chooses what lies in it, above all else; empty: none is drawn
};

/// The soft shadow below an item: its outline, moved and blurred.
struct Shadow {
  Vec2 offset = {};  ///< px
  float blur =
      0;  ///< from where it is darkest to where it is gone, half inside and half outside its edge, px
  float opacity = 0;  ///< in its middle; 0: none

  friend constexpr bool operator==(const Shadow&, const Shadow&) = default;
};

/// The shadows of a frame's items, one for each: wider, farther and fainter the higher a card is. A card that
/// lies squared on another throws as much less as it shows less of that one, so that those of a pile do not
/// add up to a black rim. Outlines throw none. O(items); what `out` held is gone.
APSIDON_CORE_EXPORT void shadows_of(const Frame& frame, std::vector<Shadow>& out);

/// What of a frame is another than in an earlier one.
struct FrameChanges {
  bool all = false;  ///< anything may be: the list is to be read whole
  /// Otherwise the indices of the items that are drawn otherwise; some may come twice. Nothing else has
  /// changed.
  std::span<const std::uint32_t> items = {};
};

}  // namespace apsidon
