#pragma once
#include <cstdint>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/gesture/pointer.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/play/options.hpp"

namespace apsidon {

/// The live thing: a table, its plan, what moves, and what the player's hand does. Timed inputs go in, frames
/// and events come out. Used from one thread; two playfields never affect each other.
///
/// Calls of a running playfield never throw. Every input carries its time: the playfield first goes on to
/// that time, so that what happens does not depend on the frame rate. An input earlier than `now()` counts as
/// of now; one that is not finite is ignored and counted.
///
/// What the loop of a game calls is here. All else is in groups, each with a header of its own
/// (`apsidon/play/where_view.hpp`, …), so `field.where().area(zone)`, `field.hand().held()`. A group is a
/// view: it is valid as long as the playfield is, and not moved.
class APSIDON_CORE_EXPORT Playfield {
 public:
  /// Throws Error when the set-up or an option is out of its range.
  explicit Playfield(TableSetup setup, const PlayfieldOptions& options = {});
  /// A copy is a snapshot of everything, cards in flight too; it has no recorder.
  Playfield(const Playfield& other);
  Playfield& operator=(const Playfield& other);
  Playfield(Playfield&& other) noexcept;
  Playfield& operator=(Playfield&& other) noexcept;
  ~Playfield();

  // Inputs.

  /// Returns whether the input was used: whether it pressed, dragged or dropped something.
  bool pointer(const PointerInput& input);
  /// Returns whether the key was used.
  bool key(const KeyInput& input);
  /// The window lost the player's attention: what is pressed or dragged is cancelled, nothing is hovered.
  void blur(double time);
  /// The window has another size: what rests is at its new place at once, flights bend, a drag is cancelled.
  void resize(Size window, float pixel_ratio, double time, const Insets& insets = {});
  /// Any input, as a log has it. Returns whether it was used.
  bool input(const Input& input);
  /// Hears every input from now on; an empty one ends that.
  void set_recorder(Recorder recorder);
  /// Inputs that were ignored because a number was not finite.
  [[nodiscard]] std::uint64_t ignored_inputs() const;

  // The loop.

  /// Goes on to this time. Earlier times are ignored. O(cards that move).
  void advance_to(double time);
  [[nodiscard]] double now() const;
  /// What happened up to the last `advance_to`, since the one before it, in order of time. Valid until the
  /// next call that is not const.
  [[nodiscard]] std::span<const Event> events() const;
  /// What to draw now, valid until the next call that is not const. Changes nothing but the revision, and
  /// that only when something is to be drawn anew.
  [[nodiscard]] const Frame& frame() const;
  /// What of the frame is another than in the frame of a revision: the client's scene has to change only
  /// that. Valid until the next call.
  [[nodiscard]] FrameChanges frame_changes(std::uint64_t since) const;
  /// Valid until the next call that is not const.
  [[nodiscard]] const Table& table() const;

  // Rounds and snapshots.

  /// Begins a round: all is as in a fresh playfield with this set-up, whatever was in flight, in the hand,
  /// running or counting down, but for what is of the client: the window, the feel, the table's clock with
  /// its holds, and the events that were not read yet. What is in the hand ends as cancelled, what waits for
  /// an answer as superseded. Ids go on, so that none of the round before is taken for a new one. Throws
  /// Error when the set-up is out of its range, before anything is changed.
  void start_over(TableSetup setup);
  /// `start_over` with the same table, dealt by its round plan and a seed.
  void start_round(std::uint64_t seed);
  /// Everything is as in a snapshot, but for the window, the time, which goes on from now, and the events
  /// that were not read yet. What is in the hand ends as cancelled; what was in the hand in the snapshot is
  /// put back. A proposal that waits here and did not in the snapshot ends as superseded. Ids go on.
  void restore(const Playfield& snapshot);

  // Groups.

  /// Where things are: areas, poses, outlines, the card's size, scrolling; what lies at a point.
  [[nodiscard]] WhereView where() const;
  [[nodiscard]] WhereCalls where();
  /// What is held, hovered, previewed, focused; how dragging and hovering behave.
  [[nodiscard]] HandView hand() const;
  [[nodiscard]] HandCalls hand();
  /// What may be done, and why not.
  [[nodiscard]] RulesView rules() const;
  /// Moves of the player that a call makes, undo, and the game's answers to drops.
  [[nodiscard]] MovesView moves() const;
  [[nodiscard]] MovesCalls moves();
  /// What the game itself changes: not judged, and nothing follows from it.
  [[nodiscard]] EditsCalls edits();
  /// The table's clock, timers, countdowns, and when all is at rest.
  [[nodiscard]] TimeView time() const;
  [[nodiscard]] TimeCalls time();
  /// What opens and closes input.
  [[nodiscard]] GateView gate() const;
  [[nodiscard]] GateCalls gate();
  /// What moves together, and how.
  [[nodiscard]] PerformancesView performances() const;
  [[nodiscard]] PerformancesCalls performances();

 private:
  play_detail::Impl* impl_;  // owned; no std::unique_ptr, as <memory> would double what this header costs
};

}  // namespace apsidon
