#pragma once
// The pointer that presses nothing: which card it is on, and the preview of that. Not installed.
#include <algorithm>
#include <cstdint>
#include <limits>
#include <optional>
#include <vector>

#include "apsidon/gesture/gesture.hpp"
#include "apsidon/hit/hit_index.hpp"
#include "apsidon/motion/gliding.hpp"
#include "apsidon/play/handling.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/traffic.hpp"

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
  const Feel& feel;
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
  /// The keys are on this card: it has its preview after a while, or at once where the card before had one.
  void focus_on(CardId card, const HoverView& view, EventQueue& events);
  /// Whether this gesture ends a preview.
  [[nodiscard]] bool ends_preview(const Gesture& gesture) const;
  /// A finger that stays has called a preview, and takes it along from card to card until it is lifted.
  void slide_with(std::uint32_t pointer) { slider_ = pointer; }
  [[nodiscard]] bool slides(const Gesture& gesture) const {
    return slider_ && *slider_ == gesture.pointer && gesture.kind != GestureKind::press;
  }
  void end_slide() { slider_.reset(); }
  /// When it does something by itself; infinity when it does not.
  [[nodiscard]] double due() const { return std::min(candidate_due_, preview_due_); }
  HoverChange run_due(const HoverView& view, EventQueue& events);

  // The preview.

  struct Preview {
    CardId card = {};
    Pose pose = {};
    float opacity = 1;
  };
  /// Those that show at this time on the cards' clock, each growing out of its card or going back into it;
  /// the last is the one that comes.
  void previews(const TableSetup& setup, const Arrangement& arrangement, double own,
                std::vector<Preview>& out) const;
  /// Whether any has grown or gone since it was drawn.
  [[nodiscard]] bool preview_grew(double drawn, double own) const;
  /// Whether any grows or goes at this time on the cards' clock.
  [[nodiscard]] bool preview_grows(double own) const {
    return std::any_of(shown_.begin(), shown_.end(),
                       [&](const ShownPreview& p) { return own < p.share.ends_at(); });
  }
  [[nodiscard]] bool any_preview() const { return !shown_.empty(); }

 private:
  static constexpr double never = std::numeric_limits<double>::infinity();

  [[nodiscard]] CardId wanted(const HoverView& view);
  [[nodiscard]] CardId topmost_neutral(Vec2 point, const HoverView& view);
  [[nodiscard]] Rect preview_area(const TableSetup& setup, const Arrangement& arrangement, CardId card) const;
  [[nodiscard]] Rect preview_beside(const Rect& keep, const Pose& pose, const Arrangement& arrangement) const;
  void preview_soon(CardId card, bool at_once, const HoverView& view, EventQueue& events);
  void show(CardId card, double own, const Feel& feel);

  HoverOptions options_;
  bool here_ = false;  // a pointer is over the window
  Vec2 at_ = {};
  CardId card_ = {};
  std::optional<std::size_t> risen_ =
      {};                  // its slot: it may lie in another zone by the time it sinks, or be gone
  CardId candidate_ = {};  // is hovered when `candidate_due_` has come
  double candidate_due_ = never;
  double preview_due_ = never;
  CardId to_preview_ = {};  // has its preview when `preview_due_` has come
  CardId previewed_ = {};
  CardId focused_ = {};                       // by keys
  std::optional<std::uint32_t> slider_ = {};  // the finger that takes the preview along
  /// A preview that comes or goes.
  struct ShownPreview {
    CardId card = {};
    Gliding share = Gliding(0, 2e-4f);  // of it that shows, on the cards' clock
  };
  std::vector<ShownPreview> shown_ = {};
  HitIndex neutral_hits_ = {};
  std::uint64_t indexed_ = ~std::uint64_t{0};  // the neutral revision that the index has
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
