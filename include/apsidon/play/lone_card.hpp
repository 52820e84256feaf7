#pragma once
#include <array>
#include <cstdint>
#include <deque>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/deck.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/geometry/box.hpp"
#include "apsidon/gesture/gesture.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/motion/gliding.hpp"
#include "apsidon/play/describe.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/frame.hpp"
#include "apsidon/play/input.hpp"
#include "apsidon/rules/describe.hpp"

namespace apsidon {

/// What a lone card begins with.
struct LoneCardOptions {
  FaceId face = {};         ///< of the deck; none: not known
  bool face_up = true;      ///< which side shows
  bool sideways = false;    ///< turned by a quarter, clockwise
  Rect box = {};            ///< where in its form, px; may be empty
  Fit fit = Fit::contain;   ///< in the box
  float aspect = 5.0f / 7;  ///< width over height where it lies upright, [0.05, 20]; not with a known picture
  /// Of its picture, px of its own, each [0, 16384]; empty: not known. `whole`, `none` and `scale_down` go by
  /// it, in device pixels; where it is not known they are `contain`.
  Size art_size = {};
  float pixel_ratio = 1;        ///< device pixels in a px of the form, [0.01, 100]
  float corner_radius = 0.07f;  ///< share of its width, [0, 0.5]
  bool flips = false;           ///< a press flips it
  float growth = 0.03f;         ///< how much larger it gets under the pointer, [-1, 10]
  float lift = 0.2f;            ///< how high it rises there, card widths, [0, 10]
  /// Looked at while the card is made: its flip, its shift (for turning sideways) and its raise (for the
  /// hover) count. None: the brisk one.
  const Feel* feel = nullptr;
  GestureThresholds thresholds = {};  ///< when a press is a long one
  double start_time = 0;              ///< seconds
};

/// How what is set is come to: by the feel, or at once.
enum class Pace : std::uint8_t { glides, at_once };

/// One card as a part of somebody's form: no table, no plan, no zone. It is drawn from the start, moves by
/// its feel, tells what happens to it, and knows nothing of others. A value: a copy goes on by itself. Takes
/// less than 2 kB.
///
///     LoneCard card(deck, {.face = *deck.find("fern-7"), .box = rect_at({20, 20}, {100, 140}), .flips =
///     true}); card.pointer({.phase = PointerPhase::down, .at = {60, 80}, .time = now}); while (const auto
///     event = card.next_event(now)) … draw(card.item());
class APSIDON_CORE_EXPORT LoneCard {
 public:
  /// The deck outlives it. Throws Error when an option is out of its range, or the face is not of the deck.
  explicit LoneCard(const Deck& deck, const LoneCardOptions& options = {});

  [[nodiscard]] FaceId face() const { return face_; }  ///< none: not known
  /// Which side it has; while it flips, the one that comes.
  [[nodiscard]] bool face_up() const { return face_up_; }
  [[nodiscard]] bool sideways() const { return sideways_; }  ///< turned by a quarter
  /// Where it lies, or goes.
  [[nodiscard]] const Rect& box() const { return box_; }
  [[nodiscard]] bool hovered() const { return hovered_; }  ///< a pointer is on it
  [[nodiscard]] bool focused() const { return focused_; }  ///< keys act on it
  [[nodiscard]] bool is_off() const { return off_; }       ///< cannot be pressed

  // What it is from now on; each returns whether it was something else before, and tells its event then.

  /// False, too, for a face that the deck does not have; none: it is not known.
  bool set_face(FaceId face);
  /// The same rank of another suit, and the other way round; a joker, or a face that is not known, takes the
  /// first of what it has not. False, too, for one that the deck does not have.
  bool set_suit(int suit);
  /// The same suit of another rank, likewise.
  bool set_rank(int rank);
  /// Flips it to this side.
  bool set_face_up(bool face_up, Pace pace = Pace::glides);
  /// Flips it to its other side.
  bool flip(Pace pace = Pace::glides) { return set_face_up(!face_up_, pace); }
  /// Turned by a quarter, clockwise; it exchanges width and height in its box.
  bool set_sideways(bool sideways, Pace pace = Pace::glides);
  /// At once, as the form is laid out, or by its shift. What is not finite changes nothing.
  bool set_box(const Rect& box, Pace pace = Pace::at_once);
  /// The form is shown with other device pixels; what is out of its range changes nothing.
  bool set_pixel_ratio(float ratio);
  /// How it fills its box, at once.
  bool set_fit(Fit fit);
  /// Keys act on it.
  bool set_focused(bool focused);
  /// Cannot be pressed, hovered or focused, and is drawn so.
  bool set_off(bool off);
  /// From the next way on.
  void set_feel(const Feel& feel);

  // What comes in. An input of an earlier time counts as of now; one that is not finite is ignored.

  /// Whether it is used: it is on this card, or belongs to a press that began here.
  bool pointer(const PointerInput& input);
  /// `act` presses it while it is focused.
  bool key(const KeyInput& input);

  // Time.

  [[nodiscard]] double now() const { return now_; }  ///< seconds
  /// Goes on to this time, seconds; an earlier one is ignored.
  void advance_to(double time);
  /// The next event up to this time, in order of their times: tapped (it was pressed), long_pressed,
  /// released, flipped, edge_on, face_changed, reoriented, hovered, unhovered, focused, settled. `face_up` is
  /// which side it had then; of edge_on: which shows from now on. What is called for in answer happens at the
  /// event's own time where no input was of a later one.
  std::optional<Event> next_event(double until);
  /// Whether nothing of it moves.
  [[nodiscard]] bool at_rest() const { return !(now_ < ends_at()); }
  /// When it will be at rest if nobody does anything.
  [[nodiscard]] double ends_at() const;
  /// When something has to be done next if nobody does anything: `now()` while it moves or an event waits to
  /// be read, else when a press becomes a long one; infinity when nothing is to come.
  [[nodiscard]] double next_due() const;
  /// How many events were dropped because more than `most_unread_events` waited to be read.
  [[nodiscard]] std::uint64_t lost_events() const { return lost_; }
  /// Grows whenever it may look otherwise.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  /// What to draw now, in the px of its form.
  [[nodiscard]] FrameItem item() const;
  /// What the pointer is tried on: the card where it lies, not raised.
  [[nodiscard]] bool is_at(Vec2 point) const;
  [[nodiscard]] float corner_radius() const { return corner_radius_; }  ///< share of its width
  [[nodiscard]] const Deck& deck() const { return *deck_; }             ///< what its face is of

 private:
  [[nodiscard]] Rect box_at(double time) const;
  [[nodiscard]] Rect fitted(const Rect& box, bool sideways) const;
  [[nodiscard]] Size upright_size(const Rect& box, float turned) const;
  [[nodiscard]] Vec2 middle(const Rect& box, float turned) const;
  [[nodiscard]] float flip_goal() const;
  [[nodiscard]] Pose neutral_pose(double time) const;
  [[nodiscard]] bool lies_at(Vec2 point, const Rect& box, float turned) const;
  [[nodiscard]] bool shows_face_at(double time) const;
  void find_edge();
  void take(const Feel& feel);
  void moves();
  bool step(double time);
  void tell(EventKind kind) { tell(kind, face_up_); }
  void tell(EventKind kind, bool face_up);
  void turn_over(Pace pace);
  void hover(bool over);
  void look_again();
  void act(const Gesture& gesture);

  const Deck* deck_;
  FaceId face_;
  bool face_up_;
  bool sideways_;
  bool hovered_ = false;
  bool focused_ = false;
  bool off_ = false;
  bool flips_;
  bool moved_ = false;  // something began to move since it was told that it has settled
  Fit fit_;
  Rect box_;
  Size art_size_;
  float pixel_ratio_;
  FaceId still_shows_ = {};  // until it is edge-on: what it showed when it was covered and given another face
  std::optional<Vec2> rests_at_ = {};  // the pointer that hovers
  float aspect_;
  float corner_radius_;
  float growth_;
  float lift_;
  float flip_axis_ = 0;
  Glide flipping_;
  Glide turning_;
  Glide raising_;
  Gliding flip_;                  // radians
  Gliding turn_;                  // quarters
  Gliding raised_;                // share
  std::array<Gliding, 4> sides_;  // of its box: left, top, right, bottom
  double now_;
  double edge_at_;  // when its other side shows
  GestureReader gestures_;
  /// What becomes an Event when it is read.
  struct Told {
    EventKind kind;
    double time;
    bool face_up;
  };
  std::deque<Told> events_ = {};
  std::uint64_t lost_ = 0;
  std::uint64_t revision_ = 1;
};

/// A frame with such cards, for whoever draws frames: back to front, on a form of this size, px. Corners are
/// as round as those of the first.
[[nodiscard]] APSIDON_CORE_EXPORT Frame frame_of(std::span<const LoneCard> cards, Size form,
                                                 float pixel_ratio = 1);
/// The same of cards that are kept apart, in widgets of their own; none of them is null.
[[nodiscard]] APSIDON_CORE_EXPORT Frame frame_of(std::span<const LoneCard* const> cards, Size form,
                                                 float pixel_ratio = 1);

/// "7 of fern, sideways", for screen readers.
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe(const LoneCard& card, const Names& names = {},
                                                       const EventPhrases& phrases = default_event_phrases());

}  // namespace apsidon
