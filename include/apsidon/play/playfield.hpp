#pragma once
#include <array>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/sketch.hpp"
#include "apsidon/gesture/gesture.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/play/input.hpp"
#include "apsidon/play/setup.hpp"
#include "apsidon/rules/describe.hpp"

namespace apsidon {

struct PlayfieldOptions {
  Size window{1280, 800};       ///< logical px; may be empty
  float pixel_ratio = 1;        ///< device pixels in a logical one, > 0
  Insets insets = {};           ///< what of the window stays free, px: a phone's cut-outs
  float corner_radius = 0.07f;  ///< of a card, share of its width, [0, 0.5]
  Feel feel = {};
  GestureThresholds thresholds = {};
  DragOptions drag = {};
  HoverOptions hover = {};
  std::size_t most_undos = 1000;  ///< moves that can be taken back, at least 1
  double start_time = 0;          ///< seconds; the time of the first frame
};

/// What a playfield shows of itself: zones with their names, panels with theirs, each card's hit shape, its
/// neutral middle, the strips of covered cards with the width of the narrowest, the points between which a
/// card would be inserted, and each card's id.
inline constexpr std::array<std::string_view, 7> sketch_layers{"areas",  "panels",    "hits", "neutral",
                                                               "strips", "insertion", "ids"};

/// What lies at a point.
struct Hit {
  CardId card = {};    ///< none where only a zone is hit
  ZoneId zone = {};    ///< none where no zone is hit
  PanelId panel = {};  ///< only where neither card nor zone is

  friend constexpr bool operator==(const Hit&, const Hit&) = default;
};

/// A drop that waits for its answer.
struct Proposal {
  std::uint64_t id = 0;  ///< from 1
  Run run = {};
  ZoneId from = {};
  ZoneId to = {};
  std::optional<std::size_t> at = {};  ///< before which place of `to`, where it inserts or sorts
  std::optional<Vec2> middle = {};     ///< where it was let go, in a free zone

  friend bool operator==(const Proposal&, const Proposal&) = default;
};

/// The game's own answer to a proposal that the rules allow: a verdict now, or nothing: it comes later, by
/// `Playfield::answer`. May not call back into the playfield.
using Judge = std::function<std::optional<Verdict>(const Proposal&)>;
/// Hears every input. May not call back into the playfield.
using Recorder = std::function<void(const Input&)>;

/// What one thing at a point has to do with the answer.
struct Explained {
  enum class Because : std::uint8_t {
    answer,   ///< this is what a press takes
    covered,  ///< something that takes hits lies above it
    held,     ///< it is in the hand, and takes no hits
    zoomed,   ///< it is a larger picture, and takes no hits
    clipped,  ///< its zone is scrolled, and does not show it here
  };
  Hit what = {};
  Because because = Because::covered;

  friend bool operator==(const Explained&, const Explained&) = default;
};

/// The live thing: a table, its plan, what moves, and what the player's hand does. Timed inputs go in, frames
/// and events come out. Used from one thread; two playfields never affect each other.
///
/// Calls of a running playfield never throw. Every input carries its time: the playfield first goes on to
/// that time, so that what happens does not depend on the frame rate. An input earlier than `now()` counts as
/// of now; one that is not finite is ignored and counted.
class APSIDON_CORE_EXPORT Playfield {
 public:
  /// Throws Error when the set-up or an option is out of its range.
  explicit Playfield(TableSetup setup, const PlayfieldOptions& options = {});
  /// A copy is a snapshot of everything, cards in flight too; it has no recorder.
  Playfield(const Playfield& other);
  Playfield& operator=(const Playfield& other);
  Playfield(Playfield&&) noexcept;
  Playfield& operator=(Playfield&&) noexcept;
  ~Playfield();

  // Inputs.

  /// Returns whether the input was used: whether it pressed, dragged or dropped something.
  bool pointer(const PointerInput& input);
  /// Returns whether the key was used.
  bool key(const KeyInput& input);
  /// The window lost the player's attention: what is pressed or dragged is cancelled, nothing is hovered.
  void blur(double time);
  /// Any input, as a log has it. Returns whether it was used.
  bool input(const Input& input);
  /// Hears every input from now on; an empty one ends that.
  void set_recorder(Recorder recorder);
  /// The window has another size: what rests is at its new place at once, flights bend, a drag is cancelled.
  void resize(Size window, float pixel_ratio, double time, const Insets& insets = {});
  /// Moves the content of a zone that scrolls on to `offset` px, cut to what there is. A drag is not
  /// disturbed.
  void scroll_to(ZoneId zone, float offset);
  /// Goes on to this time. Earlier times are ignored. O(cards that move).
  void advance_to(double time);
  [[nodiscard]] double now() const;

  /// Begins a round: all is as in a fresh playfield with this set-up, whatever was in flight, in the hand,
  /// running or counting down, but for what is of the client: the window, the feel, the table's clock with
  /// its holds, and the events that were not read yet. Ids of cards, performances and timers go on, so that
  /// none of the round before is taken for a new one. Throws Error when the set-up is out of its range,
  /// before anything is changed.
  void start_over(TableSetup setup);

  /// `start_over` with the same table, dealt by its round plan and a seed.
  void start_round(std::uint64_t seed);
  /// Everything is as in a snapshot, but for the time, which goes on from now, what is dragged, which is put
  /// back, and the events that were not read yet.
  void restore(const Playfield& snapshot);

  // The gate: closed while at least one reason holds it, it takes no pointers and no keys. Closing it cancels
  // a drag.

  void close_gate(std::string_view reason);
  void open_gate(std::string_view reason);
  [[nodiscard]] bool gate_open() const;
  [[nodiscard]] bool gate_closed_for(std::string_view reason) const;

  // Proposals: every drop is one. The rules answer at once; what they allow, the game may answer too.

  void set_judge(Judge judge);
  /// Answers a proposal that waits. A refused verdict puts the cards back; an allowed one is applied to the
  /// table as it is now, or the proposal ends as superseded: what is returned says so.
  Verdict answer(std::uint64_t proposal, const Verdict& verdict = {});
  [[nodiscard]] std::span<const Proposal> waiting() const;

  // Moves that the player could make, made for them; they are judged, and followed by what follows.

  /// Takes from a stock, or turns its waste over into it.
  Verdict draw_from(ZoneId stock);
  /// Moves the run from a card to the place that takes it: one that takes by itself, else one with cards,
  /// else an empty one; the first of those in the order of the table.
  Verdict send_to_best(CardId card);
  Verdict undo();
  Verdict redo();
  [[nodiscard]] bool can_undo() const;
  [[nodiscard]] bool can_redo() const;
  /// What the game changes by its own calls belongs to the player's last move in undo. After this it is a
  /// move of its own.
  void mark_move();

  // What the game does. A drag whose cards or home zone this touches is cancelled.

  Verdict move(const Run& run, ZoneId to);
  Verdict flip(CardId card, bool face_up);
  Verdict turn(CardId card, bool sideways);
  Verdict set_cell(CardId card, int cell);
  Verdict set_position(CardId card, Vec2 at);
  /// What a panel shows; a fill that is not finite is ignored, others are cut to 0 to 1. A stale id does
  /// nothing.
  void set_panel(PanelId panel, std::string text, float fill = 1);
  Verdict set_face(CardId card, FaceId face);
  SyncReport sync(std::span<const WantedZone> wanted);
  /// Takes a card off the table for good: it is sold, or eaten. What came before cannot be undone any more.
  Verdict remove(CardId card);

  // What moves together.

  /// Begins a script: its acts change the table as they begin, and the cards follow as the feel has it.
  /// Refused acts and stale ids are passed over. The id is what it is skipped, stopped and asked by; events
  /// say how it goes.
  PerformanceId perform(const Script& script);
  /// Deals: all cards fly, one after another, from the stock to where the table has them.
  PerformanceId deal();
  /// Shakes a card from side to side. A stale id does nothing.
  void shake(CardId card);
  /// Lets a card swell, as a hint. A stale id does nothing.
  void pulse(CardId card);
  [[nodiscard]] bool performing(PerformanceId performance) const;
  /// Goes to its end at once: all that is still to happen happens now.
  void skip(PerformanceId performance);
  /// Ends it where it is: cards go home, acts that have not begun do not happen.
  void stop(PerformanceId performance);
  /// How fast it goes, [0, 1000]; 0 pauses it.
  void set_pace(PerformanceId performance, double pace);
  /// How the table moves from now on; what is on its way keeps its way. Throws Error when a number is out of
  /// its range.
  void set_feel(Feel feel);
  [[nodiscard]] const Feel& feel() const;

  // Time. Cards, timers and countdowns go by a clock of the table, that can be held and sped up.

  /// Stops the clock of the table until this reason, and every other, is released.
  void hold(std::string_view reason);
  void release(std::string_view reason);
  [[nodiscard]] bool held_for(std::string_view reason) const;
  /// How fast the clock of the table goes, [0, 1000]; another number is ignored and counted.
  void set_speed(double speed);
  /// An event `rang` after so many seconds, [0, 1e6]; a number that is not is taken as 0.
  TimerId start_timer(double seconds);
  void stop_timer(TimerId timer);
  /// A countdown of this length; `at_first_move`: it starts by itself when the player first moves a card.
  CountdownId add_countdown(double seconds, bool at_first_move = false);
  // A stale id does nothing and is 0.
  void start(CountdownId countdown);
  void add_time(CountdownId countdown, double seconds);
  /// A new length, not started: a new round.
  void set_length(CountdownId countdown, double seconds);
  [[nodiscard]] double seconds_left(CountdownId countdown) const;
  [[nodiscard]] double share_left(CountdownId countdown) const;

  // What there is to know. References and spans are valid until the next call that is not const.

  [[nodiscard]] const Table& table() const;
  /// By PanelId - 1: what each panel is and shows.
  [[nodiscard]] std::span<const PanelSetup> panels() const;
  /// What happened up to the last `advance_to`, since the one before it, in order of time.
  [[nodiscard]] std::span<const Event> events() const;
  /// What to draw now. Changes nothing but the revision, and that only when something is to be drawn anew.
  [[nodiscard]] const Frame& frame() const;
  /// The topmost card that takes hits at a point, else the zone whose area has it. Held cards take no hits.
  [[nodiscard]] Hit hit(Vec2 point) const;
  /// All that lies at a point, from the top, and why each is or is not the answer.
  [[nodiscard]] std::vector<Explained> explain(Vec2 point) const;
  /// The card that is hovered; none when none is.
  [[nodiscard]] CardId hovered() const;
  /// The card whose larger picture shows.
  [[nodiscard]] CardId zoomed() const;
  /// What keys act on; nothing before the first key.
  [[nodiscard]] Hit focused() const;
  /// The pointer's shape here, as a CSS cursor keyword: "default", "pointer", "grab", "grabbing",
  /// "not-allowed" or "wait".
  [[nodiscard]] std::string_view cursor() const;

  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  [[nodiscard]] Verdict judge_drop(const Run& run, ZoneId to) const;
  [[nodiscard]] Verdict judge_stock(ZoneId stock) const;
  /// All that the player may do. O(cards * zones).
  [[nodiscard]] std::vector<LegalMove> legal_moves() const;
  /// The run that is in the hand; no cards when none is. Of several the one that a pointer moved last.
  [[nodiscard]] Run held() const;
  /// The run that this pointer drags; no cards when it drags none.
  [[nodiscard]] Run held_by(std::uint32_t pointer) const;
  /// The zones that would take the held run, in order; empty when nothing is held.
  [[nodiscard]] std::span<const ZoneId> targets() const;
  /// The zone that would get the held run if it were let go now; none when none would.
  [[nodiscard]] ZoneId aimed_at() const;

  [[nodiscard]] Size card_size() const;
  /// Whether the window is large enough to show cards at all.
  [[nodiscard]] bool fits() const;
  [[nodiscard]] const Plan& plan() const;
  [[nodiscard]] std::optional<Rect> area(ZoneId zone) const;
  [[nodiscard]] bool crowded(ZoneId zone) const;
  /// Toward which side the zone's cards look; bottom for a stale id.
  [[nodiscard]] Facing facing(ZoneId zone) const;
  /// Where a panel is; nothing for a stale id or one that the plan does not show.
  [[nodiscard]] std::optional<Rect> panel_area(PanelId panel) const;
  /// Where a zone takes drops: its area, and the window around it as far as half a card.
  [[nodiscard]] std::optional<Rect> drop_area(ZoneId zone) const;
  /// The outline of the zone while it is empty: where its only card would lie.
  [[nodiscard]] std::optional<Pose> outline(ZoneId zone) const;
  /// The neutral pose that a card laid on top of the zone would get. O(cards of the zone).
  [[nodiscard]] std::optional<Pose> next_pose(ZoneId zone, bool face_up = true) const;
  /// Before which place a card held at this point would come to lie, on neutral poses; `before` is what it
  /// was a moment ago: it stays until the point has gone on by a tenth of a card. O(cards of the zone).
  [[nodiscard]] std::optional<std::size_t> insertion_index(
      ZoneId zone, Vec2 point, std::optional<std::size_t> before = std::nullopt) const;
  /// The smallest upright box around a run as it rests; nothing when the zone does not hold all of it.
  [[nodiscard]] std::optional<Rect> run_outline(const Run& run) const;
  /// Length of all that lies in a zone, px, and how far it is scrolled.
  [[nodiscard]] float content(ZoneId zone) const;
  [[nodiscard]] float offset(ZoneId zone) const;
  /// Nothing for a stale id.
  [[nodiscard]] std::optional<Pose> neutral_pose(CardId card) const;
  [[nodiscard]] std::optional<Pose> resting_pose(CardId card) const;
  [[nodiscard]] std::optional<Pose> live_pose(CardId card) const;
  /// When everything will be at rest, known from the start of each way; `now()` when all is.
  [[nodiscard]] double settles_at() const;
  /// Inputs that were ignored because a number was not finite.
  [[nodiscard]] std::uint64_t ignored_inputs() const;

  /// Shows itself in the layers named in `sketch_layers`.
  void sketch(Sketch& sketch) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon
