#pragma once
// The list to draw, back to front. Not installed.
#include <cstdint>
#include <span>
#include <vector>

#include "apsidon/play/frame.hpp"
#include "geometry/sin_cos.hpp"
#include "play/decides/playable.hpp"
#include "play/decides/referee.hpp"
#include "play/keeps/panels.hpp"
#include "play/keeps/schedule.hpp"
#include "play/keeps/switches.hpp"
#include "play/reads/frame_order.hpp"
#include "play/requests/focus.hpp"
#include "play/requests/hand.hpp"
#include "play/requests/hover.hpp"
#include "play/requests/selection.hpp"

namespace apsidon::play_detail {

/// All that a frame shows.
struct FrameSources {
  const TableSetup& setup;
  const Panels& panels;
  const Schedule& schedule;
  const Switches& switches;
  const Arrangement& arrangement;
  const Traffic& traffic;
  const Hand& hand;
  const Hover& hover;
  const Focus& focus;
  const Selection& selection;
  const Referee& referee;
  const Playable& playable;
  const Feel& feel;
  float corner_radius;  ///< of a card, share of its width
};

/// Reads all rooms and changes none. What is out of date follows from their revisions.
///
/// Invariant: after `update` the frame is the one that a builder without a past would make; its revision has
/// grown exactly if something may have changed.
class FrameBuilder {
 public:
  /// Whether the frame shows everything as it is. Inline, as at rest there is nothing else to do in a frame.
  [[nodiscard]] bool is_current(const FrameSources& from) const {
    return !is_dirty(from) && from.traffic.motion().revision() == seen_.motion && !preview_grew(from);
  }
  /// Brings a frame up to date that is not current. While cards only move, it keeps its order and only they
  /// are drawn again.
  void update(const FrameSources& from);
  [[nodiscard]] const Frame& frame() const { return drawn_; }
  /// The cards of the frame in their order, and the index of the first among its items.
  [[nodiscard]] const FrameOrder& order() const { return order_; }
  [[nodiscard]] std::size_t first_card() const { return first_card_; }
  /// Where the cards of a zone show.
  [[nodiscard]] const Rect& clip(ZoneId zone) const { return clips_[zone.value - 1]; }

  // What the last update changed.

  /// Whether it made the whole list; otherwise only the cards of `moved` have changed.
  [[nodiscard]] bool reordered() const { return reordered_; }
  /// The slots of the cards that it drew in another pose or with other marks; a few twice, some of cards that
  /// have gone.
  [[nodiscard]] std::span<const std::uint32_t> moved() const { return moved_; }
  /// The index among the items of the card in this slot; `no_item` when it has none.
  [[nodiscard]] std::uint32_t item_of(std::uint32_t slot) const { return item_of_[slot]; }

  /// What is another than in the frame of this revision.
  [[nodiscard]] FrameChanges changes(std::uint64_t since);

  /// Frame numbers go on where those of another playfield have ended.
  void number_from(std::uint64_t revision);

 private:
  /// What the frame shows.
  struct Seen {
    std::uint64_t rooms = ~std::uint64_t{0};  // the sum of their revisions
    std::uint64_t motion = 0;
    double own = 0;   // time on the table's clock
    float badge = 0;  // the size of badges
  };
  /// Who has a mark.
  struct Marked {
    std::vector<std::uint32_t> items = {};
    std::vector<std::uint32_t> refused = {};  // slots of cards that shake
  };
  /// What seldom changes while a card moves.
  struct Appearance {
    CardId card;
    ZoneId zone;
    FaceId face;  // none while its back shows
    float brightness;
    bool back;
    std::int16_t back_suit;
  };

  // frame_builder.cpp
  /// Revisions only grow, so their sum tells whether any has.
  [[nodiscard]] static std::uint64_t revision_of(const FrameSources& from) {
    return from.arrangement.revision() + from.traffic.revision() + from.hand.revision() +
           from.hover.revision() + from.focus.revision() + from.selection.revision() +
           from.referee.revision() + from.playable.revision() + from.panels.revision() +
           from.switches.revision() + from.setup.table.revision();
  }
  [[nodiscard]] bool is_dirty(const FrameSources& from) const {
    return revision_of(from) != seen_.rooms || from.feel.badge != seen_.badge ||
           (from.panels.any_bound() && any_bar_shrank(from));
  }
  [[nodiscard]] static float fill_of(const FrameSources& from, PanelId panel);
  [[nodiscard]] bool any_bar_shrank(const FrameSources& from) const;
  [[nodiscard]] bool preview_grew(const FrameSources& from) const {
    return from.hover.any_preview() && from.hover.preview_grew(seen_.own, from.traffic.now());
  }
  void find_raised(const FrameSources& from);
  void add_outlines(const FrameSources& from);
  void add_panels(const FrameSources& from);
  void add_cards(const FrameSources& from, bool all);
  void add_copies(const FrameSources& from);
  void add_preview(const FrameSources& from);
  void dim_previewed(const Hover& hover, const Table& table);
  void hide_hidden(const FrameSources& from);
  FrameItem& next_item();
  bool refresh_appearances(const FrameSources& from);
  bool refresh_clips(const FrameSources& from);

  // frame_badges.cpp
  void add_badges(const FrameSources& from);

  // frame_cards.cpp
  void draw_moved(const FrameSources& from);
  void draw_waiting(const FrameSources& from);
  void draw(const FrameSources& from, std::span<const std::uint32_t> slots);
  void draw_tilted(const FrameSources& from, std::span<const std::uint32_t> slots,
                   std::span<const geometry_detail::SinCos> rotations);
  [[nodiscard]] static Appearance appearance_of(const FrameSources& from, std::size_t slot);
  void draw_appearance(const FrameSources& from, FrameItem& item, std::size_t slot);

  // frame_marks.cpp
  void forget_marks();
  Marks& mark(std::size_t item);
  void add_marks(const FrameSources& from);
  void add_glows(const FrameSources& from);
  void mark_target(const Table& table, ZoneId zone, bool aimed);
  [[nodiscard]] std::optional<std::size_t> outline_of(ZoneId zone) const;
  void mark_refused(const motion_detail::TableMotion& motion);
  void show_refused(bool is);

  Frame drawn_ = {};
  FrameOrder order_ = {};
  Seen seen_ = {};
  bool reordered_ = false;
  std::vector<std::uint32_t> moved_ = {};
  std::vector<std::uint32_t> changed_items_ = {};     // scratch
  std::vector<CardId> raised_ = {};                   // scratch
  std::vector<Hover::Preview> previews_ = {};         // scratch
  std::size_t first_card_ = 0;                        // among the items
  std::size_t items_used_ = 0;                        // while the list is made
  bool dimmed_ = false;                               // an item is not as its card lies
  std::vector<Rect> clips_ = {};                      // by zone
  std::vector<std::uint32_t> item_of_ = {};           // by slot
  std::vector<Appearance> appearances_ = {};          // by slot
  std::vector<char> needs_redraw_ = {};               // by slot
  std::uint64_t appearances_of_ = ~std::uint64_t{0};  // the revisions of table and switches that they show
  Marked marked_ = {};
};

}  // namespace apsidon::play_detail
