#pragma once
#include <cstdint>
#include <memory>
#include <optional>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/sketch.hpp"
#include "apsidon/gesture/gesture.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/play/setup.hpp"

namespace apsidon {

struct PlayfieldOptions {
  Size window{1280, 800};       ///< logical px; may be empty
  float pixel_ratio = 1;        ///< device pixels in a logical one, > 0
  float corner_radius = 0.07f;  ///< of a card, share of its width, [0, 0.5]
  Feel feel = {};
  GestureThresholds thresholds = {};
  double start_time = 0;  ///< seconds; the time of the first frame
};

/// What lies at a point.
struct Hit {
  CardId card = {};  ///< none where only a zone is hit
  ZoneId zone = {};  ///< none where nothing is hit

  friend constexpr bool operator==(const Hit&, const Hit&) = default;
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
  Playfield(Playfield&&) noexcept;
  Playfield& operator=(Playfield&&) noexcept;
  ~Playfield();

  // Inputs.

  /// Returns whether the input was used: whether it pressed, dragged or dropped something.
  bool pointer(const PointerInput& input);
  /// The window has another size: what rests is at its new place at once, flights bend, a drag is cancelled.
  void resize(Size window, float pixel_ratio, double time);
  /// Goes on to this time. Earlier times are ignored. O(cards that move).
  void advance_to(double time);
  [[nodiscard]] double now() const;

  // What the game does. A drag whose cards or home zone this touches is cancelled.

  Verdict move(const Run& run, ZoneId to);
  Verdict flip(CardId card, bool face_up);
  SyncReport sync(std::span<const WantedZone> wanted);
  /// Deals: all cards fly, one after another, from the stock to where the table has them.
  void deal();
  /// Shakes a card from side to side. A stale id does nothing.
  void shake(CardId card);

  // What there is to know. References and spans are valid until the next call that is not const.

  [[nodiscard]] const Table& table() const;
  /// What happened up to the last `advance_to`, since the one before it, in order of time.
  [[nodiscard]] std::span<const Event> events() const;
  /// What to draw now. Changes nothing but the revision, and that only when something is to be drawn anew.
  [[nodiscard]] const Frame& frame() const;
  /// The topmost card that takes hits at a point, else the zone whose area has it. Held cards take no hits.
  [[nodiscard]] Hit hit(Vec2 point) const;

  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  [[nodiscard]] Verdict judge_drop(const Run& run, ZoneId to) const;
  /// The run that is held; no cards when none is.
  [[nodiscard]] Run held() const;
  /// The zones that would take the held run, in order; empty when nothing is held.
  [[nodiscard]] std::span<const ZoneId> targets() const;

  [[nodiscard]] Size card_size() const;
  /// Whether the window is large enough to show cards at all.
  [[nodiscard]] bool fits() const;
  [[nodiscard]] const Plan& plan() const;
  [[nodiscard]] std::optional<Rect> area(ZoneId zone) const;
  [[nodiscard]] bool crowded(ZoneId zone) const;
  /// Nothing for a stale id.
  [[nodiscard]] std::optional<Pose> neutral_pose(CardId card) const;
  [[nodiscard]] std::optional<Pose> resting_pose(CardId card) const;
  [[nodiscard]] std::optional<Pose> live_pose(CardId card) const;
  /// When everything will be at rest, known from the start of each way; `now()` when all is.
  [[nodiscard]] double settles_at() const;
  /// Inputs that were ignored because a number was not finite.
  [[nodiscard]] std::uint64_t ignored_inputs() const;

  /// Shows itself: layer "areas" (each zone with its name), "hits" (each card's hit shape), "neutral" (each
  /// card's neutral middle).
  void sketch(Sketch& sketch) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon
