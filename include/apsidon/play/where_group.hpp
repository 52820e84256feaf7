#pragma once
#include <array>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/cards/card.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/geometry/pose.hpp"
#include "apsidon/layout/laid.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/hit.hpp"
#include "apsidon/play/panel.hpp"
#include "apsidon/play/zone_behaviour.hpp"

namespace apsidon {

/// What a playfield shows of itself: zones with their names, panels with theirs, each card's hit shape, its
/// neutral middle, the strips of covered cards with the width of the narrowest, the points between which a
/// card would be inserted, and each card's id.
inline constexpr std::array<std::string_view, 7> sketch_layers{"areas",  "panels",    "hits", "neutral",
                                                               "strips", "insertion", "ids"};

/// Where things are: `field.where().area(zone)`. A stale id is nothing, 0 or false. References and spans are
/// valid until the next call of the playfield that is not const.
class APSIDON_CORE_EXPORT WhereGroup : public play_detail::Group {
 public:
  /// Of the table's cards, upright, px.
  [[nodiscard]] Size card_size() const;
  /// Whether the window is large enough to show cards at all.
  [[nodiscard]] bool fits() const;
  /// The plan that is used in this window.
  [[nodiscard]] const Plan& plan() const;

  // Zones.

  /// The box that the plan gives it, px.
  [[nodiscard]] std::optional<Rect> area(ZoneId zone) const;
  /// Where a zone takes drops: its area, and the window around it as far as half a card.
  [[nodiscard]] std::optional<Rect> drop_area(ZoneId zone) const;
  /// The outline of the zone while it is empty: where its only card would lie.
  [[nodiscard]] std::optional<Pose> outline(ZoneId zone) const;
  /// The neutral pose that a card laid on top of the zone would get. O(cards of the zone).
  [[nodiscard]] std::optional<Pose> next_pose(ZoneId zone, bool face_up = true) const;
  /// Before which index a card held at this point would come to lie, on neutral poses; `before` is what it
  /// was a moment ago: it stays until the point has gone on by a tenth of a card. O(cards of the zone).
  [[nodiscard]] std::optional<std::size_t> insertion_index(
      ZoneId zone, Vec2 point, std::optional<std::size_t> before = std::nullopt) const;
  /// Whether its strips are narrower than its layout wants at least.
  [[nodiscard]] bool crowded(ZoneId zone) const;
  /// How the zone lies and is played now; as a zone without any for a stale id.
  [[nodiscard]] ZoneBehaviour behaviour(ZoneId zone) const;
  /// Toward which side the zone's cards look; bottom for a stale id.
  [[nodiscard]] Facing facing(ZoneId zone) const;
  /// Length of all that lies in a zone, px, and how far it is scrolled.
  [[nodiscard]] float content(ZoneId zone) const;
  /// How far the zone is scrolled, px.
  [[nodiscard]] float offset(ZoneId zone) const;

  // Panels.

  /// By PanelId - 1: what each panel is and shows.
  [[nodiscard]] std::span<const PanelSetup> panels() const;
  /// Nothing when no panel has this name.
  [[nodiscard]] std::optional<PanelId> find_panel(std::string_view name) const;
  /// Nothing for one that the plan does not show, too.
  [[nodiscard]] std::optional<Rect> panel_area(PanelId panel) const;

  // Cards.

  /// Where the layout has it while nothing is hovered or held.
  [[nodiscard]] std::optional<Pose> neutral_pose(CardId card) const;
  /// Where it rests now: raised, or making room.
  [[nodiscard]] std::optional<Pose> resting_pose(CardId card) const;
  /// Where it is drawn now, on its way or not.
  [[nodiscard]] std::optional<Pose> live_pose(CardId card) const;
  /// Whether a card is on its way to where it rests, or waits to leave; an effect is no way. False for a card
  /// that is held, or not there.
  [[nodiscard]] bool on_its_way(CardId card) const;
  /// The smallest upright box around a run as it rests; nothing when the zone does not hold all of it.
  [[nodiscard]] std::optional<Rect> run_outline(const Run& run) const;

  // Points.

  /// The topmost card that takes hits at a point, else the zone whose area has it, else the panel. Held cards
  /// take no hits.
  [[nodiscard]] Hit hit(Vec2 point) const;
  /// All that lies at a point, from the top, and why each is or is not the answer.
  [[nodiscard]] std::vector<Explained> explain(Vec2 point) const;
  /// Shows the playfield in the layers named in `sketch_layers`.
  [[nodiscard]] Sketch sketch() const;

  /// Moves the content of a zone that scrolls on to `offset` px, cut to what there is. A drag goes on;
  /// what lies under a resting pointer then is hovered.
  Verdict scroll_to(ZoneId zone, float offset);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
