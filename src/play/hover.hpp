#pragma once
// The pointer that presses nothing: which card it is on, and the preview of that. Not installed.
#include <algorithm>
#include <cstdint>
#include <limits>
#include <optional>

#include "apsidon/gesture/gesture.hpp"
#include "apsidon/hit/hit_index.hpp"
#include "apsidon/play/handling.hpp"
#include "play/arrangement.hpp"
#include "play/event_queue.hpp"
#include "play/traffic.hpp"

namespace apsidon::play_detail {

/// What a change of the hover asks of the others.
struct HoverChange {
  bool changed = false;
  std::optional<std::size_t> sinks = {};  ///< the slot of a card that rose, and goes back
  std::optional<std::size_t> rises = {};  ///< the slot of a card that rises where it is
};

/// How far a card rises that is hovered or picked up in place, and how it goes there.
[[nodiscard]] Offset risen(const HoverOptions& options, Size card);
[[nodiscard]] Spring rising_spring(const Feel& feel);

/// What hovering looks at, and when.
struct HoverView {
  const TableSetup& setup;
  const Arrangement& arrangement;
  const Traffic& traffic;
  float corner_radius;     ///< of a card, share of its width
  double time;             ///< of the inputs
  bool may_hover;          ///< the hand is empty, the gate is open, and no overlay is in between
  std::uint64_t switches;  ///< their revision
};

/// Decided on neutral poses, which do not change because of what is hovered.
///
/// Invariant: a pointer that rests changes what is hovered at most once while table and window stay the same;
/// the preview is of the hovered card, or of one that a finger stays on.
class Hover {
 public:
  explicit Hover(const HoverOptions& options) : options_(options) {}

  [[nodiscard]] const HoverOptions& options() const { return options_; }
  void set_options(const HoverOptions& options);
  [[nodiscard]] CardId card() const { return card_; }
  [[nodiscard]] CardId previewed() const { return previewed_; }
  /// Where the pointer is, while one is over the window.
  [[nodiscard]] std::optional<Vec2> pointer() const { return here_ ? std::optional(at_) : std::nullopt; }
  /// The hovered card where its zone has it drawn above its neighbours, and where its layout makes room for
  /// it.
  [[nodiscard]] CardId standing_out(const TableSetup& setup) const;
  [[nodiscard]] CardId raised(const TableSetup& setup) const;
  /// The hovered card if a press at this point goes to it; while it waits to end, the pointer has left it.
  [[nodiscard]] CardId takes_press(const Gesture& press) const;
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  // The pointer.

  /// It is here, pressing nothing.
  void move_to(Vec2 at);
  /// Where it was pressed or dragged to is where it hovers afterwards.
  void follow(const Gesture& gesture);
  /// It goes on while the gate is closed: nothing is hovered before that opens.
  void follow_unseen(const PointerInput& input);
  void leave() { here_ = false; }
  /// Looks at what should be hovered, now or after a delay.
  HoverChange consider(const HoverView& view, EventQueue& events);
  HoverChange set(CardId card, const HoverView& view, EventQueue& events);
  /// Shows the preview of a card; none ends it. Whether it shows depends on its zone and on the room there
  /// is.
  void preview_card(CardId card, const HoverView& view, EventQueue& events);
  /// Whether this gesture ends a preview.
  [[nodiscard]] bool ends_preview(const Gesture& gesture) const;
  /// When it does something by itself; infinity when it does not.
  [[nodiscard]] double due() const {
    return std::min(candidate_due_, card_ && !previewed_ ? preview_due_ : never);
  }
  HoverChange run_due(const HoverView& view, EventQueue& events);

  // The preview.

  struct Preview {
    Pose pose = {};
    float opacity = 1;
  };
  /// As it shows at this time on the table's clock, growing out of its card.
  [[nodiscard]] std::optional<Preview> preview(const TableSetup& setup, const Arrangement& arrangement,
                                               double own, const Feel& feel) const;
  /// Whether it has grown since it was drawn.
  [[nodiscard]] bool preview_grew(double drawn, double own, const Feel& feel) const;

 private:
  static constexpr double never = std::numeric_limits<double>::infinity();

  [[nodiscard]] CardId wanted(const HoverView& view);
  [[nodiscard]] CardId topmost_neutral(Vec2 point, const HoverView& view);
  [[nodiscard]] Rect preview_area(const TableSetup& setup, const Arrangement& arrangement, CardId card) const;

  HoverOptions options_;
  bool here_ = false;  // a pointer is over the window
  Vec2 at_ = {};
  CardId card_ = {};
  std::optional<std::size_t> risen_ =
      {};                  // its slot: it may lie in another zone by the time it sinks, or be gone
  CardId candidate_ = {};  // is hovered when `candidate_due_` has come
  double candidate_due_ = never;
  double preview_due_ = never;
  CardId previewed_ = {};
  double previewed_at_ = 0;  // on the table's clock
  HitIndex neutral_hits_ = {};
  std::uint64_t indexed_ = ~std::uint64_t{0};  // the neutral revision that the index has
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
