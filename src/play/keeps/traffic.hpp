#pragma once
// Who moves, waits, is held. Not installed.
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/motion/feel.hpp"
#include "motion/table_motion.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/values/shift.hpp"

namespace apsidon::play_detail {

/// A card that an act sends on its way.
struct Departure {
  std::uint32_t slot = 0;
  Pose goal = {};
  double delay = 0;               ///< seconds, >= 0
  std::optional<Pose> from = {};  ///< it starts there instead of where it is
  std::uint64_t rests_at = 0;     ///< its drawing order where it rests
  std::optional<std::uint64_t> waits_at =
      {};  ///< its drawing order until it leaves; where it is drawn now if none
};

/// motion_detail::TableMotion, and what a playfield keeps of each card beside the table: its departure, and
/// what it waits for.
///
/// Invariant: a card's `waits` is motion's; a held or locked card is sent nowhere by a layout or an act; a
/// card has a departure exactly from the time it is sent to another place until it has landed.
class Traffic {
 public:
  /// What every frame asks of a card, by the table's slot.
  struct CardState {
    CardId id = {};               ///< the card that has this slot
    bool waits = false;           ///< for the start of its flight
    bool held = false;            ///< follows a pointer
    bool locked = false;          ///< waits at its target for an answer
    bool travels = false;         ///< to another zone or place: its landing is told
    bool arrived = false;         ///< it was at its goal already
    bool off = false;             ///< it is switched off: drawn dimmed, and not hovered
    bool hidden = false;          ///< it is not drawn, and takes no hits
    FaceId still_shows = {};      ///< until it is edge-on: the face of a covered card that has another by now
    std::uint64_t departure = 0;  ///< the order in which it left; 0: it has not left its place
    std::uint64_t waits_at = 0;   ///< its drawing order while it waits

    [[nodiscard]] bool away() const { return held || departure > 0; }
    [[nodiscard]] bool takes_hits() const { return !held && !hidden; }
  };

  explicit Traffic(double start) : motion_(start) {}

  [[nodiscard]] const motion_detail::TableMotion& motion() const { return motion_; }
  [[nodiscard]] double now() const { return motion_.now(); }
  [[nodiscard]] const CardState& card(std::size_t slot) const { return cards_[slot]; }
  [[nodiscard]] std::span<const CardState> cards() const { return cards_; }
  /// The performance whose act sent the card last.
  [[nodiscard]] PerformanceId part_of(std::size_t slot) const { return part_of_[slot]; }
  /// Grows whenever a card may be drawn elsewhere in the order.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  // One card.

  /// Sends a card from where it is.
  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0, ClockIndex clock = 0);
  /// Puts a card down at once.
  void put(std::size_t slot, const Pose& pose);
  /// Sends a card through the air, above everything that rests; `travels`: to another place than its own.
  void fly(std::size_t slot, const Pose& goal, const Glide& glide, bool travels, double delay = 0);
  /// Puts a card down at once, above everything that rests.
  void put_in_flight(std::size_t slot, const Pose& pose);
  void lean(std::size_t slot, const Offset& by, const Spring& spring) { motion_.lean(slot, by, spring); }
  void start_effect(std::size_t slot, const Effect& effect, ClockIndex clock) {
    motion_.start(slot, effect, 0, clock);
  }
  void hold(std::size_t slot);
  /// Returns whether the card was held.
  bool let_go(std::size_t slot);
  /// Switched off, or hidden, or neither.
  void show(std::size_t slot, bool off, bool hidden);
  /// The face shows on until the card is edge-on, although the table has none any more.
  void show_on(std::size_t slot, FaceId face) { cards_[slot].still_shows = face; }
  void lock(std::size_t slot);
  void unlock(std::size_t slot);

  // Many cards.

  /// Makes room for the cards of the table.
  void keep_slots(std::size_t slots);
  /// Cards that have retired move no further: nobody will see it, and a clock of theirs may stand still for
  /// good.
  void clear_retired(const Table& table);
  /// A change of the table begins: of the cards that it moves the first leaves first.
  void begin_change() { sent_ = 0; }
  /// Sends cards toward where they rest now, in the way that the change asks for; those that an act sends
  /// are left to it.
  void follow(std::span<const Shift> shifts, std::span<const Rest> rests, Change change, Sender& sender,
              const Feel& feel);
  /// Sends the cards that wait at a zone for an answer to where they would lie.
  void follow_guests(std::span<const GuestShift> shifts, Change change, const Feel& feel);
  /// The next clock of a performance, and its end.
  [[nodiscard]] ClockIndex add_clock() { return motion_.add_clock(); }
  void set_clock_speed(ClockIndex clock, double speed) { motion_.set_speed(clock, speed); }
  /// Sends a card for an act. Returns when it lands on that clock; nothing when it is held or locked.
  std::optional<double> depart(const Departure& departure, const Glide& glide, PerformanceId by,
                               ClockIndex clock);
  /// The cards of a performance arrive at once.
  void finish(PerformanceId performance);
  /// The cards of a performance go home by the feel.
  void send_home(PerformanceId performance, const Table& table, std::span<const Rest> rests,
                 const Feel& feel);
  /// The effects of a performance are over now, or go on by the table's clock.
  void end_effects(ClockIndex clock);
  void release_effects(ClockIndex clock) { motion_.release_effects(clock); }
  /// The performance is over: no card is its any more.
  void end(PerformanceId performance, ClockIndex clock);

  // Time.

  /// When next something happens to a card, on the table's clock; infinity when nothing will.
  [[nodiscard]] double due() const { return motion_.next_due(); }
  /// Moves the cards on to `own` on the table's clock, no further than `due()`, and tells of those that
  /// turned edge-on or landed.
  void advance_to(double own, double time, const Table& table, EventQueue& events);
  /// Notes that something moves, before it is made to rest: that it has settled is to be told afterwards.
  void note_awake() { unsettled_ = unsettled_ || motion_.awake_count() > 0; }
  [[nodiscard]] bool rests() const { return motion_.awake_count() == 0; }
  /// Whether everything has come to rest since this was told last.
  [[nodiscard]] bool to_be_settled() const { return unsettled_ && rests(); }
  void settle() { unsettled_ = false; }
  /// What was in flight before this took its place has come to rest with it: that is to be told, too.
  void settle_for(const Traffic& before) { unsettled_ = unsettled_ || before.unsettled_ || !before.rests(); }
  /// The client has drawn everything that moved.
  void forget_moved() { motion_.forget_moved(); }

 private:
  [[nodiscard]] bool shows_at(std::size_t slot, const Pose& resting) const;
  void set_waits(std::size_t slot, bool waits);
  void set_departure(std::size_t slot, bool travels);

  motion_detail::TableMotion motion_;  // goes by the table's clock
  std::vector<CardState> cards_ = {};
  std::vector<PerformanceId> part_of_ = {};
  std::uint64_t departures_ = 0;
  std::size_t sent_ = 0;    // cards that the change of the table has moved so far
  bool unsettled_ = false;  // something has moved since `settled` was told
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
