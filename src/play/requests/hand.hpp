#pragma once
// What pointers and keys carry. Not installed.
#include <algorithm>
#include <cmath>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "apsidon/gesture/gesture.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/hit.hpp"
#include "apsidon/rules/move.hpp"
#include "play/keeps/arrangement.hpp"

namespace apsidon::play_detail {

/// What a gesture asks for.
enum class HandRequest : std::uint8_t {
  none,
  hover,
  leave,
  press,
  tap,
  long_press,
  release,  ///< of a long press
  drag,     ///< a drag begins
  sweep,    ///< likewise, from an empty place where cards may be chosen
  carry,
  let_go,
  cancel,
};

/// What each pointer, or the keys, carries; targets, aim, insertion; and what each pointer was pressed on.
///
/// Invariant: while a carry has a run, its cards are those that were picked up; a carry that `holds` is of
/// cards that follow its pointer, and its cards are listed in `held()`; targets are the zones whose rules
/// took the run when they were asked last.
class Hand {
 public:
  struct Taken {
    CardId card;
    std::size_t slot;
    ZoneId zone;
  };
  /// One run in the hand, or cards that are chosen.
  struct Carry {
    enum class Mode : std::uint8_t { drag, tap, keys };
    Mode mode = Mode::drag;
    std::uint32_t by = 0;  ///< the pointer that drags
    PointerKind kind = PointerKind::mouse;
    Run run = {};  ///< no cards: nothing is carried; of chosen cards the gripped one, and how many they are
    ZoneId home = {};
    std::vector<CardId> chosen = {};  ///< cards from here and there, in the order of choosing; none: a run
    bool picked_up = false;           ///< by the player; otherwise a call sends it
    bool holds = false;               ///< the cards themselves follow the pointer
    Vec2 grip = {};      ///< from the pointer to the middle of the first card, as that lay turned
    float gripped = 0;   ///< radians: how it lay turned
    Vec2 above = {};     ///< how far it is held above a finger
    Vec2 pointer = {};   ///< where it was last
    double time = 0;     ///< when it was there
    float tilt = 0;      ///< radians, by its speed
    float rotation = 0;  ///< radians: how its first card is held
    std::optional<bool> sideways = {};  ///< as the aimed-at zone would lay its cards; none: each as it lies
    ZoneId aimed = {};
    std::optional<std::size_t> insert_at = {};  ///< in the aimed-at zone
    std::vector<ZoneId> targets = {};
    std::size_t cards_above = 0;  ///< how many cards of its zone lay on it
    /// As they were picked up: the game may tear the run apart, or take cards away. Chosen ones in the order
    /// in which they lie.
    std::vector<Taken> cards = {};

    static Vec2 turned_by(Vec2 v, float radians) { return rotated(v, std::cos(radians), std::sin(radians)); }
    [[nodiscard]] bool empty() const { return run.count == 0; }
    [[nodiscard]] bool drags() const { return !empty() && mode == Mode::drag; }
    [[nodiscard]] bool wants(ZoneId zone) const;
    /// Whether all of it comes from this zone.
    [[nodiscard]] bool is_from(ZoneId zone) const;
    /// The move of it to a zone.
    [[nodiscard]] Move to(ZoneId zone) const;
    /// The middle of the first card, lying turned so, while the pointer is here: the gripped point stays
    /// under it.
    [[nodiscard]] Vec2 middle(Vec2 at, float turned) const {
      return at + turned_by(grip, turned - gripped) + above;
    }
    [[nodiscard]] Vec2 middle(Vec2 at) const { return middle(at, rotation); }
    /// How its cards lean: about the gripped point.
    [[nodiscard]] Offset lean() const {
      const Vec2 held = turned_by(grip, rotation - gripped);
      return {.move = turned_by(held, tilt) - held, .rotation = tilt};
    }
  };

  /// The spring on which held cards lean: it does not swing beyond where they lean to.
  [[nodiscard]] static Spring leaning_spring(const Feel& feel) {
    return {.period = feel.tilt.period, .damping = std::max(feel.tilt.damping, 1.0f)};
  }

  Hand(const DragOptions& options, const GestureThresholds& thresholds)
      : options_(options), gestures_(thresholds) {}

  /// Makes gestures of what the pointers do.
  [[nodiscard]] GestureReader& gestures() { return gestures_; }
  [[nodiscard]] const GestureReader& gestures() const { return gestures_; }
  [[nodiscard]] const DragOptions& options() const { return options_; }
  void set_options(const DragOptions& options);
  /// Of several the carry that a pointer moved last; without a run when nothing is carried.
  [[nodiscard]] const Carry& carry() const { return carry_; }
  /// Calls `with` for each run that is carried.
  template <class With>
  void each(With with) const {
    if (!carry_.empty()) with(carry_);
    for (const Carry& other : others_) with(other);
  }
  [[nodiscard]] bool empty() const { return carry_.empty(); }
  /// Whether the player has picked this card up.
  [[nodiscard]] bool has(CardId card) const;
  /// For the layouts: the cards that follow a pointer, and where room is to be made.
  [[nodiscard]] std::span<const CardId> held() const { return held_; }
  [[nodiscard]] std::span<const Insertion> insertions() const { return insertions_; }
  /// Grows whenever a carry, its targets or its aim may have changed.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  // Gestures.

  /// What a gesture asks for; the drag of its pointer, if it has one, is `carry()` from then on.
  [[nodiscard]] HandRequest read(const Gesture& gesture, const Table& table);
  /// Where nothing lies: whether a tap is told of, and whether cards are chosen from there.
  void press(std::uint32_t pointer, const Hit& on, bool anywhere = false, bool chooses = false);
  /// What this pointer went down on last; null when it has not.
  [[nodiscard]] const Hit* pressed_on(std::uint32_t pointer) const;
  void forget_presses() { pressed_.clear(); }

  // From a pick-up to its end.

  /// A run, or the cards that `as` has chosen, are carried from now on; what was carried before waits.
  void take(Carry as, const Run& run, const Table& table);
  /// Asks the rules which zones would take the run.
  void find_targets(const Table& table, const Rulebook& rules);
  /// The drag begins: `grip` is from the pointer to the middle of the first card, which lies turned.
  void begin_drag(Vec2 grip, float turned, float card_height);
  /// How many of the zone's cards lie on a run.
  [[nodiscard]] static std::size_t above(const Run& run, const Table& table);
  /// How a card of the carry is turned while it is held, radians.
  [[nodiscard]] static float turned(const Carry& carry, const Card& card);
  /// The pointer has moved: the aim, the insertion and the tilt follow.
  void move_to(Vec2 pointer, double time, const TableSetup& setup, const Arrangement& arrangement,
               const Feel& feel);
  /// The keys aim at a zone.
  void aim_at(ZoneId zone);
  /// The pointer that carries by taps is here.
  void point_at(Vec2 at) { carry_.pointer = at; }
  /// The move that a drag makes where it is let go.
  struct Letting {
    std::optional<Move> move = {};  ///< nothing when it goes back
    bool flicked = false;
  };
  [[nodiscard]] Letting let_go(const Gesture& gesture, const TableSetup& setup,
                               const Arrangement& arrangement) const;
  /// The carry ends; another pointer's goes on.
  Carry forget();
  /// Pointers that drag, the current one first.
  [[nodiscard]] std::vector<std::uint32_t> pointers() const;
  /// The drag of this pointer, if it has one, is `carry()` from now on.
  void select(std::uint32_t pointer);
  /// Whether its cards do not lie any more, and a run together, where they were picked up.
  [[nodiscard]] bool is_torn(const Table& table) const;
  /// Whether a card was laid onto it, with which it would be picked up now, or under which it is covered.
  [[nodiscard]] bool is_covered(const Table& table, const Rulebook& rules) const;
  /// After a change elsewhere: targets, aim and insertion are found again.
  void aim_again(const TableSetup& setup, const Rulebook& rules, const Arrangement& arrangement);
  /// When a gesture comes by itself, or a tilt ends as the pointer rests; infinity when nothing does.
  [[nodiscard]] double due() const;
  /// Calls `with` for each carry whose tilt has ended by this time.
  template <class With>
  void straighten(double time, With with) {
    const auto look = [&](Carry& carry) {
      if (carry.empty() || carry.tilt == 0 || carry.time + tilt_stays > time) return;
      carry.tilt = 0;
      with(carry);
    };
    look(carry_);
    for (Carry& other : others_) look(other);
  }

  // What to show.

  [[nodiscard]] Event event(EventKind kind, double time) const;
  /// Where a held card goes.
  [[nodiscard]] Pose goal(const Carry& carry, CardId card, const Table& table, const Arrangement& arrangement,
                          const Feel& feel) const;
  /// Where the translucent copy of a dragged card is.
  [[nodiscard]] static Pose copy_pose(const Carry& carry, const Table& table, const Arrangement& arrangement,
                                      CardId card);
  /// How a card of it is held, from the one that is gripped: a run as it lies, chosen cards as a small fan.
  [[nodiscard]] static Offset held_beside(const Carry& carry, const Table& table,
                                          const Arrangement& arrangement, CardId card);

 private:
  static constexpr double tilt_stays = 0.06;  // seconds; a silent pointer counts as still after that

  struct Pressed {
    std::uint32_t pointer = 0;
    Hit on = {};
    bool anywhere = false;
    bool chooses = false;
  };
  [[nodiscard]] const Pressed* pressed(std::uint32_t pointer) const;
  [[nodiscard]] bool lies_elsewhere(const Table& table) const;
  [[nodiscard]] ZoneId aim(Vec2 pointer, const Arrangement& arrangement) const;
  void find_aim(const TableSetup& setup, const Arrangement& arrangement);
  void note_change();

  DragOptions options_;
  GestureReader gestures_;
  Carry carry_ = {};
  std::vector<Carry> others_ = {};  // of other pointers, while several may drag
  std::vector<Pressed> pressed_ = {};
  std::vector<CardId> held_ = {};
  std::vector<Insertion> insertions_ = {};
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
