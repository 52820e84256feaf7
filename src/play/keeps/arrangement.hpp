#pragma once
// Where everything rests. Not installed.
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "play/values/shift.hpp"

namespace apsidon::play_detail {

/// The window with what is not finite or negative as 0, and such a ratio as 1.
[[nodiscard]] PlanWindow usable(const PlanWindow& window);

/// The solved plan, the areas, and the neutral and resting pose of every card: no time, no pointer.
///
/// Invariant: the poses of a zone are those of the zone's revision that was laid out last; a zone whose
/// revision and whose room are as they were is not laid out again.
class Arrangement {
 public:
  /// Solves the plan; the cards have no poses before the first `lay_out`.
  Arrangement(const TableSetup& setup, const PlanWindow& window);

  // Questions. Ids are of the set-up; slots are the table's.

  [[nodiscard]] const PlanWindow& window() const { return window_; }
  [[nodiscard]] std::size_t plan() const { return *plan_; }
  [[nodiscard]] Size card() const { return solved_.card; }
  [[nodiscard]] bool fits() const { return solved_.fits; }
  [[nodiscard]] const Rect& area(ZoneId zone) const { return areas_[zone.value - 1]; }
  [[nodiscard]] std::span<const Rect> panel_areas() const { return panel_areas_; }
  /// What a layout of the game's own threw since this was asked last.
  [[nodiscard]] std::optional<std::string> take_thrown() { return std::exchange(thrown_, std::nullopt); }
  [[nodiscard]] const LayoutReport& report(ZoneId zone) const { return zones_[zone.value - 1].report; }
  [[nodiscard]] float offset(ZoneId zone) const { return zones_[zone.value - 1].offset; }
  /// By slot.
  [[nodiscard]] std::span<const Rest> rests() const { return rests_; }
  [[nodiscard]] const Pose& neutral(std::size_t slot) const { return rests_[slot].neutral; }
  [[nodiscard]] const Pose& resting(std::size_t slot) const { return rests_[slot].resting; }
  /// Over how many others the plan has a zone lie.
  [[nodiscard]] int layer(ZoneId zone) const { return layers_[zone.value - 1]; }
  /// Its place among all zones, from the lowest, from 1; 0 for none.
  [[nodiscard]] std::uint32_t rank(ZoneId zone) const { return zone ? ranks_[zone.value - 1] : 0; }
  /// All zones, the lowest first.
  [[nodiscard]] std::span<const ZoneId> from_below() const { return from_below_; }
  /// The drawing order of a card that rests.
  [[nodiscard]] std::uint64_t rest_order_of(std::size_t slot) const;
  /// The zone, or else panel beside the overlays, whose area has the point, of those that `may` be; none
  /// where there is none.
  template <class May>
  [[nodiscard]] ZoneId zone_at(Vec2 point, May may) const {
    ZoneId found;
    for (std::uint32_t i = 0; i < areas_.size(); ++i) {
      const bool above = !found || layers_[i] > layers_[found.value - 1];
      if (above && areas_[i].contains(point) && may(ZoneId{i + 1})) found = {i + 1};
    }
    return found;
  }
  template <class May>
  [[nodiscard]] PanelId panel_at(Vec2 point, May may) const {
    for (std::uint32_t i = 0; i < panel_areas_.size(); ++i) {
      if (panel_areas_[i].contains(point) && !is_over(PanelId{i + 1}) && may(PanelId{i + 1})) return {i + 1};
    }
    return {};
  }
  /// The overlay in which a panel lies; none for one that lies in none, and for a stale id.
  [[nodiscard]] PanelId overlay_of(PanelId panel) const;
  /// Whether a panel is an overlay, or lies in one.
  [[nodiscard]] bool is_over(PanelId panel) const { return panel_over_[panel.value - 1] != 0; }
  /// Outside of it no resting card of the zone shows, nor takes hits.
  [[nodiscard]] Rect clip(const TableSetup& setup, ZoneId zone) const;
  /// What the zone's layout works from, without its cards.
  [[nodiscard]] LayoutInput input(const TableSetup& setup, ZoneId zone) const;
  /// The side that a zone faces: left and right are exchanged where the plan is mirrored.
  [[nodiscard]] Facing facing(const TableSetup& setup, ZoneId zone) const;
  /// A card that comes out of its row, the way its top points, by this share of its height.
  [[nodiscard]] Pose come_out(Pose pose, bool sideways, float share) const;
  /// A pose that a card has moved to, moved back as far as it left the window by that.
  [[nodiscard]] Pose kept_in_window(const Pose& from, Pose to) const;
  /// Where the only card of a zone would rest.
  [[nodiscard]] Pose outline(const TableSetup& setup, ZoneId zone) const;
  /// The neutral poses that these cards would have on top of a zone.
  [[nodiscard]] std::vector<Pose> poses_on_top(const TableSetup& setup, ZoneId zone,
                                               std::span<const LaidCard> cards) const;
  /// Before which index a card held at this point would come to lie; cards of `held` are left out where the
  /// others have closed up. `before` is what it was a moment ago.
  [[nodiscard]] std::size_t insertion_index(const TableSetup& setup, ZoneId zone, Vec2 point,
                                            std::optional<std::size_t> before,
                                            std::span<const CardId> held) const;
  /// The index before which the zone makes room now.
  [[nodiscard]] std::optional<std::size_t> room_before(ZoneId zone) const;
  /// Where a scrolling zone may show its content, [0, …] px.
  [[nodiscard]] float last_offset(const TableSetup& setup, ZoneId zone) const;
  /// Grows whenever an area, a pose or an offset may have changed.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }
  /// Grows whenever a neutral pose may have changed.
  [[nodiscard]] std::uint64_t neutral_revision() const { return neutral_revision_; }

  /// The guests that the last change has given another pose.
  [[nodiscard]] std::span<const GuestShift> guest_shifts() const { return guest_shifts_; }

  // Changes. What they return is to be sent, and valid until the next change.

  /// Lays out the zones that the table has changed; at first and in a new window, all of them.
  std::span<const Shift> lay_out(const TableSetup& setup, Change change, const LayoutRequest& request);
  /// Lays out the zones whose room is another than they have.
  std::span<const Shift> make_room(const TableSetup& setup, const LayoutRequest& request);
  /// Solves the plan for another window; `lay_out` is to follow.
  void resize(const TableSetup& setup, const PlanWindow& window);
  /// The plans, or how a zone lies, are others now: everything is laid out anew.
  std::span<const Shift> arrange_anew(const TableSetup& setup, const LayoutRequest& request);
  std::span<const Shift> scroll_to(const TableSetup& setup, ZoneId zone, float offset,
                                   const LayoutRequest& request);

 private:
  struct LaidZone {
    std::uint64_t revision = 0;  // of the table's zone that is laid out
    LayoutReport report = {};
    float offset = 0;  // how far it is scrolled, px
    Room room = {};
    std::vector<CardId> away = {};         // of its cards: where they were the others have closed up
    std::vector<std::size_t> chosen = {};  // of its cards, by index: they come out
    std::vector<Guest> guests = {};
    std::vector<Pose> guest_poses = {};
  };
  struct Lies {
    CardId card = {};  // that has this slot
    ZoneId zone = {};
    std::uint32_t index = 0;
  };
  /// Who lies in a zone while room is made: a card of it, or a guest.
  struct Lying {
    std::size_t index = 0;
    bool guest = false;
  };
  struct Scratch {
    std::vector<LaidCard> laid = {};
    std::vector<Pose> poses = {};
    std::vector<char> comes_out = {};  // of a zone's cards, by index; empty when none does
    std::vector<LaidCard> roomy_laid = {};
    std::vector<Pose> roomy_poses = {};
    std::vector<Lying> lying = {};
    std::vector<Pose> lying_poses = {};
    std::vector<Guest> guests = {};  // that a zone had before
  };

  void solve_plan(const TableSetup& setup);
  bool note_empty(const TableSetup& setup);
  void begin(const TableSetup& setup);
  void lay_out_zone(const TableSetup& setup, const Zone& zone, const LayoutRequest& request);
  void lay_out_room(const TableSetup& setup, const Zone& zone, LayoutInput in, LaidZone& laid);
  [[nodiscard]] Pose on_pixels(const TableSetup& setup, ZoneId zone, const Pose& pose) const;
  [[nodiscard]] Pose finished(Pose pose, bool waits_on_its_edge, float factor, float flip_axis) const;
  void place_guests(const TableSetup& setup, LaidZone& laid, float flip_axis);
  void find_overlays(const TableSetup& setup);
  void find_layers(const TableSetup& setup);
  void rest(const Card& card, std::size_t slot, const Pose& neutral, const Pose& resting);

  PlanWindow window_;
  std::optional<std::size_t> plan_ = {};
  PlanResult solved_ = {};
  std::vector<Rect> areas_;           // by zone
  std::vector<Rect> panel_areas_;     // by panel
  std::vector<int> layers_;           // by zone: over how many others it lies
  std::vector<std::uint32_t> ranks_;  // by zone
  std::vector<ZoneId> from_below_ = {};
  std::vector<PanelId> overlay_of_;  // by panel: in which it lies
  std::vector<char> panel_over_;     // by panel: whether it is an overlay, or lies in one
  std::vector<char> empty_;          // by zone: whether it was empty when the areas were made
  std::vector<LaidZone> zones_;      // by zone
  std::vector<Rest> rests_ = {};     // by slot
  std::vector<Lies> lies_ = {};      // by slot
  std::vector<Shift> shifts_ = {};   // of the last change
  std::vector<GuestShift> guest_shifts_ = {};
  Scratch scratch_ = {};
  mutable std::optional<std::string> thrown_ = {};  // a question may come upon it, too
  std::uint64_t revision_ = 0;
  std::uint64_t neutral_revision_ = 0;
};

}  // namespace apsidon::play_detail
