#pragma once
#include <cstdint>
#include <optional>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/gesture/pointer.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/play/notice.hpp"
#include "apsidon/play/options.hpp"
#include "apsidon/play/recorder.hpp"

namespace apsidon {

/// The live thing: a table, its plan, what moves, and what the player's hand does. Timed inputs go in, frames
/// and events come out. Used from one thread; two playfields never affect each other.
///
/// The loop of a game is
///
///     for (each event of the window) field.pointer({.phase = …, .at = …, .time = …});
///     while (auto event = field.next_event(now)) …  // the game does what it does about it
///     draw(field.frame());
///
/// Inputs wait in order of their times, and each is taken when the events before it have been given: what the
/// game does about an event happens at the event's own time, so that nothing depends on the frame rate.
///
/// Calls of a running playfield never throw. An input that comes late, earlier than `now()`, counts as of
/// now; one that cannot be meant (a number that is not finite) is ignored and counted.
///
/// What the loop calls is here. All else is in groups, each with a header of its own
/// (`apsidon/play/where_group.hpp`, …), so `field.where().area(zone)`, `field.hand().held()`. A group is a
/// part of its playfield, there as long as that is; of a const one it can only be asked.
class APSIDON_CORE_EXPORT Playfield {
 public:
  /// Throws Error when the set-up or an option is out of its range.
  explicit Playfield(TableSetup setup, const PlayfieldOptions& options = {});
  /// A copy is a snapshot of everything, cards in flight too; it has no recorder and
  /// no watcher.
  Playfield(const Playfield& other);
  /// What was moved from may be assigned to, copied or destroyed.
  Playfield(Playfield&& other) noexcept;
  /// It keeps nothing of what it was; its groups are those of before.
  Playfield& operator=(Playfield other) noexcept;
  ~Playfield();

  // Inputs.

  // All of them wait for their time.

  /// Returns whether the input would be used as things are now, so that it need not go to anything else: a
  /// press on a zone or panel is, and all that this pointer does until it is let go.
  bool pointer(const PointerInput& input);
  /// Returns whether the key would be used as things are now.
  bool key(const KeyInput& input);
  /// The window lost the player's attention: what is pressed or dragged is cancelled, nothing is hovered.
  void blur(double time);
  /// The window has another size: what rests is at its new place at once, flights bend, a drag is cancelled.
  void resize(Size window, float pixel_ratio, double time, const Insets& insets = {});
  /// Any input, as a log has it: those of one log are handed in in its order. Returns whether it would be
  /// used.
  bool input(const Input& input);
  /// An input that is taken now, after all that is due now; its own time does not count. Returns what came of
  /// it. Every call of a group but `set_judge`, and every round, is one of these, and can be had from text:
  /// `field.call(*parse_input(R"({"undo": true})", setup))` is `field.moves().undo()`. (A `restore` is not,
  /// without its snapshot: it does nothing.)
  Outcome call(const Input& input);
  /// Hears every input when it is taken, and every call that changes something, from now on; an empty one
  /// ends that.
  void set_recorder(Recorder recorder);
  /// Hears of what was ignored, late, stale or lost, when it happens; an empty one ends that.
  void set_watcher(Watcher watcher);
  /// How often that has happened.
  [[nodiscard]] std::uint64_t count_of(NoticeKind kind) const;
  /// How many inputs and calls did nothing: out of range, without a time, too large, too many.
  [[nodiscard]] std::uint64_t ignored() const;
  /// How many inputs and calls it has taken since its beginning: a log of all of them has as many, what the
  /// game answered aside. A round or a snapshot does not set it back.
  [[nodiscard]] std::uint64_t inputs_taken() const;

  // The loop.

  /// Goes on to the next event or to `until`, whichever comes first, and gives the event. The playfield
  /// stands at the event's time then: `now()` is the event's, unless it was told by an earlier call and is
  /// read late. Inputs whose time has come are taken on the way. O(cards awake / 16) per event.
  std::optional<Event> next_event(double until);
  /// Goes on to this time, whatever happens on the way; the events wait to be read. For pictures and films:
  /// what a game does about such an event comes late. Earlier times are ignored.
  void advance_to(double time);
  /// The time that it has come to, seconds.
  [[nodiscard]] double now() const;
  /// When something has to be done next if nobody does anything: `now()` while something moves, is to be told
  /// or the frame that was asked for last is out of date; else the time of the next input, timer, countdown
  /// or step of a performance, or when a bar that a countdown fills is a pixel shorter; infinity when nothing
  /// is to come. A client sleeps until then, or until its window has an event.
  [[nodiscard]] double next_due() const;
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
  /// an answer as superseded. Ids go on, so that none of the round before is taken for a new one. Refused
  /// when the set-up is out of its range, which the verdict names, before anything is changed.
  /// docs/play.md has a table of what ends with a round and what lasts.
  Verdict start_over(TableSetup setup);
  /// `start_over` with the same table, dealt by its round plan and a seed; `deals`: the deal is shown.
  Verdict start_round(std::uint64_t seed, bool deals = false);
  /// Everything is as in a snapshot, but for the window, the time, which goes on from now, and the events
  /// that were not read yet. What is in the hand ends as cancelled; what was in the hand in the snapshot is
  /// put back. A proposal that waits here and did not in the snapshot ends as superseded. Ids go on.
  void restore(const Playfield& snapshot);

  // Groups.

  /// Where things are: areas, poses, outlines, the card's size, scrolling; what lies at a point.
  [[nodiscard]] const WhereGroup& where() const;
  /// To be asked, and called.
  [[nodiscard]] WhereGroup& where();
  /// What is held, hovered, previewed, focused; how dragging and hovering behave.
  [[nodiscard]] const HandGroup& hand() const;
  /// To be asked, and called.
  [[nodiscard]] HandGroup& hand();
  /// What may be done, and why not.
  [[nodiscard]] const RulesGroup& rules() const;
  /// To be asked, and called.
  [[nodiscard]] RulesGroup& rules();
  /// Moves of the player that a call makes, undo, and the game's answers to drops.
  [[nodiscard]] const MovesGroup& moves() const;
  /// To be asked, and called.
  [[nodiscard]] MovesGroup& moves();
  /// What the game itself changes: not judged, and nothing follows from it.
  [[nodiscard]] EditsGroup& edits();
  /// The table's clock, timers, countdowns, and when all is at rest.
  [[nodiscard]] const TimeGroup& time() const;
  /// To be asked, and called.
  [[nodiscard]] TimeGroup& time();
  /// What opens and closes input.
  [[nodiscard]] const GateGroup& gate() const;
  /// To be asked, and called.
  [[nodiscard]] GateGroup& gate();
  /// What is switched off or hidden for now.
  [[nodiscard]] const SwitchesGroup& switches() const;
  /// To be asked, and called.
  [[nodiscard]] SwitchesGroup& switches();
  /// What moves together, and how.
  [[nodiscard]] const PerformancesGroup& performances() const;
  /// To be asked, and called.
  [[nodiscard]] PerformancesGroup& performances();

 private:
  play_detail::Whole* impl_;  // owned; no std::unique_ptr, as <memory> would double what this header costs
};

}  // namespace apsidon
