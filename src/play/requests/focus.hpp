#pragma once
// What keys act on. Not installed.
#include <compare>
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/play/handling.hpp"
#include "apsidon/play/hit.hpp"
#include "play/decides/referee.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/panels.hpp"
#include "play/keeps/switches.hpp"
#include "play/requests/hand.hpp"
#include "play/requests/selection.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// What a key asks for.
enum class KeyRequest : std::uint8_t {
  unused,     ///< the key means nothing now
  moved,      ///< the focus has moved, or has not found where to
  put_back,   ///< what is carried, by keys or not
  drop,       ///< the run that the keys carry goes where they aim
  act,        ///< a tap on what is focused
  act_twice,  ///< a double tap
  unfocus,
  undo,
  redo,
  send,      ///< what is focused goes to where it goes by itself
  send_top,  ///< so does the top card of a zone that the table names
};

/// What the focus looks at, and when.
struct FocusView {
  const TableSetup& setup;
  const Panels& panels;
  const Arrangement& arrangement;
  const Referee& referee;
  const Hand::Carry& carry;
  const Selection& selection;
  const Switches& switches;
  bool only_overlays;  ///< the gate is closed, or an overlay keeps all from what lies below
  double time;
};

/// Invariant: the focus is on something that keys can act on, or on nothing; it is told once whenever it
/// changes.
class Focus {
 public:
  [[nodiscard]] const Hit& on() const { return on_; }
  [[nodiscard]] bool any() const { return on_ != Hit{}; }
  [[nodiscard]] Vec2 at() const { return at_; }
  /// What would be picked up from the focused card; no cards when nothing would.
  [[nodiscard]] const Run& run() const { return run_; }
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  /// Moves the focus, or says what else the key asks for.
  KeyRequest read(const KeyInput& input, const FocusView& view, EventQueue& events);
  /// A focus whose card has gone, or can no longer be acted on, finds the nearest that can.
  void keep(const FocusView& view, EventQueue& events);
  void set(const Hit& what, const FocusView& view, EventQueue& events);
  /// Whether keys can act on this now.
  [[nodiscard]] bool may_be_on(const Hit& what, const FocusView& view);
  /// What comes of one key is told once, by `tell`.
  void defer() { deferred_ = true; }
  void tell(const FocusView& view, EventQueue& events);

 private:
  struct Candidate {
    Hit what;
    Vec2 middle;
  };
  /// How far a candidate is in a direction: the smaller, the nearer.
  struct Way {
    int detour = 0;  ///< 0 in the zone itself, 1 beside it, 2 beyond it, 3 anywhere else
    float gap = 0;   ///< between the areas, px
    float cost = 0;

    friend constexpr auto operator<=>(const Way&, const Way&) = default;
  };
  [[nodiscard]] static std::optional<Rect> area_of(const Hit& what, const FocusView& view);
  [[nodiscard]] std::optional<Way> way_to(const Candidate& candidate, Vec2 direction,
                                          const FocusView& view) const;
  void gather(const FocusView& view);
  void add_buttons(const FocusView& view);
  void move(Vec2 direction, const FocusView& view, EventQueue& events);
  void step(int by, const FocusView& view, EventQueue& events);

  Hit on_ = {};
  Hit told_ = {};
  Run run_ = {};
  bool deferred_ = false;
  Vec2 at_ = {};
  std::vector<Candidate> candidates_ = {};  // scratch
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
