#pragma once
// The inside of a playfield; not installed. Split by what it does: playfield.cpp keeps time and poses,
// carry.cpp is the player's hand, frame.cpp the list to draw, sketch.cpp what a programmer sees.
#include <vector>

#include "apsidon/hit/hit_index.hpp"
#include "apsidon/motion/motion.hpp"
#include "apsidon/play/playfield.hpp"

namespace apsidon {

struct Playfield::Impl {
  Impl(TableSetup setup, const PlayfieldOptions& options);

  // What a playfield keeps of a card beside the table, by the table's slot.
  struct CardState {
    CardId id = {};    ///< the card that has this slot
    ZoneId zone = {};  ///< where its poses below were laid out
    Pose neutral = {};
    Pose resting = {};
    std::uint64_t departure = 0;  ///< order in which it left; 0: it has not left its place
    bool held = false;
  };

  /// Why poses changed, and so how cards get to the new ones.
  enum class Change { first, table, window };

  // playfield.cpp
  void advance_to(double time);
  void note(Event event);
  void solve_plan();
  bool give_up_places();
  [[nodiscard]] PlanWindow window() const;
  [[nodiscard]] LayoutInput layout_input(ZoneId zone) const;
  void fill_laid(const Zone& zone);
  void lay_out_zone(ZoneId zone, Change change);
  void lay_out_changed(Change change);
  void head_for(const Card& card, std::size_t slot, const Pose& resting, Change change);
  void fly(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0);
  void after_change();
  Verdict followed_up(Verdict verdict);
  void deal();
  void shake(CardId card);
  std::size_t slot(CardId id) const { return *setup.table.slot(id); }

  // carry.cpp
  bool handle(const Gesture& gesture);
  bool pick_up(const Gesture& gesture);
  void carry_to(Vec2 pointer);
  void let_go(const Gesture& gesture);
  void put_back(EventKind ending, const Event& event);
  void cancel_carry(Vec2 at);
  void find_targets();
  void cancel_if_touched();
  void forget_carry();
  ZoneId aim(Vec2 pointer) const;
  ZoneId zone_at(Vec2 point) const;
  PanelId panel_at(Vec2 point) const;

  // frame.cpp
  const Frame& frame();
  void order_cards();
  void add_outlines();
  void add_panels();
  void add_card(std::uint64_t order, std::size_t slot);
  [[nodiscard]] Rect clip_of(std::size_t slot) const;
  [[nodiscard]] Pose outline_pose(ZoneId zone) const;
  Hit hit(Vec2 point);
  void refresh_hits();

  // sketch.cpp
  void sketch_strips(Sketch& sketch, const Zone& zone) const;
  void sketch_insertion(Sketch& sketch, const Zone& zone) const;

  TableSetup setup;
  PlayfieldOptions options;
  Motion motion;
  GestureReader gestures;

  static constexpr std::uint64_t never_laid = ~std::uint64_t{0};
  std::optional<std::size_t> plan;
  PlanResult solved;
  std::vector<Rect> areas = {};  // by zone
  std::vector<std::uint64_t> laid_revision =
      {};                                  // by zone: the revision of the table's zone that is laid out
  std::vector<LayoutReport> reports = {};  // by zone
  std::vector<float> offsets = {};         // by zone: how far it is scrolled, px
  std::vector<char> empty = {};            // by zone: whether it was empty when the areas were made
  std::vector<Rect> panel_areas = {};      // by panel
  std::vector<CardState> cards = {};       // by slot
  std::vector<LaidCard> laid = {};         // scratch
  std::vector<Pose> poses = {};            // scratch

  // The hand.
  struct Carry {
    Run run = {};  ///< no cards: nothing is held
    ZoneId home = {};
    std::uint64_t home_revision = 0;
    Vec2 grip = {};     ///< from the pointer to the middle of the first card
    Vec2 pointer = {};  ///< where it was last
    ZoneId aimed = {};
    std::vector<ZoneId> targets = {};
  } carry;
  Hit pressed = {};  ///< what the pointer went down on
  std::uint64_t proposals = 0;
  std::uint64_t departures = 0;

  std::vector<Event> coming = {};  // since the last advance_to of the client
  std::vector<Event> events = {};  // what the client may read
  std::uint64_t ignored = 0;

  struct Ordered {
    std::uint64_t order;
    std::size_t slot;
  };
  std::vector<Ordered> ordered = {};  // cards by their order in the frame
  Frame drawn;
  bool stale = true;       // the frame
  bool hits_stale = true;  // the hit index
  std::uint64_t seen_motion = 0;
  HitIndex hits;
};

}  // namespace apsidon
